import type { Sentence } from './sentence';

/** What a board under power tells: measured, run with a trace, walked, toured, and held to its sheet; and hazards, before there is one. */
export const simulationSentences = {
  'measure-shorted': {
    severity: 'error',
    says: 'Supply and ground are joined as the switches stand: the supply gives its limit of {most} mA, at which {volts} V are left of it, and nothing else can be measured.',
    todo: 'Pull out what joins them; the inspector names it.',
  },
  'measure-running': {
    severity: 'note',
    says: 'The board runs and does not come to rest; what keeps changing shows as unknown.',
    todo: 'Say when to measure, such as --at 3s.',
  },
  'timer/too-fast': {
    severity: 'note',
    says: 'The timer at {pin} is fast already: a hundredth of its capacitor would be too small to build with.',
    todo: 'Run it as it is, or give it a larger capacitor first.',
  },
  'timer/no-room': {
    severity: 'warning',
    says: 'There is no room for a second capacitor and a switch beside the timer at {pin}.',
    todo: 'Add a breadboard, or free a hole in the strips of its capacitor.',
  },
  'run-cut': {
    severity: 'warning',
    says: 'The run ends after {events} events, at {ms} ms: so much happens on the board.',
    todo: 'Ask for a shorter time.',
  },
  'trace-no-signal': {
    severity: 'error',
    says: 'No signal of the trace is called {name}.',
    todo: 'Take the name of a row, or point at a strip and press ; to trace it.',
  },
  'trace-never-true': {
    severity: 'note',
    says: '{text} did not become true before that, as far as is traced.',
    todo: 'Move mark A, or look forward.',
  },
  'trace-rests': {
    severity: 'note',
    says: 'It did not come: the board rests, and nothing will change by itself.',
    todo: 'Move a switch, and look again.',
  },
  'trace-forgets': {
    severity: 'note',
    says: 'More changed than a trace keeps; its beginning is forgotten.',
    todo: 'Ask for a shorter time, or watch fewer signals.',
  },
  'board-runs': {
    severity: 'error',
    says: 'The board does not come to rest: it runs on. What keeps changing shows as unknown.',
    todo: 'If it is not meant to run, look for an output that reaches its own input.',
  },
  'unclear-no-supply': {
    severity: 'error',
    says: '{pin} has no supply, so nobody knows what its chip does.',
    todo: 'Lay a jumper from it to a rail that carries +5 V, and look at the ground pin.',
  },
  'unclear-open': {
    severity: 'error',
    says: '{pin} is open and may read as anything.',
    todo: 'Wire it, or tie it to a rail.',
  },
  'unclear-between': {
    severity: 'error',
    says: '{pin} is at {volts} V, neither low nor high to its chip.',
    todo: 'Look for two outputs on its net, a resistor that is too large, or chips whose levels do not meet.',
  },
  'unclear-lamp-burns': {
    severity: 'error',
    says: '{lamp} takes {ma} mA, past its maximum: on the bench it is destroyed.',
    todo: 'Use a larger resistor, 1 kΩ or so.',
  },
  'lamp-destroyed': {
    severity: 'error',
    says: '{lamp} took {ma} mA, past its maximum: it is destroyed and stays dark.',
    todo: 'Use a larger resistor, 1 kΩ or so, and put in a new LED.',
  },
  'timing-pulse': {
    severity: 'warning',
    says: '{pin} was {level} for {ns} ns only ({times}); its data sheet asks for {least} ns at least.',
    todo: 'Hold it longer: take the reset from a latch, or from a slower path; some chips of the kind may miss such a pulse.',
  },
  'timing-period': {
    severity: 'warning',
    says: '{pin} was clocked at {mhz} MHz ({times}); its data sheet promises {most} MHz at the most.',
    todo: 'Slow the clock down, or take the chip in a faster family.',
  },
  'timing-set-up': {
    severity: 'warning',
    says: '{pin} changed {ns} ns before the active edge of its clock ({times}); its data sheet asks for {least} ns at least.',
    todo: 'Slow the clock down, shorten the path to this pin, or let it change at the other edge.',
  },
  'timing-hold': {
    severity: 'warning',
    says: '{pin} changed {ns} ns after the active edge of its clock ({times}); its data sheet asks for {least} ns at least.',
    todo: 'Take the clock to this chip by a shorter way, or the data by a longer one.',
  },
  'sheet-parted': {
    severity: 'warning',
    says: 'After {after} the board does otherwise than the sheet: {outputs}. The first to part is {pin}.',
    todo: 'Look at what reaches that pin; power off and on to begin again.',
  },
  'hazard-too-wide': {
    severity: 'warning',
    says: 'The design has {sources} inputs and stored signals, more than hazards are looked for.',
    todo: 'Look at a part of it by itself.',
  },
  'hazard-steers': {
    severity: 'warning',
    says: 'When {input} changes, {what} may get a pulse of up to {ns} ns that the sheet does not mean.',
    todo: 'Add the consensus product there (saddlebag hazards names it), or take the signal from a flip-flop.',
  },
  'tour-no-reset': {
    severity: 'note',
    says: 'No presses bring what is stored to a known state: the tour begins with all of it cleared, and {starts} more starts by chance were tried.',
    todo: 'Give the design a clear or preset that a switch reaches, and a tour from there sees every state.',
  },
  'tour-cleared': {
    severity: 'note',
    says: 'No presses bring what is stored to a known state, so the tour begins with all of it cleared; a board may begin otherwise.',
    todo: 'Give the design a clear or preset that a switch reaches.',
  },
  'tour-cut': {
    severity: 'warning',
    says: 'The design has more states than are gone through; the tour leads through the first {states}.',
    todo: 'Tour a part of the design by itself.',
  },
  'tour-one-shots': {
    severity: 'warning',
    says: 'The pulses of {refs} end by themselves, which the states of the sheet do not know: no tour was made.',
    todo: 'Press the switches by hand at Power up, and look at the pulses in the trace.',
  },
  'tour-incomplete': {
    severity: 'warning',
    says: 'The tour has seen {covered} of {transitions} transitions.',
    todo: 'Where the board differs, mend that and tour again. Where it does not, the tour is too long: tour a part of the design by itself.',
  },
  'tour-no-lamps': {
    severity: 'warning',
    says: 'The sheet has no outputs, so there is nothing to see.',
    todo: 'Add an out line to the sheet.',
  },
  'tour-stores-nothing': {
    severity: 'error',
    says: 'The design stores nothing, so it has no states to go through.',
    todo: 'Walk its table instead: saddlebag walk FILE.',
  },
  'walk-stores': {
    severity: 'error',
    says: 'What the lamps show depends on what is stored ({names}), so there is no table to walk.',
    todo: 'Set the switches and step the clock by hand at Power up; its states are listed by saddlebag states FILE.',
  },
  'walk-too-wide': {
    severity: 'error',
    says: '{inputs} switches make {rows} rows; walks go up to {limit} switches.',
    todo: 'Set the rows you care about by hand.',
  },
} as const satisfies Record<string, Sentence>;
