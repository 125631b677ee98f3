/**
 * The one file that turns codes and facts into sentences. `says` tells what is wrong, `todo` what to
 * do; `{fact}` is replaced by the finding's fact of that name, and the compiler demands each of them
 * where the finding is made.
 */
export const sentences = {
  // the sheet's text
  'sheet/too-long': {
    severity: 'error',
    says: 'The sheet has {length} characters; {limit} is the most that is read.',
    todo: 'Split the design into several jobs.',
  },
  'sheet/stray-character': {
    severity: 'error',
    says: 'The character {text} means nothing here.',
    todo: "Take it out. Operators are & | ^ ~, or · + ⊕ and ' after a name.",
  },
  'sheet/open-string': {
    severity: 'error',
    says: 'The label has no closing quote on this line.',
    todo: 'Close it with ".',
  },
  'sheet/expected': {
    severity: 'error',
    says: '{expected} is missing before {found}.',
    todo: 'Write {example}.',
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
    says: '{name}() is given {count} inputs.',
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
    says: '{name} is an input, so no equation can make it.',
    todo: 'Rename the left side, or take {name} out of the in line.',
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
    says: 'One line cannot both store a value and let it go.',
    todo: 'Store it under a name of its own, and write the output as a line: Y = q when EN.',
  },
  'sheet/clause-twice': {
    severity: 'error',
    says: 'This line already says {word}, or what excludes it.',
    todo: 'Keep one of the two.',
  },
  'sheet/table-too-wide': {
    severity: 'error',
    says: 'A table of {inputs} inputs is more than can be written this way ({limit}).',
    todo: 'List rows with - for inputs that do not matter, or split the table.',
  },
  'sheet/table-cells': {
    severity: 'error',
    says: '{inputs} inputs make {rows} rows, and {cells} cells are written.',
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
    todo: 'Take the line out, or begin the block with block NAME.',
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
    todo: 'Make it of several parts, or say the same more shortly.',
  },
  'sheet/part-declares': {
    severity: 'error',
    says: 'A part of your own has no {word} line: its pins say what goes in and out.',
    todo: 'Take the line out; a pin that an equation makes is an output, every other an input.',
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
    todo: 'Take the circle out: a block is a piece of wiring, and cannot hold itself.',
  },
  'sheet/unknown-part': {
    severity: 'error',
    says: '{part} is neither a block of this sheet nor a part that computes something.',
    todo: 'Look the number up among the parts, or begin a block or part of that name.',
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
    todo: 'Its pins are {pins}.',
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
  'sheet/unused-input': {
    severity: 'warning',
    says: 'The input {name} is never used.',
    todo: 'Use it in an equation, or take it out.',
  },
  'sheet/unused-signal': {
    severity: 'warning',
    says: '{name} leads to no output, so no gate is built for it.',
    todo: 'Declare it with out, use it, or take it out.',
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
  'sheet/no-table': {
    severity: 'note',
    says: 'The outputs depend on what is stored ({names}), so a table of the inputs cannot tell them.',
    todo: 'Step through it, or list its states.',
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
    says: '{gate} has one input or several, and this asks for the other.',
    todo: 'Make a new gate of the kind you want.',
  },
  'gate/would-loop': {
    severity: 'error',
    says: '{signal} depends on {gate}: joined to it, it would run in a circle.',
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
  // Verilog and tables from outside
  'verilog/not-understood': {
    severity: 'error',
    says: 'This Verilog is not understood: {what}.',
    todo: 'Gates, assign, instances and clocked always blocks are; rewrite it with those, or leave it out.',
  },
  'verilog/module-open': {
    severity: 'error',
    says: 'The module {name} is never ended.',
    todo: 'Add endmodule; what stands before it was read.',
  },
  'csv/no-outputs': {
    severity: 'error',
    says: 'It cannot be told which columns of the table are outputs.',
    todo: 'Leave an empty column between inputs and outputs.',
  },
  'csv/bad-cell': {
    severity: 'error',
    says: 'Line {line} has {cell} where 0, 1 or - is wanted.',
    todo: 'Write 0, 1, or - where it does not matter.',
  },
  'csv/bad-name': {
    severity: 'error',
    says: 'The column {name} cannot name a signal.',
    todo: 'Give each column a name of letters, digits and _, each its own.',
  },
  'csv/ragged': {
    severity: 'error',
    says: 'Line {line} has {cells} cells; the first line has {wanted}.',
    todo: 'Give every line as many cells as the heading.',
  },
  'csv/too-large': {
    severity: 'error',
    says: 'The table has {rows} rows; {limit} are read.',
    todo: 'Use - for inputs that do not matter.',
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
    todo: 'Take the factored form.',
  },
  'restate/not-so-wide': {
    severity: 'note',
    says: '{form} of one chip takes {least} to {most} inputs, and this has {inputs}.',
    todo: 'Take another form, or name a part of it on a line of its own.',
  },
  'same/no-signal': {
    severity: 'error',
    says: 'There is no output {name} to compare.',
    todo: 'The outputs are {names}.',
  },
  'same/other-inputs': {
    severity: 'error',
    says: 'The two do not have the same inputs: {only} are of one alone.',
    todo: 'Give inputs that mean the same the same names.',
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
  // packing
  'drawer/too-long': {
    severity: 'error',
    says: 'The list has {lines} lines; the first {limit} are read.',
    todo: 'Join lines of one part: a part needs one line.',
  },
  'drawer/no-part': {
    severity: 'error',
    says: 'Line {line}: no chip is known as {part}.',
    todo: 'Write the number as printed on the chip, such as 74HC00 or SN74LS00N.',
  },
  'drawer/bad-number': {
    severity: 'error',
    says: 'Line {line} has no count from 0 to {limit}, or no price: {text}',
    todo: 'Write part, count, price, such as 74HC00,4,0.45.',
  },
  'pack/no-drawer': {
    severity: 'note',
    says: 'No drawer is kept yet.',
    todo: 'List the chips that the lab has in the drawer.',
  },
  'pack/drawer-short': {
    severity: 'error',
    says: 'With the {chips} kinds of chips in the drawer this design cannot be built.',
    todo: 'See under the other ways to build what is missing, or put more into the drawer.',
  },
  'pack/drawer-lacks': {
    severity: 'error',
    says: 'With what is in the drawer this design cannot be built; this is the nearest, and it lacks {parts}.',
    todo: 'Get those, or put more into the drawer.',
  },
  'pack/missing': {
    severity: 'error',
    says: 'The drawer has {have} of the {need} {part} that this takes.',
    todo: 'Get {short} more, or build it from the drawer.',
  },
  'pack/no-way': {
    severity: 'error',
    says: 'No way was found to build these {gates} gates with {way}; struck out: {struck}.',
    todo: 'Allow more chips, or give it more time.',
  },
  'pack/pin-gone': {
    severity: 'note',
    says: '{net} is pinned to {ref}, and the sheet has no gate {net} any more: the pin is passed over.',
    todo: 'Unpin {net}, or bring its gate back.',
  },
  'pack/pin-chip': {
    severity: 'error',
    says: '{net} is pinned to {ref}, a {part}, and {way} does not use that chip or it is struck out.',
    todo: 'Unpin {net}, allow the {part} again, or build another way.',
  },
  'pack/pin-cannot': {
    severity: 'error',
    says: '{net} is pinned to {ref}, a {part} ({title}), and no way was found to make {net} with such a unit.',
    todo: 'Unpin {net}, or pin it to a unit of its own kind.',
  },
  'pack/pin-idle': {
    severity: 'error',
    says: '{net} is pinned to {ref}, and it is an input or constant when it is built by functions: no unit makes it.',
    todo: 'Unpin {net}, or build as written.',
  },
  'pack/pin-same': {
    severity: 'error',
    says: '{net} and {other} are one signal when they are built with {way}, and only one of them can be pinned.',
    todo: 'Unpin one of the two, or build as written.',
  },
  'pack/uses-struck': {
    severity: 'warning',
    says: 'This packing uses what is struck out since: {parts}.',
    todo: 'Pack again.',
  },
  'pack/not-as-held': {
    severity: 'warning',
    says: 'This packing was made before a gate was pinned or a package added.',
    todo: 'Pack again.',
  },
  'pack/pins-together': {
    severity: 'error',
    says: 'With {nets} all pinned where they are no packing was found.',
    todo: 'Unpin one of them after the other, or allow more chips.',
  },
  'pack/held-short': {
    severity: 'error',
    says: '{need} packages of {part} are asked for by hand, and the drawer has {have}.',
    todo: 'Unpin gates or take an added package away, or put more into the drawer.',
  },
  'hand/no-unit': {
    severity: 'error',
    says: '{place} is no unit of this packing.',
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
    says: '{part} is none of the chips whose units a packing may use.',
    todo: 'Add one of {chips}.',
  },
  'hand/still-used': {
    severity: 'error',
    says: '{ref} still makes {nets}.',
    todo: 'Move them to other packages first, or strike the chip out and pack again.',
  },
  'pack/wrong': {
    severity: 'error',
    says: 'The packing made was wrong ({wrong}) and is not shown.',
    todo: 'Please report this with the job file; the gates can be packed as written meanwhile.',
  },
  'pack/no-solution': {
    severity: 'error',
    says: 'The integer program found no packing ({status}).',
    todo: 'Report this sheet: each gate can be built from the chips known here.',
  },
  // a design read back from a board
  'recover/idle-switch': {
    severity: 'warning',
    says: 'Switch {ref} joins no rail to a net of its own: it stands on the sheet as an input that nothing reads.',
    todo: 'Wire one side of it to a rail and the other to the gates.',
  },
  'recover/valve': {
    severity: 'warning',
    says: 'What {refs} do is not read back, so what hangs on them may come out wrong.',
    todo: 'Write those lines yourself, and walk the table to compare them with the board.',
  },
  'recover/measured': {
    severity: 'note',
    says: 'The board has transistors or diodes: its outputs were read as tables, from all {rows} rows.',
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
    todo: 'Take them apart, or use outputs that may share a wire.',
  },
  'recover/open-input': {
    severity: 'warning',
    says: '{pin} is open and reads {reads}.',
    todo: 'Wire it, or tie it to a rail.',
  },
  // files
  'file/too-big': {
    severity: 'error',
    says: 'The file has {bytes} bytes; {limit} is the most that is read.',
    todo: 'Check that it is a Saddlebag job file.',
  },
  'file/too-deep': {
    severity: 'error',
    says: 'The file is nested over {limit} levels deep.',
    todo: 'Check that it is a Saddlebag job file.',
  },
  'file/not-json': {
    severity: 'error',
    says: 'The file is not JSON: {detail}.',
    todo: 'Take the job out again where it was made, and bring in that file.',
  },
  'file/not-a-job': {
    severity: 'error',
    says: 'The file does not call itself a Saddlebag job.',
    todo: 'Its "format" must be "saddlebag-job"; a sheet of equations is pasted into a new job.',
  },
  'file/newer': {
    severity: 'error',
    says: 'The file is of version {version}; this program knows versions up to {known}.',
    todo: 'Update Saddlebag, or take the job out again from the older program.',
  },
  'file/bad-field': {
    severity: 'error',
    says: 'In the file, {path} is wrong: {detail}.',
    todo: 'Mend that field as docs/job-file.md says, or bring in another copy.',
  },
  'file/not-found': {
    severity: 'error',
    says: '{path} cannot be read: {detail}.',
    todo: 'Check the name and the folder.',
  },
  // hands on the board
  'hand/not-understood': {
    severity: 'error',
    says: '“{text}” is not something the board understands.',
    todo: 'Type U1.8 > U3.2 for a jumper, or pull w3, turn U1, move U1 b1.e20, seat led, label S1 K.',
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
    says: 'Hole {hole} already holds {by}.',
    todo: 'Use another hole of the same strip; all five are joined.',
  },
  'hand/strip-full': {
    severity: 'error',
    says: 'The strip of {at} has no free hole left.',
    todo: 'Tap the signal somewhere else, or pull out a jumper first.',
  },
  'hand/lead-off-board': {
    severity: 'error',
    says: '{ref} pin {pin} would find no hole there.',
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
    todo: 'Pull out or move what is on the board, then take it away.',
  },
  'hand/nowhere': {
    severity: 'error',
    says: '{what} would find no hole there.',
    todo: 'Shift by whole boards, or by a multiple of six columns what has leads in rails.',
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
  'hand/no-value': {
    severity: 'error',
    says: '{text} is no value for {ref}.',
    todo: 'Write resistors as 470, 4k7 or 1M, capacitors as 100n, supplies as 5V.',
  },
  'hand/no-such-colour': {
    severity: 'error',
    says: 'No jumper is sold in {colour}.',
    todo: 'Colours are {colours}; plain takes the colour of the signal.',
  },
  'hand/no-such-way': {
    severity: 'error',
    says: '{id} cannot take that way.',
    todo: 'A jumper turns at most {most} times, and only over the mat with the boards.',
  },
  'hand/too-many-notes': {
    severity: 'error',
    says: 'The board has {most} notes already.',
    todo: 'Take some away first.',
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
  'lead/wrong-signal': {
    severity: 'error',
    says: '{at} carries {carried}; it should carry {wanted}.',
    todo: 'Pull out the jumper that brings the wrong signal; then the lead goes on.',
  },
  'lead/other-part': {
    severity: 'error',
    says: '{ref} on the board is a {there}; here it should be a {wanted}.',
    todo: 'Pull it out, or replace it.',
  },
  // inspection
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
    says: '{ref} is turned round: supply is on its ground pin {ground} and ground on its supply pin {supply}.',
    todo: 'Switch off at once and turn the chip, notch to the left.',
  },
  'supply-shorted': {
    severity: 'error',
    says: 'Supply and ground are joined{when}.',
    todo: 'Pull out {culprit} and look where each end should go.',
  },
  'outputs-joined': {
    severity: 'error',
    says: 'The outputs {pins} are joined; they will fight.',
    todo: 'Part them: one net takes one output. Pull out the jumper between them.',
  },
  'signals-joined': {
    severity: 'error',
    says: '{signals} are joined in one net.',
    todo: 'Pull out the jumper between them; each signal has a net of its own.',
  },
  'switch-bypassed': {
    severity: 'error',
    says: 'Both sides of {ref} are in one net: it makes no difference whether it is on.',
    todo: 'Pull out the jumper that joins its two sides.',
  },
  'output-on-rail': {
    severity: 'error',
    says: 'Output {pin} is joined to {rail}.',
    todo: 'Pull out the jumper to the rail; an output must be free to go high and low.',
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
    says: '{ref} has no resistor in series; it will burn, or pull down what drives it.',
    todo: 'Put a 1 kΩ resistor between its cathode and ground.',
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
    says: '{ref} joins supply to ground when it is on.',
    todo: 'One side of the switch goes to supply, the other to the signal and its pull-down alone.',
  },
  'switch-no-feed': {
    severity: 'error',
    says: '{ref} is fed by no rail: its signal never goes high.',
    todo: 'Lay a jumper from {pin} to a rail that carries +5 V.',
  },
  'led-no-return': {
    severity: 'error',
    says: '{ref} has no way to ground, so it stays dark.',
    todo: 'Put its resistor between the cathode and a ground rail.',
  },
  'button-always-closed': {
    severity: 'error',
    says: '{ref} has both sides of its contact in strip {strip}: it is always closed.',
    todo: 'Give it a quarter turn, over the channel.',
  },
  'chips-in-one-strip': {
    severity: 'error',
    says: '{pin} and {other} are in one strip, {strip}; the board joins them.',
    todo: 'Move one of the chips to columns of its own.',
  },
  'control-left-open': {
    severity: 'error',
    says: '{pin}, {name}, is open: it says whether the chip works at all.',
    todo: 'Tie it to {to}.',
  },
  'colour-lies': {
    severity: 'warning',
    says: '{id} is {colour}, which says {means}; it carries {carries}.',
    todo: 'Lay it in another colour.',
  },
  'supply-not-in-corners': {
    severity: 'note',
    says: 'The supply pins of {ref}, a {part}, are not in the corners: supply is pin {supply}, ground pin {ground}.',
    todo: 'Count the pins once more before switching on.',
  },
  'capacitor-far': {
    severity: 'warning',
    says: 'The capacitor nearest to {ref}, {capacitor}, is {columns} columns away.',
    todo: 'Move it within {reach} columns of the supply pin.',
  },
  'idle-output-wired': {
    severity: 'warning',
    says: '{pin} is the output of a gate that is not in use, and joined to something: it holds that at one level.',
    todo: 'Pull out the jumper that ends in {strip}, or wire the inputs of the gate.',
  },
  'transistor-reversed': {
    severity: 'error',
    says: '{ref} is the wrong way round: its {there} is at {rail}, where its {belongs} belongs.',
    todo: 'Turn it by half a turn, or exchange the jumpers at its outer legs.',
  },
  'base-no-resistor': {
    severity: 'error',
    says: '{pin}, the base of {ref}, has no resistor: from there to {rail} it is a diode, and what drives it burns it.',
    todo: 'Put a resistor of some 4.7 kΩ between the base and what drives it.',
  },
  'base-too-weak': {
    severity: 'warning',
    says: '{ref} gets {given} mA at its base; to carry the {load} mA of its load it needs {needed} mA.',
    todo: 'Use a resistor of {ohms} Ω or less at its base.',
  },
  'gate-left-open': {
    severity: 'error',
    says: '{pin}, the gate of {ref}, is open: it keeps whatever charge it has.',
    todo: 'Put a 10 kΩ resistor from the gate to ground.',
  },
  'built-otherwise': {
    severity: 'note',
    says: 'No chip of the packing is here: the board is built of transistors or diodes, and no pin is held to the design.',
    todo: 'Walk the table at Power up; that compares all it does with the sheet.',
  },
  'open-collector-no-pull-up': {
    severity: 'error',
    says: '{pin} is an open-collector output with nothing to pull it up: it only pulls low, and {reader} gets no high.',
    todo: 'Put a 1 kΩ resistor from it to a rail that carries +5 V.',
  },
  'spare-gates-suffice': {
    severity: 'note',
    says: 'The {what} of {ref} could be {as} of {refs}: a chip less.',
    todo: 'See the ways to build at Pack.',
  },
  'decoded-reset': {
    severity: 'note',
    says: '{pin}, {name}, is given by outputs of {ref} itself, through {through}.',
    todo: 'Try it with the very chips, or hold the reset until the next clock.',
  },
  'display-polarity': {
    severity: 'error',
    says: '{ref} is a display with {kind}, but {because}.',
    todo: 'Take a display of the other polarity, or one whose common pins go to {rail} with a decoder that fits.',
  },
  'display-shared-resistor': {
    severity: 'warning',
    says: 'The segments of {ref} share one resistor, {resistor}.',
    todo: 'Put a resistor in the lead of each segment, and the common pins to their rail.',
  },
  'rail-half-dead': {
    severity: 'error',
    says: 'Only half of the rail is fed: {other} is, {rail} is not.',
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
    says: '{ref} gives the clock of {pins}: its contacts bounce, and one movement may count several times.',
    todo: 'On the bench put two NANDs or a 7414 with resistor and capacitor between; here switches do not bounce.',
  },
  'supply-current': {
    severity: 'warning',
    says: '{ref} has to give up to {ma} mA: {chips} mA to chips, {lamps} mA to LEDs. A USB port gives {most} mA.',
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
    todo: 'Take one of them away, or part the rails that they feed.',
  },
  'fan-out': {
    severity: 'error',
    says: '{inputs} inputs take {taken} mA from {pin} when it is {level}; it guarantees {most} mA.',
    todo: 'Drive some of them from another gate of the same function.',
  },
  'levels-do-not-meet': {
    severity: 'error',
    says: '{pin} ({from}) gives {gives} V for high at the least; {to} ({of}) wants {wants} V.',
    todo: 'Use chips of one family there, HCT or ACT to read TTL, or a pull-up resistor to supply.',
  },
  'led-current': {
    severity: 'warning',
    says: '{ref} takes {ma} mA from {pin}; its levels hold up to {most} mA, and {absolute} mA is the most it may ever carry.',
    todo: 'Use a larger resistor, 1 kΩ or so.',
  },
  'pull-too-weak': {
    severity: 'error',
    says: 'Through {ref} the inputs from {pin} on lift their net to {volts} V; low is up to {least} V.',
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
  'signal-has-no-switch': {
    severity: 'error',
    says: 'No switch gives the input {name}.',
    todo: 'Seat a switch and name its signal {name}.',
  },
  'signal-has-no-led': {
    severity: 'error',
    says: 'No LED shows the output {name}.',
    todo: 'Seat an LED with its resistor and name its signal {name}.',
  },
  // power up
  'does-not-settle': {
    severity: 'error',
    says: 'The board does not come to rest after {events} changes; what swings is shown as unknown.',
    todo: 'Look for an output that reaches its own input.',
  },
  'walk-too-wide': {
    severity: 'error',
    says: '{inputs} switches make {rows} rows; walks go up to {limit} switches.',
    todo: 'Set the rows you care about by hand.',
  },
} as const satisfies Record<string, { severity: 'error' | 'warning' | 'note'; says: string; todo: string }>;

/** Every code a finding can have. */
export type FindingCode = keyof typeof sentences;

type Slots<S extends string> = S extends `${string}{${infer K}}${infer Rest}` ? K | Slots<Rest> : never;

/** The facts that the sentence of code `C` needs, by name. */
export type FactsOf<C extends FindingCode> = {
  readonly [K in Slots<(typeof sentences)[C]['says']> | Slots<(typeof sentences)[C]['todo']>]: string | number;
};
