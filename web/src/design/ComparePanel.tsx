import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  type CellMark,
  type Comparison,
  cellAt,
  inputAt,
  readDesign,
  restatable,
  type Side,
  tableOf,
} from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { useQuery } from '@tanstack/react-query';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { contentKey } from '../base/content-key';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { Choice } from '../kit/Choice';
import { lookAt } from '../kit/design-focus';
import { Empty } from '../kit/Panel';
import { shelf } from '../store/shelf';
import { runLong } from '../workers/stages';

/** Rows that are shown side by side, all of them, when there are no more. */
const FEW_ROWS = 64;

/** Are these two the same? Two signals of this job, or this job and another from the shelf. */
export function ComparePanel() {
  const { reading } = useJobView();
  const names = useMemo(() => (reading?.design.netlist ? restatable(reading) : []), [reading]);
  const [left, setLeft] = useState('');
  const [right, setRight] = useState('');
  const other = useOther(right);
  const own = reading?.design.behaviour ?? null;
  const leftName = left === '' || names.includes(left) ? left : '';
  const a: Side | null = own && { behaviour: own, output: leftName || undefined };
  const b: Side | null = sideOf(right, own, other);
  const chosen = a !== null && b !== null && right !== '' && right !== `signal ${leftName}`;
  const { data, isFetching } = useQuery({
    queryKey: ['compare', contentKey(own), leftName, right, contentKey(other?.behaviour ?? null)],
    queryFn: ({ signal }) => runLong('compare', signal, (api) => api.compare(a as Side, b as Side)),
    enabled: chosen,
  });
  if (!own) return <Empty>When the sheet has no mistakes, its signals can be compared here.</Empty>;
  return (
    <Flex direction="column" flex="1" minH="0">
      <TwoChoices names={names} left={leftName} right={right} onLeft={setLeft} onRight={setRight} />
      <Box
        flex="1"
        minH="0"
        overflowY="auto"
        px="12px"
        pb="8px"
        tabIndex={0}
        role="region"
        aria-label="comparison"
        aria-live="polite"
      >
        {!chosen && <Text color="soft">Choose a second signal, or another job whose outputs have the same names.</Text>}
        {chosen && isFetching && <Text color="soft">Comparing …</Text>}
        {data?.findings.map((f) => (
          <Text key={says(f)} color="bad">
            {says(f)}
          </Text>
        ))}
        {chosen && data?.comparison && a && b && <Result comparison={data.comparison} a={a} b={b} />}
      </Box>
    </Flex>
  );
}

interface TwoChoicesProps {
  /** The signals of this job that can be compared. */
  readonly names: readonly string[];
  readonly left: string;
  readonly right: string;
  readonly onLeft: (choice: string) => void;
  readonly onRight: (choice: string) => void;
}

/** Is this the same as that? A signal or this whole job, and another signal or another job. */
function TwoChoices({ names, left, right, onLeft, onRight }: TwoChoicesProps) {
  const { id } = useJobView();
  const jobs = useLiveQuery(() => shelf.list()) ?? [];
  const others = names.filter((name) => name !== left).map((name) => ({ value: `signal ${name}`, text: name }));
  const elsewhere = jobs
    .filter((row) => row.id !== id)
    .map((row) => ({ value: `job ${row.id}`, text: `job: ${row.name}` }));
  return (
    <Flex align="center" gap="8px" px="12px" pb="6px" flexShrink={0} fontSize="13px">
      <Text>Is</Text>
      <Choice label="first to compare" width="200px" value={left} onChange={onLeft}>
        <option value="">this whole job</option>
        {names.map((name) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </Choice>
      <Text whiteSpace="nowrap">the same as</Text>
      <Choice label="second to compare" width="200px" value={right} onChange={onRight}>
        <option value="">…</option>
        {[...others, ...elsewhere].map(({ value, text }) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </Choice>
      <Text>?</Text>
    </Flex>
  );
}

/** What another job of the shelf does, read when it is chosen. */
function useOther(choice: string): Side | null {
  const id = choice.startsWith('job ') ? choice.slice(4) : null;
  const { data } = useQuery({
    queryKey: ['other job', id],
    queryFn: async () => {
      const row = await shelf.get(id ?? '');
      const file = row && readJobFile(row.text);
      const behaviour = file?.ok ? readDesign(file.job.sheet).design.behaviour : null;
      return behaviour ? { behaviour } : null;
    },
    enabled: id !== null,
    staleTime: 0,
  });
  return data ?? null;
}

function sideOf(choice: string, own: Side['behaviour'] | null, other: Side | null): Side | null {
  if (choice.startsWith('signal ')) return own && { behaviour: own, output: choice.slice(7) };
  return choice.startsWith('job ') ? other : null;
}

interface ResultProps {
  readonly comparison: Comparison;
  readonly a: Side;
  readonly b: Side;
}

function Result({ comparison, a, b }: ResultProps) {
  const { inputs, first, rows, pairs } = comparison;
  return (
    <>
      <Text fontWeight="600" color={first ? 'bad' : 'ok'}>
        {first ? `They differ, first in row ${first.row}.` : `The same in all ${rows} rows.`}
      </Text>
      {first && (
        <Flex gap="10px" align="center" fontFamily="mono" fontSize="12.5px" py="4px" wrap="wrap">
          {inputs.map((name, i) => (
            <span key={name}>
              {name}={first.inputs[i]}
            </span>
          ))}
          {first.cells.map((c) => (
            <Text as="span" key={c.output} fontWeight={c.a === c.b ? 400 : 600} color={c.a === c.b ? 'soft' : 'bad'}>
              {c.output}: {c.a} and {c.b}
            </Text>
          ))}
          {sameInputs(inputs, a) && (
            <Button onClick={() => lookAt({ row: first.row, signal: first.cells[0]?.output ?? null })}>Show why</Button>
          )}
        </Flex>
      )}
      {rows <= FEW_ROWS && <AllRows comparison={comparison} a={a} b={b} />}
      {rows > FEW_ROWS && !first && (
        <Text color="soft">{pairs.length === 1 ? 'One output' : `${pairs.length} outputs`} compared.</Text>
      )}
    </>
  );
}

const sameInputs = (inputs: readonly string[], { behaviour }: Side): boolean =>
  inputs.length === behaviour.inputs.length && inputs.every((n, i) => n === behaviour.inputs[i]);

/** Every row with both values of every output compared. */
function AllRows({ comparison: { inputs, pairs, rows }, a, b }: ResultProps) {
  const [one, two] = useMemo(
    () => [
      columnsOf(
        a,
        inputs,
        pairs.map((p) => p.a),
      ),
      columnsOf(
        b,
        inputs,
        pairs.map((p) => p.b),
      ),
    ],
    [a, b, inputs, pairs],
  );
  if (!one || !two) return null;
  return (
    <Box as="table" fontFamily="mono" fontSize="12.5px" mt="4px">
      <thead>
        <tr>
          {[...inputs, ...pairs.map((p) => (p.a === p.b ? p.a : `${p.a}, ${p.b}`))].map((name) => (
            <Box as="th" key={name} px="10px" fontWeight="600" textAlign="center">
              {name}
            </Box>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: rows }, (_, r) => r).map((r) => (
          <tr key={r}>
            {inputs.map((name, i) => (
              <Box as="td" key={name} textAlign="center" color="soft">
                {inputAt(inputs.length, i, r)}
              </Box>
            ))}
            {pairs.map((p, o) => {
              const [x, y] = [one(o, r), two(o, r)];
              const differs = x !== y && x !== '-' && y !== '-';
              return (
                <Box
                  as="td"
                  key={p.a}
                  textAlign="center"
                  color={differs ? 'bad' : 'ink'}
                  fontWeight={differs ? '600' : '400'}
                >
                  {x} {y} {differs ? '≠' : ''}
                </Box>
              );
            })}
          </tr>
        ))}
      </tbody>
    </Box>
  );
}

/** Cells of some signals over the inputs in a given order; null when a signal is no output, as those between are. */
function columnsOf(
  side: Side,
  inputs: readonly string[],
  names: readonly string[],
): ((o: number, r: number) => CellMark) | null {
  const outputs = names.flatMap((name) => {
    const output = side.behaviour.outputs.find((x) => x.name === name);
    if (output) return [output];
    const made = side.behaviour.gates.some((g) => g.output === name);
    return made ? [{ name, net: name, floats: null, open: false, dontCare: null }] : [];
  });
  if (outputs.length < names.length || side.behaviour.stored.length > 0) return null;
  const all = [...inputs, ...side.behaviour.inputs.filter((n) => !inputs.includes(n))];
  if (all.length > inputs.length) return null;
  const table = tableOf({ ...side.behaviour, inputs: all, outputs });
  return (o, r) => cellAt(table, o, r);
}
