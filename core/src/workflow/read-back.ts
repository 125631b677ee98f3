import { type Board, extractNets, type Nets } from '../board';
import { readDesign } from '../catalogue';
import { finding } from '../finding';
import { type Recovered, recover } from '../inspection';
import { UNKNOWN } from '../logic';
import { type Circuit, compileCircuit, type Panel, PoweredBoard, panelOf, runRow } from '../simulation';

/** The most switches of a board of transistors or diodes whose rows are run to read it back: 2^6 rows, both ways. */
export const MAX_MEASURED = 6;

/**
 * The design of a board, read back from its wiring (`recover`). What transistors, diodes and analogue switches do has no line on a sheet: a board
 * that has some, and remembers nothing, is powered and its outputs are read as tables, row by row.
 */
export function readBack(board: Board): Recovered {
  const nets = extractNets(board);
  const made = recover(board, nets);
  const isWhole = made.findings.every((f) => f.code !== 'recover/switching-device');
  return isWhole ? made : (measured(board, nets, made) ?? made);
}

function measured(board: Board, nets: Nets, made: Recovered): Recovered | null {
  const { design } = readDesign(made.sheet);
  const inputs = design.inputs.map((s) => s.name);
  const outputs = design.outputs.map((s) => s.name);
  const isStoring = (design.behaviour?.stored.length ?? 0) > 0;
  if (isStoring || inputs.length > MAX_MEASURED || inputs.length === 0 || outputs.length === 0) return null;
  const circuit = compileCircuit(board);
  const panel = panelFor(board, circuit, inputs, outputs);
  if (!panel) return null;
  const live = new PoweredBoard(board, nets, { circuit });
  const rows = Array.from({ length: 2 ** inputs.length }, (_, row) => row);
  const see = (order: readonly number[]) => new Map(order.map((row) => [row, runRow(live, panel, row)]));
  // What remembers shows something else on the way back.
  const [up, down] = [see(rows), see(rows.toReversed())];
  const same = rows.every((row) => {
    const [a, b] = [up.get(row), down.get(row)];
    return a?.settled && b?.settled && !a.seen.includes(UNKNOWN) && a.seen.join() === b.seen.join();
  });
  if (!same) return null;
  const declared = made.sheet.split('\n').filter((line) => /^(in|out) /.test(line));
  const tables = outputs.map((name, o) => {
    const cells = rows.map((row) => up.get(row)?.seen[o]).join('');
    return `table ${name} of ${inputs.join(' ')} : ${cells}`;
  });
  const sheet = ['# read back from what the board does, row by row', ...declared, '', ...tables, ''].join('\n');
  return { sheet, packing: null, findings: [finding('recover/measured', [], { rows: rows.length })] };
}

/** Where the inputs and outputs of a sheet that was read back are: by their labels, otherwise by the names of the parts. */
function panelFor(board: Board, circuit: Circuit, inputs: readonly string[], outputs: readonly string[]): Panel | null {
  const labelled = panelOf(board, circuit, inputs, outputs);
  const orByName = (found: readonly number[], names: readonly string[], list: readonly { ref: string }[]): number[] =>
    found.map((at, i) => (at >= 0 ? at : list.findIndex(({ ref }) => ref === names[i]?.replace('_', '.'))));
  const switches = orByName(labelled.switches, inputs, circuit.switches);
  const leds = orByName(labelled.leds, outputs, circuit.leds);
  return switches.includes(-1) || leds.includes(-1) ? null : { ...labelled, switches, leds };
}
