import type { Sentence } from './sentence';

/** What the sheet, its gates and tables, and other ways to write a design may have wrong. */
export const sheetSentences = {
  // the sheet's text
  'sheet/too-long': {
    severity: 'error',
    says: 'The sheet has {length} characters; {limit} is the most that is read.',
    todo: 'Split the design into several jobs.',
  },
  'sheet/stray-character': {
    severity: 'error',
    says: 'The character {text} means nothing here.',
    todo: "Remove it. Operators are & | ^ ~, or · + ⊕ and ' after a name.",
  },
  'sheet/open-string': {
    severity: 'error',
    says: 'The label has no closing quote on this line.',
    todo: 'Close it with ".',
  },
  'sheet/meant': {
    severity: 'error',
    says: 'A sheet says this in other words.',
    todo: 'Write {line}',
  },
  'sheet/expected': {
    severity: 'error',
    says: '{expected} is missing before {found}.',
    todo: 'Write {example}.',
  },
  'sheet/unknown-fitting': {
    severity: 'error',
    says: '{found} does not say what signals come from or are shown on.',
    todo: 'Behind {word} write one of these: {known}.',
  },
  'sheet/behind-fitting': {
    severity: 'error',
    says: 'What signals come from or are shown on holds for its whole line, and stands at the end of it.',
    todo: 'Declare the signals behind it in a line of their own: {kind} ….',
  },
  'sheet/unknown-colour': {
    severity: 'error',
    says: '{found} is no colour of a lamp.',
    todo: 'Write one of these: {known}.',
  },
  'sheet/bad-rate': {
    severity: 'error',
    says: '{found} is no rate of a {kind}.',
    todo: 'Write a whole number of Hz, kHz or MHz up to {most}, such as 10 Hz.',
  },
  'sheet/bad-pulse': {
    severity: 'error',
    says: '{found} is no length of a pulse.',
    todo: 'Write a whole number of us, ms or s, from 1 us to {most} s: for 20 ms.',
  },
  'sheet/pulse-pins': {
    severity: 'error',
    says: '{ref} gives a pulse of a length only where {pins} are joined to one signal, on which its capacitor hangs.',
    todo: 'Give both the same name, X say.',
  },
  'sheet/pulses': {
    severity: 'error',
    says: '{ref} has {has} one-shots, and {given} lengths of pulses are given.',
    todo: 'Give one length for all of its one-shots, or one for each; leave them out where it has none.',
  },
  'sheet/display-signals': {
    severity: 'error',
    says: 'A display takes 7 signals, segments a to g in order, or 8 with the point; here are {count}.',
    todo: 'Put on display behind the seven signals of one digit, one digit a line.',
  },
  'sheet/one-buzzer': {
    severity: 'error',
    says: 'A buzzer sounds for one signal; here are {count}.',
    todo: 'Put on buzzer behind the one, in a line of its own.',
  },
  'sheet/unclosed-bracket': {
    severity: 'error',
    says: 'This bracket is never closed.',
    todo: 'Add a ) on the same line.',
  },
  'sheet/two-operands': {
    severity: 'error',
    says: '{found} follows with no operator between.',
    todo: 'Put &, | or ^ before it; one statement a line.',
  },
  'sheet/too-deep': {
    severity: 'error',
    says: 'Brackets are nested over {limit} deep here.',
    todo: 'Give the inner part a name on a line of its own.',
  },
  'sheet/not-a-statement': {
    severity: 'error',
    says: 'A line cannot begin with {found}.',
    todo: 'Begin it with in, out, table, block, part, use, never, or NAME = …; comments begin with #.',
  },
  'sheet/function-arity': {
    severity: 'error',
    says: '{name}() is given {given}.',
    todo: 'Give it {needs}.',
  },
  'sheet/keyword-as-name': {
    severity: 'error',
    says: '{name} is a word of the language and cannot name a signal.',
    todo: 'Choose another name, such as {name}1.',
  },
  'sheet/unknown-signal': {
    severity: 'error',
    says: '{name} is used but nothing makes it.',
    todo: 'Declare it with in {name}, or write {name} = … .{hint}',
  },
  'sheet/declared-twice': {
    severity: 'error',
    says: '{name} is declared twice.',
    todo: 'Keep one of the two declarations, or rename one.',
  },
  'sheet/defined-twice': {
    severity: 'error',
    says: '{name} already has an equation.',
    todo: 'Keep one equation for {name}, or rename this one.',
  },
  'sheet/input-defined': {
    severity: 'error',
    says: '{name} is an input, so it cannot have an equation.',
    todo: 'Rename the left side, or remove {name} from the in line.',
  },
  'sheet/output-undefined': {
    severity: 'error',
    says: 'Nothing makes the output {name} yet.',
    todo: 'Write {name} = … on a line of its own.',
  },
  'sheet/loop': {
    severity: 'error',
    says: '{name} depends on itself: {path}.',
    todo: 'Break the loop, or store the value: Q = D at rise CK, Q = D while EN.',
  },
  'sheet/dotted-name': {
    severity: 'error',
    says: '{name} has a dot, as the pins of used parts have.',
    todo: 'Choose a name of letters, digits and _.',
  },
  'sheet/bus-too-wide': {
    severity: 'error',
    says: 'The range of {name} is not one of up to {limit} wires.',
    todo: 'Write {name}[3:0] for four wires, or {name}[2] for one.',
  },
  'sheet/bus-width': {
    severity: 'error',
    says: 'This has {given} wires where {wanted} are wanted.',
    todo: 'Give both sides as many wires; a single wire may stand for all of a bus.',
  },
  'sheet/force-without-storage': {
    severity: 'error',
    says: 'Clear and preset belong to a stored signal, and nothing here is stored.',
    todo: 'Add at rise CK, at fall CK, or while EN.',
  },
  'sheet/stored-output': {
    severity: 'error',
    says: 'One line cannot both store a value and release its output.',
    todo: 'Store it under a name of its own, and write the output as a line: Y = q when EN.',
  },
  'sheet/clause-twice': {
    severity: 'error',
    says: 'This line already says {word}, or something that excludes it.',
    todo: 'Keep one of the two.',
  },
  'sheet/table-too-wide': {
    severity: 'error',
    says: 'A table of {inputs} inputs is more than can be written this way ({limit}).',
    todo: 'List rows with - for inputs that do not matter, or split the table.',
  },
  'sheet/table-cells': {
    severity: 'error',
    says: '{inputs} inputs make {rows} rows, but {cells} cells are written.',
    todo: 'Write a cell for each row, 0 up: 0, 1 or - where it does not matter.',
  },
  'sheet/cells-of-many': {
    severity: 'error',
    says: 'A string of cells is the table of one signal.',
    todo: 'Write a table line for each signal, or list rows: 01 : 10.',
  },
  'sheet/table-empty': {
    severity: 'error',
    says: 'No rows follow this table.',
    todo: 'Add : and its cells, or rows on the lines below, such as 01 : 1.',
  },
  'sheet/table-too-long': {
    severity: 'error',
    says: 'The table has {rows} rows written; {limit} are read.',
    todo: 'Use - for inputs that do not matter, and others : for the rest.',
  },
  'sheet/others-twice': {
    severity: 'error',
    says: 'The rest of the rows is given a second time.',
    todo: 'Keep one others line.',
  },
  'sheet/row-width': {
    severity: 'error',
    says: 'This row has {given} {what}; the table has {wanted}.',
    todo: 'Write 0, 1 or - for each of the {what}.',
  },
  'sheet/rows-clash': {
    severity: 'error',
    says: 'This row and the row {first} have inputs in common and ask for different values.',
    todo: 'Make their inputs exclude each other, or their outputs equal.',
  },
  'sheet/rows-unlisted': {
    severity: 'warning',
    says: 'Rows of this table are not listed ({rows}); they count as don’t-care.',
    todo: 'List them, or end the table with others : 0.',
  },
  'sheet/stray-row': {
    severity: 'error',
    says: 'This row belongs to no table.',
    todo: 'Put table Y of A B above it.',
  },
  'sheet/stray-end': {
    severity: 'error',
    says: 'There is no block to end here.',
    todo: 'Remove the line, or begin the block with block NAME.',
  },
  'sheet/block-open': {
    severity: 'error',
    says: 'The block {name} is never ended.',
    todo: 'Put end on a line after its last statement.',
  },
  'sheet/block-in-block': {
    severity: 'error',
    says: '{name} begins inside another block or part.',
    todo: 'End the other first; a block may use blocks that stand beside it.',
  },
  'sheet/block-twice': {
    severity: 'error',
    says: 'A block {name} is there already.',
    todo: 'Rename one of the two.',
  },
  'sheet/part-twice': {
    severity: 'error',
    says: 'A part {name} is there already.',
    todo: 'Rename one of the two.',
  },
  'sheet/part-known': {
    severity: 'error',
    says: '{name} is a part of the catalogue.',
    todo: 'Give your own part another name; the one of the catalogue stays as its data sheet has it.',
  },
  'sheet/part-name': {
    severity: 'error',
    says: 'The name {name} does not fit on a chip.',
    todo: 'Name the part with at most {limit} letters and digits.',
  },
  'sheet/part-too-long': {
    severity: 'error',
    says: 'The part {name} is longer than {limit} characters.',
    todo: 'Split it into several parts, or shorten it.',
  },
  'sheet/no-memory': {
    severity: 'error',
    says: '{number} is no memory whose contents are put in.',
    todo: 'Name one that is, such as 74288; the parts list finds them by prom.',
  },
  'sheet/memory-only-holds': {
    severity: 'error',
    says: '{name} has the pins and the behaviour of its memory; here stands only what it holds.',
    todo: 'Leave nothing but lines that begin with holds before end.',
  },
  'sheet/memory-empty': {
    severity: 'error',
    says: '{name} holds nothing.',
    todo: 'List its words in hexadecimal from address 0 up: holds 3F 06 5B. What is not listed stays blank.',
  },
  'sheet/bad-word': {
    severity: 'error',
    says: '{word} is no word in hexadecimal.',
    todo: 'Write words of up to four digits from 0 to F, with spaces between: holds 3F 06 5B.',
  },
  'sheet/wide-word': {
    severity: 'error',
    says: 'The word {word} is wider than the {bits} bits of this memory.',
    todo: 'Shorten it, or choose a wider memory.',
  },
  'sheet/too-many-words': {
    severity: 'error',
    says: '{count} words are more than the {most} that this memory has.',
    todo: 'Shorten the list, or choose a larger memory.',
  },
  'sheet/stray-holds': {
    severity: 'error',
    says: 'A holds line belongs to a part that says which memory it is.',
    todo: 'Write it between part MAP "levels" of 74288 and end.',
  },
  'sheet/part-declares': {
    severity: 'error',
    says: 'A part of your own has no {word} line: its pins say what goes in and out.',
    todo: 'Remove the line; a pin that an equation makes is an output, every other an input.',
  },
  'sheet/part-pins': {
    severity: 'error',
    says: '{name} has {count} pins; a dual-in-line package has an even number from {least} to {most}.',
    todo: 'List the pins from pin 1 up, counter-clockwise from the notch: pins A B GND Y NC VCC. NC leads nowhere.',
  },
  'sheet/part-rail': {
    severity: 'error',
    says: 'No pin of {name} is {rail}.',
    todo: 'Name the supply pins VCC and GND where they stand in the package.',
  },
  'sheet/part-makes-nothing': {
    severity: 'error',
    says: 'No statement of {name} makes one of its pins.',
    todo: 'Give at least one pin an equation or a table before end.',
  },
  'sheet/pin-again': {
    severity: 'error',
    says: 'Two pins are called {pin}.',
    todo: 'Give each pin its own name; pins that lead nowhere are all NC.',
  },
  'sheet/pin-range': {
    severity: 'error',
    says: 'Pins are named one by one, not as the bus {pin}.',
    todo: 'Write a name for each pin in its place, such as D3 D2 D1 D0.',
  },
  'sheet/stray-pins': {
    severity: 'error',
    says: 'Pins belong to a part of your own.',
    todo: 'Put them behind the line part NAME "what it is".',
  },
  'sheet/blocks-too-deep': {
    severity: 'error',
    says: 'Blocks use blocks over {limit} deep here; {name} may use itself.',
    todo: 'Break the circle: a block is a piece of wiring and cannot contain itself.',
  },
  'sheet/unknown-part': {
    severity: 'error',
    says: '{part} is neither a block of this sheet nor a part that computes something.',
    todo: 'Look the number up among the parts, or begin a block or part of that name.',
  },
  'sheet/part-joins': {
    severity: 'error',
    says: 'The {part} joins its pins to each other and drives none, so a sheet cannot say what comes of it.',
    todo: 'Write what the rest of the circuit computes, and seat and wire the {part} by hand at Board.',
  },
  'sheet/used-twice': {
    severity: 'error',
    says: '{name} is the name of another used part.',
    todo: 'Give each use a name of its own.',
  },
  'sheet/pins-open': {
    severity: 'error',
    says: 'Inputs of {ref} are left open: {pins}.',
    todo: 'Join each to a signal, or to 0 or 1.',
  },
  'sheet/unknown-pin': {
    severity: 'error',
    says: '{part} has no pin {pin}.',
    todo: 'Its pins are {pins}.{hint}',
  },
  'sheet/pin-twice': {
    severity: 'error',
    says: 'The pin {pin} is joined twice.',
    todo: 'Keep one.',
  },
  'sheet/output-joined': {
    severity: 'error',
    says: '{pin} of {ref} is an output, and an expression stands where it leads.',
    todo: 'Write the name of the signal that it makes.',
  },
  'sheet/outputs-fight': {
    severity: 'warning',
    says: '{name} is driven high and low at once {where}: its outputs fight, and heat up.',
    todo: 'Enable one of them at a time, or say what does not happen on a line of its own: {never}.',
  },
  'sheet/unused-input': {
    severity: 'warning',
    says: 'The input {name} is never used.',
    todo: 'Use it in an equation, or remove it.',
  },
  'sheet/unused-signal': {
    severity: 'warning',
    says: '{name} leads to no output, so no gate is built for it.',
    todo: 'Declare it with out, use it, or remove it.',
  },
  'sheet/no-output': {
    severity: 'note',
    says: 'The sheet has no output yet.',
    todo: 'Add a line such as out G "gate permit".',
  },
  'sheet/too-wide-for-table': {
    severity: 'note',
    says: '{inputs} inputs make {rows} rows: too many to list.',
    todo: 'Tables are listed up to {limit} inputs; the gates, packing and board still work.',
  },
  'sheet/clocks-none': {
    severity: 'error',
    says: 'No input clocks anything in this design.',
    todo: 'Set its inputs by hand at Power up, or let time run: saddlebag run FILE --for 1s.',
  },
  'sheet/no-clock': {
    severity: 'error',
    says: '{name} clocks nothing in this design.',
    todo: 'Name one of its clocks: {clocks}.',
  },
  'sheet/no-table': {
    severity: 'note',
    says: 'The outputs depend on what is stored ({names}), so a table of the inputs cannot tell them.',
    todo: 'List its states: States at Design, or saddlebag states FILE.',
  },
  'sheet/too-large': {
    severity: 'error',
    says: 'The sheet asks for over {limit} gates.',
    todo: 'Split the design into several jobs.',
  },
  // the gate diagram
  'gate/sheet-broken': {
    severity: 'error',
    says: 'The sheet has a mistake, so its gates are not known.',
    todo: 'Mend it first.',
  },
  'gate/not-written': {
    severity: 'note',
    says: '{gate} comes from a block or a bus, and has no expression of its own to change.',
    todo: 'Change the block or bus on the sheet.',
  },
  'gate/needed': {
    severity: 'error',
    says: 'Nothing would be left for a clause or a pin that reads {gate}.',
    todo: 'Put another signal in its place on the sheet first.',
  },
  'gate/one-input': {
    severity: 'note',
    says: '{gate} cannot change between one input and several.',
    todo: 'Make a new gate of the kind you want.',
  },
  'gate/would-loop': {
    severity: 'error',
    says: '{signal} depends on {gate}: joined to it, it would form a loop.',
    todo: 'Choose another signal, or store it first.',
  },
  'gate/bad-name': {
    severity: 'error',
    says: '{name} cannot name this signal, or is taken.',
    todo: 'Choose a name of letters, digits and _ that is free.',
  },
  'gate/no-signal': {
    severity: 'error',
    says: 'There is no signal {name}.',
    todo: 'Choose signals of the sheet.',
  },
  'gate/inputs': {
    severity: 'error',
    says: 'The gate {kind} is given {count} inputs.',
    todo: 'Give it {needs}.',
  },
  // restating and comparing
  'restate/no-line': {
    severity: 'error',
    says: '{name} has no equation or table of its own that could be put into another form.',
    todo: 'Choose a signal that one line of the sheet makes.',
  },
  'restate/too-wide': {
    severity: 'error',
    says: 'It depends on {inputs} inputs; up to {limit} are put into another form.',
    todo: 'Name a part of it on a line of its own, and restate that.',
  },
  'restate/no-xor': {
    severity: 'note',
    says: 'No form of {names} with exclusive or is shorter than the factored one.',
    todo: 'Use the factored form.',
  },
  'restate/not-so-wide': {
    severity: 'note',
    says: '{form} of one chip takes {least} to {most} inputs, and this has {inputs}.',
    todo: 'Use another form, or name a part of it on a line of its own.',
  },
  'same/no-signal': {
    severity: 'error',
    says: 'There is no output {name} to compare.',
    todo: 'The outputs are {names}.',
  },
  'same/other-inputs': {
    severity: 'error',
    says: 'The two do not have the same inputs: only one of them has {only}.',
    todo: 'Give the same name to inputs that mean the same.',
  },
  'same/stores': {
    severity: 'error',
    says: '{name} stores something, so it is no function of its inputs alone.',
    todo: 'Compare outputs that depend on inputs only.',
  },
  'same/too-wide': {
    severity: 'error',
    says: '{inputs} inputs make {rows} rows: too many to compare.',
    todo: 'Up to {limit} inputs are compared; compare the parts of it.',
  },
} as const satisfies Record<string, Sentence>;
