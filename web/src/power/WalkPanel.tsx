import { Button, Flex, Text } from '@chakra-ui/react';
import {
  checkWalk,
  compareTables,
  emptyTable,
  inputAt,
  isError,
  type OwnMark,
  ownMark,
  type Table,
  tableFits,
  unclearFinding,
  verdictOf,
  wantedAt,
  withMark,
} from '@saddlebag/core';
import { useMemo, useState, useSyncExternalStore } from 'react';
import type { PowerBench } from '../base/bench';
import { useJobView } from '../base/job-context';
import { useLatest } from '../base/use-latest';
import { useTable } from '../base/use-table';
import { says } from '../base/words';
import { FindingLine } from '../kit/FindingLine';
import { Empty, Panel } from '../kit/Panel';
import { ReadBackButton } from '../kit/ReadBackButton';
import { TipButton } from '../kit/Tip';
import { LiveLines } from './LiveLines';
import type { Filling } from './OwnCell';
import { PassageSection } from './PassageSection';
import { isWide, levelOf, WalkTable } from './WalkTable';

interface WalkPanelProps {
  /** The switch of each input, in order; undefined where the board has none. */
  readonly switches: readonly (string | undefined)[];
  readonly onWalk: () => void;
  readonly onStop: () => void;
  readonly onSet: (row: number) => void;
  /** Shows the trace in its place. */
  readonly onTrace: () => void;
}

/** What the sheet wants beside what the board shows, and the walk that fills it in; without a design, what the board shows alone. */
export function WalkPanel({ switches, onWalk, onStop, onSet, onTrace }: WalkPanelProps) {
  const { reading, job, session, subject } = useJobView();
  const { inputs, outputs, stores, wanted } = subject;
  const tooWide = checkWalk(inputs.length);
  const behaviour = reading?.design.behaviour ?? null;
  const table = useTable(wanted && tooWide.length === 0 ? behaviour : null);
  const [compared, setCompared] = useState(false);
  const { ownTable } = job;
  const fits = wanted && ownTable !== undefined && tableFits(ownTable, inputs, outputs);
  const onMark = useLatest((output: number, row: number, mark: OwnMark): void => {
    setCompared(false);
    if (ownTable) session.dispatch({ kind: 'fill-table', table: withMark(ownTable, output, row, mark) });
  });
  const own = useMemo(
    () => (fits && ownTable ? { table: ownTable, compared, onMark } : null),
    [fits, ownTable, compared, onMark],
  );
  const hasRows = inputs.length > 0 && !stores && tooWide.length === 0;
  const against = { table: wanted ? (table ?? null) : null, own };
  return (
    <Panel
      title="Truth table"
      hint={!wanted ? 'seen on the board' : own ? 'yours · seen' : 'wanted by the sheet · seen on the board'}
      actions={wanted ? table && <OwnTableButton filling={own !== null} /> : <ReadBackButton />}
      w={isWide(subject) ? '430px' : '372px'}
      flexShrink={0}
    >
      {!wanted && <NothingToCompare />}
      {tooWide.length > 0 && <Empty>{tooWide.map(says).join(' ')} Set the rows you care about by hand.</Empty>}
      {hasRows && (table || !wanted) && <LiveTable {...against} switches={switches} onSet={onSet} />}
      <PassageSection />
      <LiveLines />
      <UnclearLine switches={switches} />
      {table && own && <OwnCount own={own} table={table} onCompare={() => setCompared(true)} />}
      <Flex gap="8px" p="10px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0}>
        <WalkButton disabled={!hasRows} onWalk={onWalk} onStop={onStop} />
        {hasRows && <WalkCount {...against} rows={2 ** inputs.length} />}
        <Button ml="auto" flexShrink={0} onClick={onTrace}>
          Trace
        </Button>
      </Flex>
    </Panel>
  );
}

/** Says why nothing on this table can agree or differ. */
function NothingToCompare() {
  const { reading, subject } = useJobView();
  const mistaken = reading?.findings.some(isError);
  return (
    <Text px="12px" pb="8px" color="soft" fontSize="13px">
      {mistaken ? 'The sheet has a mistake' : 'There is no design'}, so there is nothing to compare with: the table
      shows what the {subject.inputs.length > 0 ? 'lamps do' : 'lamps do once the board has switches'}.
    </Text>
  );
}

/** What the rows are held to. */
interface Against {
  readonly table: Table | null;
  readonly own: Filling | null;
}

/** Of the row that the switches stand at: the pin through which a lamp shows no level. */
function UnclearLine({ switches }: Pick<WalkPanelProps, 'switches'>) {
  const { bench } = useJobView();
  const { on, walked } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const unclear = on ? walked.get(rowAt(switches, bench))?.unclear : undefined;
  return unclear ? <FindingLine finding={unclearFinding(unclear)} /> : null;
}

/** The row that the switches stand at, the first input most significant. */
const rowAt = (switches: WalkPanelProps['switches'], bench: PowerBench): number =>
  switches.reduce((sum, ref) => 2 * sum + Number(ref !== undefined && bench.isOn(ref)), 0);

function LiveTable({ table, own, switches, onSet }: Against & Pick<WalkPanelProps, 'switches' | 'onSet'>) {
  const { bench, subject } = useJobView();
  const { on, walked } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const row = rowAt(switches, bench);
  return (
    <WalkTable subject={subject} table={table} own={own} walked={walked} current={on ? row : null} onSet={onSet} />
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

/** Begins a table of the person's own, and puts it away again. */
function OwnTableButton({ filling }: { readonly filling: boolean }) {
  const { session, subject } = useJobView();
  if (filling)
    return (
      <TipButton onClick={() => session.dispatch({ kind: 'fill-table', table: null })} tip="puts your table away">
        Show the sheet’s
      </TipButton>
    );
  const empty = emptyTable(subject.inputs, subject.outputs);
  if (!empty) return null;
  return (
    <TipButton
      onClick={() => session.dispatch({ kind: 'fill-table', table: empty })}
      tip="an empty table: write what each output should be, then compare it with the sheet"
    >
      Fill in my own
    </TipButton>
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

/** How many rows were seen and, where there is something to agree with, how many of them do. */
function WalkCount({ table, own, rows }: Against & { readonly rows: number }) {
  const { bench, subject } = useJobView();
  const { walked, walking } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const comparable = table !== null || own !== null;
  const differing = useMemo(() => {
    const wanted = (row: number) =>
      subject.outputs.map((_, o) =>
        own ? levelOf(ownMark(own.table, o, row)) : table ? wantedAt(table, o, row) : null,
      );
    return verdictOf(walked.values(), own || table ? wanted : null).differing?.length ?? 0;
  }, [walked, table, own, subject]);
  const open = own?.table.outputs.some((o) => o.marks.includes('.')) === true;
  if (walked.size === 0)
    return (
      <Text color="soft" fontSize="12.5px">
        sets every row on the switches and reads the LEDs
      </Text>
    );
  const all = walked.size === rows && !open && comparable;
  const token = differing > 0 ? 'bad' : all && !walking ? 'ok' : 'soft';
  return (
    <Text role="status" fontSize="13px" color={token} fontWeight="700">
      {walked.size} of {rows} rows seen
      {differing > 0 ? `, ${differing} differ` : all ? ', all agree' : ''}
    </Text>
  );
}
