import { Button, Flex, Text } from '@chakra-ui/react';
import {
  agrees,
  checkWalk,
  compareTables,
  emptyTable,
  inputAt,
  type Netlist,
  type OwnMark,
  ownMark,
  says,
  type Table,
  tableFits,
  wantedAt,
  withMark,
} from '@saddlebag/core';
import { useMemo, useState, useSyncExternalStore } from 'react';
import { useJobView } from '../app/job-context';
import { useLatest } from '../app/use-latest';
import { useTable } from '../app/use-table';
import { Empty, Panel } from '../kit/Panel';
import type { Filling } from './OwnCell';
import { isWide, levelOf, WalkTable } from './WalkTable';

interface WalkPanelProps {
  readonly netlist: Netlist | null;
  /** The switch of each input, in order; undefined where the board has none. */
  readonly switches: readonly (string | undefined)[];
  readonly onWalk: () => void;
  readonly onStop: () => void;
  readonly onSet: (row: number) => void;
}

/** What the sheet wants beside what the board shows, and the walk that fills it in. */
export function WalkPanel({ netlist, switches, onWalk, onStop, onSet }: WalkPanelProps) {
  const tooWide = checkWalk(switches.length);
  const wide = netlist !== null && isWide(netlist);
  const { reading, job, session } = useJobView();
  const behaviour = reading?.design.behaviour ?? null;
  const stores = behaviour !== null && behaviour.stored.length > 0;
  const table = useTable(tooWide.length === 0 ? behaviour : null);
  const [compared, setCompared] = useState(false);
  const { ownTable } = job;
  const fits = netlist !== null && ownTable !== undefined && tableFits(ownTable, netlist.inputs, namesOf(netlist));
  const onMark = useLatest((output: number, row: number, mark: OwnMark): void => {
    setCompared(false);
    if (ownTable) session.dispatch({ kind: 'fill-table', table: withMark(ownTable, output, row, mark) });
  });
  const own = useMemo(
    () => (fits && ownTable ? { table: ownTable, compared, onMark } : null),
    [fits, ownTable, compared, onMark],
  );
  return (
    <Panel
      title="Truth table"
      hint={own ? 'yours · seen on the board' : 'wanted by the sheet · seen on the board'}
      actions={netlist && table && <OwnTableButton netlist={netlist} filling={own !== null} />}
      w={wide ? '430px' : '372px'}
      flexShrink={0}
    >
      {tooWide.length > 0 && <Empty>{tooWide.map(says).join(' ')} Set the rows you care about by hand.</Empty>}
      {netlist && table && <LiveTable netlist={netlist} table={table} own={own} switches={switches} onSet={onSet} />}
      {stores && (
        <Empty>
          It stores something, so a table of its switches cannot tell its lamps. Set the switches by hand; the states
          stand at Design.
        </Empty>
      )}
      {!netlist && (
        <Empty>The sheet has a mistake, so there is nothing to compare with. The switches work all the same.</Empty>
      )}
      {table && own && <OwnCount own={own} table={table} onCompare={() => setCompared(true)} />}
      <Flex gap="8px" p="10px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0}>
        <WalkButton disabled={!netlist || stores || tooWide.length > 0} onWalk={onWalk} onStop={onStop} />
        {table && <WalkCount table={table} own={own} />}
      </Flex>
    </Panel>
  );
}

function LiveTable({
  netlist,
  table,
  own,
  switches,
  onSet,
}: Omit<WalkPanelProps, 'onWalk' | 'onStop' | 'netlist'> & { netlist: Netlist; table: Table; own: Filling | null }) {
  const { bench } = useJobView();
  const { on, walked } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const row = switches.reduce((sum, ref) => 2 * sum + Number(ref !== undefined && bench.isOn(ref)), 0);
  return (
    <WalkTable netlist={netlist} table={table} own={own} walked={walked} current={on ? row : null} onSet={onSet} />
  );
}

interface WalkButtonProps extends Pick<WalkPanelProps, 'onWalk' | 'onStop'> {
  readonly disabled: boolean;
}

function WalkButton({ disabled, onWalk, onStop }: WalkButtonProps) {
  const { bench } = useJobView();
  const { walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (walking)
    return (
      <Button size="md" onClick={onStop}>
        Stop
      </Button>
    );
  return (
    <Button size="md" variant="solid" flexShrink="0" disabled={disabled} onClick={onWalk}>
      Walk the table
    </Button>
  );
}

const namesOf = (netlist: Netlist): string[] => netlist.outputs.map((o) => o.name);

/** Begins a table of the person's own, and puts it away again. */
function OwnTableButton({ netlist, filling }: { readonly netlist: Netlist; readonly filling: boolean }) {
  const { session } = useJobView();
  if (filling)
    return (
      <Button onClick={() => session.dispatch({ kind: 'fill-table', table: null })} title="puts your table away">
        Show the sheet’s
      </Button>
    );
  const empty = emptyTable(netlist.inputs, namesOf(netlist));
  if (!empty) return null;
  return (
    <Button
      onClick={() => session.dispatch({ kind: 'fill-table', table: empty })}
      title="an empty table: write what each output should be, then compare it with the sheet"
    >
      Fill in my own
    </Button>
  );
}

interface OwnCountProps {
  readonly own: Filling;
  readonly table: Table;
  readonly onCompare: () => void;
}

/** How far the person's own table is, and after comparing, how it stands to the sheet's. */
function OwnCount({ own, table, onCompare }: OwnCountProps) {
  const { right, wrong, open, first } = compareTables(own.table, table);
  const written = right + wrong;
  const { inputs, outputs } = own.table;
  return (
    <Flex gap="8px" p="8px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0}>
      <Button onClick={onCompare} disabled={written === 0}>
        Compare with the sheet
      </Button>
      <Text
        role="status"
        fontSize="12.5px"
        color={!own.compared ? 'soft' : wrong > 0 ? 'bad' : 'ok'}
        fontWeight={own.compared ? '700' : undefined}
      >
        {!own.compared && (open > 0 ? `${open} of ${written + open} cells open` : 'every cell written')}
        {own.compared &&
          !first &&
          (open > 0 ? `all ${written} written are right, ${open} open` : `all ${written} right`)}
        {own.compared &&
          first &&
          `${wrong} of ${written} wrong, first ${outputs[first.output]?.name} at ${inputs.map((_, i) => inputAt(inputs.length, i, first.row)).join('')}`}
      </Text>
    </Flex>
  );
}

/** How many rows were run and how many of them agree. */
function WalkCount({ table, own }: { readonly table: Table; readonly own: Filling | null }) {
  const { bench } = useJobView();
  const { walked, walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const differing = useMemo(() => {
    const wanted = (row: number) =>
      table.columns.map((_, o) => (own ? levelOf(ownMark(own.table, o, row)) : wantedAt(table, o, row)));
    return [...walked.values()].filter(({ row, seen }) => !agrees(seen, wanted(row))).length;
  }, [walked, table, own]);
  const open = own?.table.outputs.some((o) => o.marks.includes('.')) === true;
  if (walked.size === 0)
    return (
      <Text color="soft" fontSize="12.5px">
        sets every row on the switches and reads the LEDs
      </Text>
    );
  return (
    <Text role="status" fontSize="13px" color={differing > 0 ? 'bad' : walking ? 'soft' : 'ok'} fontWeight="700">
      {walked.size} of {table.rows} rows seen
      {differing > 0 ? `, ${differing} differ` : walked.size === table.rows && !open ? ', all agree' : ''}
    </Text>
  );
}
