/** Readers of what other programs write, in a module of their own: the shelf loads it when a file is brought in. */
export { fromVerilog, tableFromCsv } from '@saddlebag/core';
