import { Box } from '@chakra-ui/react';
import {
  cellAt,
  functionTableOf,
  inputAt,
  type PartType,
  type FunctionTable as Table,
  type Unit,
} from '@saddlebag/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { stages } from '../workers/stages';
import { PinName } from './PinName';

/** Gates of so many inputs are shown in every row. */
const WHOLE = 4;

/**
 * The function table of a unit: every row of a small gate, the rows of a data sheet of others, from the worker. Null where equations say it better,
 * undefined until that is known.
 */
export function useFunctionTable({ id, own }: PartType, unit: Unit): Table | null | undefined {
  const small = useMemo(() => everyRowOf(unit), [unit]);
  const part = { part: id, ...(own !== undefined && { own }) };
  const { data } = useQuery({
    queryKey: ['function table', part, unit.name],
    queryFn: () => stages().functionTable(part, unit.name),
    enabled: small === null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return small ?? data;
}

/** Every row of a small gate; null of others. */
function everyRowOf(unit: Unit): Table | null {
  const table = functionTableOf(unit, WHOLE);
  if (!table) return null;
  const { inputs, outputs } = unit.behaviour;
  const rows = Array.from({ length: table.rows }, (_, r) => ({
    inputs: inputs.map((_name, i) => (inputAt(table.inputs, i, r) ? 'H' : 'L')),
    outputs: outputs.map((_o, k) => level(cellAt(table, k, r), unit.drives[k])),
  }));
  return { inputs, outputs: outputs.map((o) => o.name), rows };
}

/** What an output does in a row, by its cell there, where it does not drive high and low. */
const marks: Partial<Record<Unit['drives'][number], Readonly<Record<string, string>>>> = {
  'open-collector': { 1: 'Z' },
  'analogue-switch': { 0: 'open', 1: 'closed' },
};

const level = (cell: string, drive: Unit['drives'][number] = 'push-pull'): string =>
  marks[drive]?.[cell] ?? (cell === '1' ? 'H' : cell === '0' ? 'L' : cell);

/** Styles of all cells, told once: a table may have hundreds. */
const cells = {
  '& th, & td': { px: '9px', textAlign: 'center', whiteSpace: 'nowrap', fontWeight: '400' },
  '& td': { color: 'soft', borderTopWidth: '1px', borderColor: 'line' },
  '& [data-output]': { color: 'ink', fontWeight: '600' },
} as const;

/** A function table as data sheets print it. */
export function FunctionTable({ table: { inputs, outputs, rows } }: { readonly table: Table }) {
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="function table" pt="3px">
      <Box as="table" fontFamily="mono" fontSize="12.5px" css={cells}>
        <thead>
          <tr>
            {inputs.map((name) => (
              <th key={name}>
                <PinName name={name} />
              </th>
            ))}
            {outputs.map((name) => (
              <th key={name} data-output>
                <PinName name={name} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.inputs.join()}>
              {row.inputs.map((mark, i) => (
                <td key={inputs[i]}>{mark}</td>
              ))}
              {row.outputs.map((mark, o) => (
                <td key={outputs[o]} data-output>
                  <Outcome mark={mark} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** What an output does: a level in capitals, off, words, or the input that it passes on, in italics. */
function Outcome({ mark }: { readonly mark: string }) {
  if (mark === 'Z') return 'off';
  if (!/^[=/]/.test(mark)) return mark;
  return (
    <Box as="i" textDecoration={mark.startsWith('/') ? 'overline' : undefined}>
      {mark.slice(1)}
    </Box>
  );
}
