import type { Sentence } from './sentence';

/** What the inspector finds on a board. */
export const inspectionSentences = {
  'board-outdated': {
    severity: 'warning',
    says: 'The sheet has changed since the board was laid out.',
    todo: 'Lay the board out afresh, or change the wiring as the other findings say.',
  },
  'no-supply-source': {
    severity: 'error',
    says: 'No supply is connected to the board.',
    todo: 'Seat a 5 V supply on a pair of rails.',
  },
  'chip-no-supply': {
    severity: 'error',
    says: '{ref} pin {pin} has no supply.',
    todo: 'Lay a jumper from its strip {strip} to a rail that carries +5 V.',
  },
  'chip-no-ground': {
    severity: 'error',
    says: '{ref} pin {pin} has no ground.',
    todo: 'Lay a jumper from its strip {strip} to a rail that carries 0 V.',
  },
  'chip-turned-round': {
    severity: 'error',
    says: '{ref} is seated the wrong way round: supply is on its ground pin {ground} and ground on its supply pin {supply}.',
    todo: 'Switch off at once and rotate the chip so that its notch is on the left.',
  },
  'supply-shorted': {
    severity: 'error',
    says: 'Supply and ground are joined by {bridge}.',
    todo: 'Pull out {bridge} and look where each end should go.',
  },
  'outputs-joined': {
    severity: 'error',
    says: 'The outputs {pins} are joined by {bridge}; they will fight.',
    todo: 'Pull out {bridge}: one net takes one output.',
  },
  'signals-joined': {
    severity: 'error',
    says: '{signals} are joined in one net by {bridge}.',
    todo: 'Pull out {bridge}; each signal has a net of its own.',
  },
  'switch-bypassed': {
    severity: 'error',
    says: 'Both sides of {ref} are joined by {bridge}: it makes no difference whether it is on.',
    todo: 'Pull out {bridge}.',
  },
  'output-on-rail': {
    severity: 'error',
    says: 'Output {pin} is joined to {rail} by {bridge}.',
    todo: 'Pull out {bridge}; an output must be free to go high and low.',
  },
  'floating-input': {
    severity: 'error',
    says: '{pins} open, though in use{wanted}; an open {family} input may read as anything.',
    todo: 'Wire it to {source}.',
  },
  'unused-input-open': {
    severity: 'warning',
    says: 'Input {pin} of an unused gate is open; in {family} it may oscillate and draw current.',
    todo: 'Tie it to ground (or supply) with a jumper.',
  },
  'led-no-resistor': {
    severity: 'error',
    says: '{ref} has {has}; it will burn, or pull down what drives it.',
    todo: 'Put a 1 kΩ resistor between its cathode and ground.',
  },
  'led-resistor-bridged': {
    severity: 'error',
    says: '{bridge} leads past {resistor}, the resistor of {ref}; the LED will burn, or pull down what drives it.',
    todo: 'Pull out {bridge}.',
  },
  'led-between-signals': {
    severity: 'error',
    says: 'The cathode of {ref} is joined to {signal} by {bridge}: the lamp lights only while that is low.',
    todo: 'Pull out {bridge}; the cathode goes to ground through its resistor.',
  },
  'led-over-maximum': {
    severity: 'error',
    says: '{ref} gets {ma} mA through {ohms} Ω; the maximum for {what} is {most} mA.',
    todo: 'Use a larger resistor, 1 kΩ or so.',
  },
  'led-cathode-on-supply': {
    severity: 'error',
    says: 'The cathode of {ref} leads to +5 V, so no current flows through it.',
    todo: 'Move that end, or its resistor, to a ground rail.',
  },
  'led-shorted': {
    severity: 'error',
    says: 'Both leads of {ref} are joined by {bridge}: it stays dark.',
    todo: 'Pull out {bridge}.',
  },
  'led-reversed': {
    severity: 'error',
    says: '{ref} is the wrong way round; it will never light.',
    todo: 'Turn it: the anode, the longer lead, goes to the signal.',
  },
  'switch-floats': {
    severity: 'error',
    says: '{ref} leaves its signal open when it is off.',
    todo: 'Put a 10 kΩ resistor from {pin} to ground.',
  },
  'switch-shorts-supply': {
    severity: 'error',
    says: '{ref} joins supply to ground when it is on; the jumper that does it is {bridge}.',
    todo: 'Move it: one side of the switch goes to supply, the other to the signal and its pull-down alone.',
  },
  'switch-one-level': {
    severity: 'error',
    says: '{ref} makes no difference: {pin} is at {rail} whether it is on or off.',
    todo: 'Feed the switch from one rail, and take the resistor at its signal to the other.',
  },
  'switch-inverted': {
    severity: 'warning',
    says: '{ref} gives low when it is on and high when it is off.',
    todo: 'Exchange supply and ground at the switch and its resistor, or read the table that way round.',
  },
  'switch-no-feed': {
    severity: 'error',
    says: '{ref} is fed by no rail: its signal never goes high.',
    todo: 'Lay a jumper from {pin} to a rail that carries +5 V.',
  },
  'led-no-return': {
    severity: 'error',
    says: '{ref} has no path to ground, so it stays dark.',
    todo: 'Put its resistor between the cathode and a ground rail.',
  },
  'button-always-closed': {
    severity: 'error',
    says: '{ref} has both sides of its contact in strip {strip}: it is always closed.',
    todo: 'Rotate it by a quarter so that it spans the channel.',
  },
  'chips-in-one-strip': {
    severity: 'error',
    says: '{pin} and {other} are in one strip, {strip}; the board joins them.',
    todo: 'Move one of the chips to columns of its own.',
  },
  'control-left-open': {
    severity: 'error',
    says: '{pin}, {name}, is open, and it decides whether the chip works at all.',
    todo: 'Tie it to {to}.',
  },
  'colour-lies': {
    severity: 'warning',
    says: '{id} is {colour}, the colour for {means}, but carries {carries}.',
    todo: 'Use another colour for it.',
  },
  'supply-not-in-corners': {
    severity: 'note',
    says: '{ref}, {part}, has its supply on pin {supply} and its ground on pin {ground}, not where most chips have them.',
    todo: 'Check these two pins again before switching on.',
  },
  'capacitor-reversed': {
    severity: 'error',
    says: '{ref} has {volts} V the wrong way round; an electrolytic capacitor heats then, and may burst.',
    todo: 'Turn it round: its stripe towards minus.',
  },
  'capacitor-far': {
    severity: 'warning',
    says: 'The capacitor nearest to {ref}, {capacitor}, is {columns} columns away.',
    todo: 'Move it within {reach} columns of the supply pin.',
  },
  'idle-output-wired': {
    severity: 'warning',
    says: '{pin}, the output of an unused gate, is connected, and holds its net at one level.',
    todo: 'Pull out the jumper that ends in {strip}, or wire the inputs of the gate.',
  },
  'transistor-reversed': {
    severity: 'error',
    says: '{ref} is the wrong way round: its {there} is at {rail}, where its {belongs} belongs.',
    todo: 'Rotate it by half a turn, or exchange the jumpers at its outer leads.',
  },
  'base-no-resistor': {
    severity: 'error',
    says: '{pin}, the base of {ref}, has no resistor: base and emitter are a diode to {rail}, and the current of the driver destroys it.',
    todo: 'Put a resistor of some 4.7 kΩ between the base and what drives it.',
  },
  'base-too-weak': {
    severity: 'warning',
    says: '{ref} gets {given} mA at its base; to carry the {load} mA of its load it needs {needed} mA.',
    todo: 'Use a resistor of {ohms} Ω or less at its base.',
  },
  'one-shot-no-time': {
    severity: 'warning',
    says: 'The one-shot at {pin} has no {lacks}: its pulse {lasts}.',
    todo: 'Put a capacitor between {far} and {pin} and a resistor from {pin} to supply; Timers says which give the pulse that is wanted.',
  },
  'timer-rate': {
    severity: 'warning',
    says: '{pin} runs at {runs}; the sheet wants {signal} at {wanted}.',
    todo: 'With {parts} it does; Timers works out others.',
  },
  'pulse-length': {
    severity: 'warning',
    says: 'The pulse of {pin} lasts {lasts}; the sheet wants {wanted}.',
    todo: 'With {parts} it does; Timers works out others.',
  },
  'gate-left-open': {
    severity: 'error',
    says: '{pin}, the gate of {ref}, is open: it keeps whatever charge it has.',
    todo: 'Put a 10 kΩ resistor from the gate to ground.',
  },
  'built-otherwise': {
    severity: 'note',
    says: 'The board is built of transistors, diodes or analogue switches, without gates in chips: its pins are not compared with the design.',
    todo: 'Walk the table at Power up to compare what it does with the sheet.',
  },
  'open-collector-no-pull-up': {
    severity: 'error',
    says: '{pin} is an open-collector output without a pull-up: it can only pull low, so {reader} never goes high.',
    todo: 'Put a 1 kΩ resistor from it to a rail that carries +5 V.',
  },
  'spare-gates-suffice': {
    severity: 'note',
    says: 'The {what} of {ref} could be {as} of {refs}, which saves a chip.',
    todo: 'Compare the strategies at Pack.',
  },
  'decoded-reset': {
    severity: 'note',
    says: '{pin}, {name}, is driven by outputs of {ref} itself, through {through}: the pulse ends as soon as the first flip-flop clears.',
    todo: 'Test it with the real chips, or hold the reset until the next clock edge.',
  },
  'display-polarity': {
    severity: 'error',
    says: '{ref} is a display with {kind}, but {because}.',
    todo: 'Use a display of the other polarity, or connect the common pins to {rail} and use a matching decoder.',
  },
  'display-shared-resistor': {
    severity: 'warning',
    says: 'The segments of {ref} share one resistor, {resistor}.',
    todo: 'Give each segment a resistor of its own, and connect the common pins straight to their rail.',
  },
  'rail-half-dead': {
    severity: 'error',
    says: 'Only one half of the rail is fed: {other} is, {rail} is not.',
    todo: 'Bridge the break with a jumper.',
  },
  'rail-not-fed': {
    severity: 'error',
    says: 'Rail {rail} is in use but joined to no supply.',
    todo: 'Link it with a jumper to the rail of the same mark that is fed.',
  },
  'no-capacitor': {
    severity: 'warning',
    says: '{ref} has no 100 nF capacitor near it.',
    todo: 'Seat one between the supply and ground rails within {reach} columns of its supply pin.',
  },
  'two-leads-in-a-hole': {
    severity: 'error',
    says: 'Hole {hole} holds two leads: {by}.',
    todo: 'Move one of them to a free hole of the same strip.',
  },
  'hole-covered': {
    severity: 'error',
    says: '{by} is plugged into {hole}, under the body of {ref}.',
    todo: 'Move it to a free hole of the same strip.',
  },
  'lead-off-board': {
    severity: 'error',
    says: '{ref} pin {pin} is in no hole.',
    todo: 'Move {ref} so that each of its leads finds a hole.',
  },
  'pins-in-one-strip': {
    severity: 'error',
    says: '{ref} has pins {pins} in one strip; the board shorts them together.',
    todo: 'Seat it over the channel, or with its leads in different columns.',
  },
  'unknown-part': {
    severity: 'error',
    says: '{ref} is a {part}, which this catalogue does not know.',
    todo: 'Replace it by a part of the catalogue.',
  },
  'wiring-wrong': {
    severity: 'error',
    says: '{pin} should carry {wanted}, it carries {carried}.',
    todo: 'Move the jumper that ends in {strip} to {source}.',
  },
  'wiring-missing': {
    severity: 'error',
    says: '{pin} should carry {wanted}, it is not connected to it.',
    todo: 'Lay a jumper: {pin} > {source}.',
  },
  'wiring-beside': {
    severity: 'error',
    says: 'Jumper {jumper} brings {wanted} to {beside}, the strip beside {pin}.',
    todo: 'Move that end one hole over, to {strip}.',
  },
  'jumper-in-one-strip': {
    severity: 'warning',
    says: 'Both ends of {id} are in the strip {strip}: it joins nothing.',
    todo: 'Pull it out, or move an end to where it should go.',
  },
  'jumper-leads-nowhere': {
    severity: 'warning',
    says: '{id} ends at {hole}, in a strip that holds nothing else.',
    todo: 'Move that end to where it should go, or pull it out.',
  },
  'jumper-redundant': {
    severity: 'note',
    says: '{id} joins {from} and {to}, which are joined already.',
    todo: 'It can stay, or be pulled out to be used elsewhere.',
  },
  'clock-from-switch': {
    severity: 'note',
    says: '{ref} gives the clock of {pins}: its contacts bounce, so that one press may count several times.',
    todo: 'On the bench, debounce it with two NANDs, or with a resistor, a capacitor and a 7414; here switches do not bounce.',
  },
  'supply-current': {
    severity: 'warning',
    says: '{ref} must supply up to {ma} mA: {chips} mA to chips, {loads} mA to LEDs and resistors. It gives {most} mA.',
    todo: 'Use a supply that gives more, larger resistors at the LEDs, or CMOS chips.',
  },
  'supply-out-of-range': {
    severity: 'warning',
    says: '{ref} gives {volts} V; {title} is made for {least} V to {most} V.',
    todo: 'Set the supply to 5 V.',
  },
  'supply-over-maximum': {
    severity: 'error',
    says: '{ref} gives {volts} V, over the absolute maximum of {title}, {most} V: the chips will burn.',
    todo: 'Do not switch on; set the supply to 5 V.',
  },
  'supplies-joined': {
    severity: 'error',
    says: '{refs} feed one net; the stronger drives current back into the other.',
    todo: 'Remove one of them, or disconnect the rails that they feed.',
  },
  'fan-out': {
    severity: 'error',
    says: '{inputs} inputs take {taken} mA from {pin} when it is {level}; it guarantees {most} mA.',
    todo: 'Drive some of them from another gate of the same function.',
  },
  'levels-do-not-meet': {
    severity: 'error',
    says: '{pin} ({from}) gives {gives} V when it is {level}; {to} ({of}) reads {level} {wants}.',
    todo: 'Use chips of one family there, HCT or ACT to read TTL, or a pull-up resistor to supply.',
  },
  'level-between': {
    severity: 'error',
    says: '{pin} gets {volts} V while {when}: it reads low up to {low} V and high from {high} V, and neither for sure between.',
    todo: 'Take load off what drives it, or change the resistors there, until the volts are past one of the two.',
  },
  'released-by-analogue-switches': {
    severity: 'warning',
    says: '{pin} floats while the analogue switches on it are open: an input of the {family} family then reads anything.',
    todo: 'Add a resistor of 10 to 100 kΩ from there to ground or to supply.',
  },
  'led-current': {
    severity: 'warning',
    says: '{ref} takes {ma} mA from {pin}; its levels are guaranteed up to {most} mA.',
    todo: 'Use a larger resistor, 1 kΩ or so, or let a transistor carry the current.',
  },
  'pull-too-weak': {
    severity: 'error',
    says: 'Input currents through {ref} lift {pin} to {volts} V; low is at most {least} V.',
    todo: 'Use a resistor of {ohms} Ω or less.',
  },
  'part-missing': {
    severity: 'error',
    says: 'The packing asks for {ref} ({part}); it is not on the board.',
    todo: 'Seat a {part}, or lay the board out again.',
  },
  'part-differs': {
    severity: 'error',
    says: '{ref} should be a {wanted}; a {found} is seated.',
    todo: 'Replace the chip, or lay the board out again.',
  },
  'contents-differ': {
    severity: 'error',
    says: '{ref} holds something else than the sheet has its {part} hold.',
    todo: 'Program it anew: bring the board up to date, or replace the chip.',
  },
  'part-stands-in': {
    severity: 'note',
    says: '{ref} is a {found} in place of a {wanted}: the same pins and the same function.',
    todo: 'It can stay unless another finding says otherwise.',
  },
  'signal-has-no-switch': {
    severity: 'error',
    says: 'No switch gives the input {name}.',
    todo: 'Seat a switch and name its signal {name}.',
  },
  'label-answers-nothing': {
    severity: 'warning',
    says: '{at} is labelled {label}, which matches nothing.',
    todo: 'Label it with an input of the sheet if it is a switch, with an output if it is a lamp.',
  },
  'signal-has-no-led': {
    severity: 'error',
    says: 'No LED shows the output {name}.',
    todo: 'Seat an LED with its resistor and name its signal {name}.',
  },
  'output-over-maximum': {
    severity: 'error',
    says: '{pin} carries {ma} mA; the absolute maximum of an output there is {most} mA.',
    todo: 'Look for what else drives its net, or for a resistor that is missing or too small.',
  },
} as const satisfies Record<string, Sentence>;
