import type { Sentence } from './sentence';

/** What the hands, the planner, being led, files and reading back may be refused, or have to tell. */
export const handsSentences = {
  'hand/no-unit': {
    severity: 'error',
    says: '{place} is not a unit of this packing.',
    todo: 'Name a package and a unit of it, such as U2.3.',
  },
  'hand/spare-unit': {
    severity: 'error',
    says: '{place} is spare: there is nothing to move.',
    todo: 'Choose a unit in use.',
  },
  'hand/unit-cannot': {
    severity: 'error',
    says: 'A unit of a {part} ({title}) cannot do what {net} needs: {duty}.',
    todo: 'Choose a unit of the same kind, as wide or wider; an inverter also fits NAND, NOR and exclusive-or units.',
  },
  'hand/by-number': {
    severity: 'error',
    says: '{net} belongs to {ref}, a part that is no plain gate: its units keep their pins.',
    todo: 'Change it on the sheet.',
  },
  'hand/unequal-inputs': {
    severity: 'error',
    says: 'The inputs on pins {a} and {b} of {ref} are not equal: swapped, {net} would be another function.',
    todo: 'Swap inputs of one AND, OR or exclusive or.',
  },
  'hand/not-the-sheets': {
    severity: 'error',
    says: '{net} is a step that the packing added; only gates of the sheet can be pinned.',
    todo: 'Pin the gate that it is a step of, or give the step a name on the sheet.',
  },
  'hand/not-choosable': {
    severity: 'error',
    says: 'A packing cannot use units of {part}.',
    todo: 'Add one of {chips}.',
  },
  'hand/still-used': {
    severity: 'error',
    says: '{ref} still makes {nets}.',
    todo: 'Move them to other packages first, or exclude the chip and pack again.',
  },
  // a design read back from a board
  'recover/idle-switch': {
    severity: 'warning',
    says: 'Switch {ref} does not connect a rail to a net of its own; on the sheet it is an input that nothing reads.',
    todo: 'Wire one side of it to a rail and the other to the gates.',
  },
  'recover/switching-device': {
    severity: 'warning',
    says: '{refs} are not read back, so whatever depends on them may be wrong.',
    todo: 'Write those lines yourself, and walk the table to compare them with the board.',
  },
  'recover/measured': {
    severity: 'note',
    says: 'The board has transistors, diodes or analogue switches: its outputs were read as tables, from all {rows} rows.',
    todo: 'Restate them in whichever form you like.',
  },
  'recover/dark-lamp': {
    severity: 'warning',
    says: 'Nothing lights {name}: on the sheet it is 0.',
    todo: 'Wire its anode to an output, and its cathode through a resistor to ground.',
  },
  'recover/joined': {
    severity: 'error',
    says: 'More than one thing drives the net of {pins}: the sheet has only the first.',
    todo: 'Separate them, or use outputs that may share a wire.',
  },
  'recover/open-input': {
    severity: 'warning',
    says: '{pin} is open and reads {reads}.',
    todo: 'Wire it, or tie it to a rail.',
  },
  // files
  'file/too-big': {
    severity: 'error',
    says: 'The file has more than {limit} bytes, the most that is read.',
    todo: 'Check that it is the file you mean.',
  },
  'file/too-deep': {
    severity: 'error',
    says: 'The file is nested over {limit} levels deep.',
    todo: 'Check that it is a Saddlebag job file.',
  },
  'file/not-json': {
    severity: 'error',
    says: 'The file is not JSON: {detail}.',
    todo: 'Export the job again where it was made, and import that file.',
  },
  'file/not-a-job': {
    severity: 'error',
    says: 'The file does not say that it is a Saddlebag job.',
    todo: 'Its "format" must be "saddlebag-job"; a sheet of equations is pasted into a new job.',
  },
  'file/newer': {
    severity: 'error',
    says: 'The file is of version {version}; this program knows versions up to {known}.',
    todo: 'Update Saddlebag, or export the job again from the older program.',
  },
  'file/packing-left-out': {
    severity: 'warning',
    says: 'The packing in the file is left out, because {why}.',
    todo: 'Everything else is there; pack the design again at Pack.',
  },
  'file/bad-field': {
    severity: 'error',
    says: 'In the file, {path} is wrong: {detail}.',
    todo: 'Correct that field as docs/job-file.md says, or import another copy.',
  },
  'store/failed': {
    severity: 'error',
    says: 'This browser’s storage cannot be read: {detail}.',
    todo: 'Allow storage for this page, or make room, and open it again; nothing was changed.',
  },
  'file/not-found': {
    severity: 'error',
    says: '{path} cannot be read: {detail}.',
    todo: 'Check the name and the folder.',
  },
  // hands on the board
  'hand/no-name': {
    severity: 'error',
    says: 'That is not a name: it must have 1 to {most} characters, all of which can be seen.',
    todo: 'Type another one.',
  },
  'hand/no-reason': {
    severity: 'error',
    says: 'A finding is silenced with a reason of at most {most} letters.',
    todo: 'Say in a few words why it is all right here.',
  },
  'hand/not-understood': {
    severity: 'error',
    says: '“{text}” is not something the board understands.',
    todo: 'Type U1.8 > U3.2 for a jumper, or pull w3, rotate U1, move U1 b1.e20, seat led, label S1 K.',
  },
  'hand/no-such-type': {
    severity: 'error',
    says: 'No part is known as {part}.',
    todo: 'Type a number such as 74HC00, or switch, led, resistor, capacitor, supply.',
  },
  'hand/no-seat': {
    severity: 'error',
    says: 'No place is free for a {part}.',
    todo: 'Add a board, or pull something out.',
  },
  'hand/no-such-part': {
    severity: 'error',
    says: 'There is no {ref} on the board.',
    todo: 'Look at the labels on the board; references are U1, S1, D1, R1, C1.',
  },
  'hand/no-such-place': {
    severity: 'error',
    says: '{at} is not one contact or lamp.',
    todo: 'Label each by itself, from {first} to {last}.',
  },
  'hand/no-such-pin': {
    severity: 'error',
    says: '{ref} has no pin {pin}.',
    todo: 'Its pins are {pins}.',
  },
  'hand/no-such-hole': {
    severity: 'error',
    says: 'There is no hole {hole}.',
    todo: 'Holes are written b1.e17, rail holes b1.top+12; rail holes skip every sixth column. A half board ends at column 30, a mini at 17 and has no rails.',
  },
  'hand/no-such-jumper': {
    severity: 'error',
    says: 'There is no jumper {id}.',
    todo: 'Point at a jumper to see its name.',
  },
  'hand/hole-taken': {
    severity: 'error',
    says: 'Hole {hole} is taken by {by}.',
    todo: 'Use another hole of the same strip; all five are joined.',
  },
  'hand/covers-hole': {
    severity: 'error',
    says: 'The body of {ref} would lie over {hole}, where {by} is plugged in.',
    todo: 'Choose another place, or plug {by} elsewhere first.',
  },
  'hand/strip-full': {
    severity: 'error',
    says: 'The strip of {at} has no free hole left.',
    todo: 'Tap the signal somewhere else, or pull out a jumper first.',
  },
  'hand/lead-off-board': {
    severity: 'error',
    says: '{ref} pin {pin} would be in no hole there.',
    todo: 'Chips go over the channel with pins in rows e and f, all within the columns of one board.',
  },
  'hand/no-place-for-board': {
    severity: 'error',
    says: '{id} would lie where another board is.',
    todo: 'Half boards lie beside half boards, full ones beside full ones; below, there is always room.',
  },
  'hand/no-such-board': {
    severity: 'error',
    says: 'There is no board {id}.',
    todo: 'The id of each board stands at its left edge.',
  },
  'hand/last-board': {
    severity: 'error',
    says: '{id} is the only board.',
    todo: 'Add another one first.',
  },
  'hand/board-in-use': {
    severity: 'error',
    says: '{by} is still plugged into {id}.',
    todo: 'Pull out or move what is on the board, then remove it.',
  },
  'hand/nowhere': {
    severity: 'error',
    says: '{what} would be in no hole there.',
    todo: 'Move what has leads in rails by whole boards, or by a multiple of six columns.',
  },
  'hand/nothing-copied': {
    severity: 'error',
    says: 'Nothing has been copied yet.',
    todo: 'Choose parts and jumpers, press Ctrl+C, then Ctrl+V.',
  },
  'hand/other-pins': {
    severity: 'error',
    says: '{ref} is a {old}; the pins of a {part} lie elsewhere.',
    todo: 'Pull it out and seat the other part anew.',
  },
  'hand/stiff-leads': {
    severity: 'error',
    says: 'The leads of {ref} are not bent apart.',
    todo: 'Capacitors, resistors, diodes and LEDs have leads that bend.',
  },
  'hand/no-span': {
    severity: 'error',
    says: 'The leads of {ref} reach from {least} to {most} holes apart.',
    todo: 'Write a whole number between the two, such as span {ref} {most}.',
  },
  'hand/no-limit': {
    severity: 'error',
    says: '{ref} has no current limit to set: a bench supply has one.',
    todo: 'Write it for the supply, such as limit P1 100.',
  },
  'hand/limit-range': {
    severity: 'error',
    says: 'The current limit of {ref} is from 1 to {most} mA.',
    todo: 'Write milliamperes, such as limit {ref} 100.',
  },
  'hand/no-value': {
    severity: 'error',
    says: '{text} is not a value for {ref}.',
    todo: 'Write resistors as 470, 4k7 or 1M, capacitors as 100n, supplies as 5V.',
  },
  'hand/no-such-colour': {
    severity: 'error',
    says: 'Jumpers do not come in {colour}.',
    todo: 'Colours are {colours}; plain takes the colour of the signal.',
  },
  'hand/no-such-route': {
    severity: 'error',
    says: '{id} cannot take that route.',
    todo: 'A jumper turns at most {most} times, and only over the mat with the boards.',
  },
  'hand/too-many-notes': {
    severity: 'error',
    says: 'The board has {most} notes already.',
    todo: 'Remove some first.',
  },
  'hand/same-hole': {
    severity: 'error',
    says: 'Both ends of the jumper are in {hole}.',
    todo: 'Choose two different holes.',
  },
  'hand/ref-taken': {
    severity: 'error',
    says: 'There is already a {ref} on the board.',
    todo: 'Give the new part another reference.',
  },
  'plan/no-room': {
    severity: 'error',
    says: 'There is no room for {what} on {boards} boards.',
    todo: 'Split the design into several jobs.',
  },
  'plan/strip-full': {
    severity: 'error',
    says: 'The signal {signal} runs out of free holes.',
    todo: 'Split its load between two gates that carry the same signal.',
  },
  'guide/wrong-signal': {
    severity: 'error',
    says: '{at} carries {carried}; it should carry {wanted}.',
    todo: 'Pull out the jumper that brings the wrong signal; then the guide goes on.',
  },
  'guide/other-part': {
    severity: 'error',
    says: '{ref} on the board is a {there}; here it should be a {wanted}.',
    todo: 'Pull it out, or replace it.',
  },
} as const satisfies Record<string, Sentence>;
