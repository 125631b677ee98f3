import type { Sentence } from './sentence';

/** What files of other programs may have wrong: Verilog, tables, and what memories hold. */
export const fromOutsideSentences = {
  'verilog/not-understood': {
    severity: 'error',
    says: 'Line {line} of the Verilog is left out, because this is not understood: {what}.',
    todo: 'Gates, assign, instances and clocked always blocks are understood; rewrite it with those, or remove it.',
  },
  'verilog/module-open': {
    severity: 'error',
    says: 'The module {name} is never ended.',
    todo: 'Add endmodule; what stands before it was read.',
  },
  'csv/no-outputs': {
    severity: 'error',
    says: 'Nothing shows which columns of the table are outputs.',
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
    says: 'In line {line} the number of cells is {cells}, in the first line {wanted}.',
    todo: 'Give every line as many cells as the heading.',
  },
  'csv/too-large': {
    severity: 'error',
    says: 'The table has {rows} rows; {limit} are read.',
    todo: 'Use - for inputs that do not matter.',
  },
  'contents/bad-name': {
    severity: 'error',
    says: '{name} cannot name a part.',
    todo: 'Name it with letters, digits and _, none of the words of the sheet.',
  },
  'contents/none': {
    severity: 'error',
    says: 'The file holds no words.',
    todo: 'Choose a file of Intel HEX, of words in hexadecimal, or of addresses and words as CSV.',
  },
  'contents/bad-word': {
    severity: 'error',
    says: 'Line {line} has {word}, which is no word.',
    todo: 'In a list write words in hexadecimal; in CSV write decimal numbers, 0x1F or 0b0110.',
  },
  'contents/bad-record': {
    severity: 'error',
    says: 'Line {line} is no whole record of Intel HEX, or its checksum is wrong.',
    todo: 'Have the file written again; a record begins with a colon and ends in its checksum.',
  },
  'contents/far-record': {
    severity: 'error',
    says: 'Line {line} lies beyond the addresses of these memories.',
    todo: 'Write the contents from address 0 up.',
  },
  'contents/too-long': {
    severity: 'error',
    says: 'The file has {length} characters; {limit} is the most that is read.',
    todo: 'Choose a file of one memory alone.',
  },
} as const satisfies Record<string, Sentence>;
