import { Box, Button, Text } from '@chakra-ui/react';
import { type Finding, isBare, placeText, readCommand } from '@saddlebag/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { useJobView } from '../base/job-context';
import { useLinked } from '../base/links';
import { useShortcuts } from '../base/shortcuts';
import { remedy, says } from '../base/words';
import { Ask } from '../kit/Ask';
import { Beside } from '../kit/Beside';
import { BoardDrawing } from '../kit/board/BoardDrawing';
import { BoardMat, useIsFolded } from '../kit/board/BoardMat';
import { FindingMarks } from '../kit/board/FindingMarks';
import { areasAt } from '../kit/board/target-areas';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { FindingLine } from '../kit/FindingLine';
import { findingLink } from '../kit/finding-link';
import { NoBoard } from '../kit/NoBoard';
import { tell } from '../kit/notices';
import { Empty, Panel } from '../kit/Panel';

const none: readonly Finding[] = [];

/** Findings on the wiring, each at its place on the board. */
export default function InspectStep() {
  const { board, colours, findings: found } = useJobView();
  const findings = found ?? none;
  const scene = useScene(board);
  const gateAt = useMemo(() => gatesByPin(board.wired), [board.wired]);
  const [at, setAt] = useState(0);
  const chosen = findings[Math.min(at, findings.length - 1)] ?? null;
  const inView = useMemo(() => (chosen ? areasAt(chosen.places, scene) : []), [chosen, scene]);
  const mend = useMend();
  useLinkedFinding(found, setAt);
  const isFolded = useIsFolded('inspect');
  const step = (e: KeyboardEvent): void =>
    setAt(Math.max(0, Math.min(at + (e.key === 'ArrowDown' ? 1 : -1), findings.length - 1)));
  const mendChosen = (e: KeyboardEvent): boolean => {
    if (!chosen || e.target !== document.body) return false;
    mend(chosen);
    return true;
  };
  useShortcuts('Among findings', [
    { cap: '↑ ↓', does: 'from finding to finding', keys: ['ArrowUp', 'ArrowDown'], take: step, isFirst: true },
    { cap: 'Enter', does: 'fix it, where one press can', keys: ['Enter'], take: mendChosen, isFirst: true },
  ]);
  return (
    <>
      <Beside title="Findings" w="380px" flexShrink={0} minH="0" display={isFolded ? 'none' : 'flex'}>
        <FindingsPanel found={found} chosen={chosen} onChoose={setAt} onMend={mend} />
      </Beside>
      <BoardMat
        name="inspect"
        scene={scene}
        inView={inView}
        tools={
          <Text fontFamily="heading" fontWeight="600" fontSize="16px">
            The board
          </Text>
        }
      >
        <BoardDrawing
          scene={scene}
          colours={colours}
          title="board with findings"
          overlay={{ gateAt, above: <FindingMarks findings={findings} chosen={chosen} scene={scene} /> }}
        />
      </BoardMat>
    </>
  );
}

/** Chooses the finding that the address points at, as soon as there are any. */
function useLinkedFinding(found: readonly Finding[] | null, choose: (index: number) => void): void {
  const find = (link: string): number => (found ?? none).findIndex((f) => findingLink(f) === link);
  useLinked('finding', (link) => choose(Math.max(0, find(link))), found !== null);
}

/** Does what a finding proposes, and tells so with a way back. */
function useMend(): (f: Finding) => void {
  const { job, session } = useJobView();
  return (f) => {
    const command = f.fix === undefined ? null : readCommand(job.board, f.fix);
    if (!command) return;
    const done = command.ok ? session.dispatch(command.edit) : { ok: false as const, findings: [command.finding] };
    if (!done.ok) tell(done.findings.map((r) => `${says(r)} ${remedy(r)}`).join(' '));
    else tell(`Done: ${f.fix}.`, { label: 'Undo', onClick: () => session.undo() });
  };
}

interface FindingsPanelProps {
  /** Null while they are being worked out. */
  readonly found: readonly Finding[] | null;
  readonly chosen: Finding | null;
  readonly onChoose: (index: number) => void;
  readonly onMend: (f: Finding) => void;
}

function FindingsPanel({ found, chosen, onChoose, onMend }: FindingsPanelProps) {
  const { id, job } = useJobView();
  const findings = found ?? none;
  const [silencing, setSilencing] = useState<Finding | null>(null);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-pressed="true"]')?.scrollIntoView({ block: 'nearest' });
  });
  const bare = isBare(job.board);
  const toMend = findings.filter((f) => f.severity !== 'note').length;
  const toFix = findings.filter((f) => f.severity === 'error').length;
  return (
    <Panel
      title="Findings"
      hint={bare ? undefined : toMend === 0 ? 'no problems found' : `${toFix} to fix, ${toMend - toFix} to look at`}
      flex="1"
    >
      {bare && <NoBoard jobId={id} why="Nothing is on the board yet, so there is no wiring to inspect." />}
      {!bare && found === null && <Empty>Inspecting …</Empty>}
      {!bare && found !== null && toMend === 0 && <NothingWrong jobId={id} />}
      <Box ref={list} overflowY="auto" aria-live="polite">
        {findings.map((f, i) => (
          <FindingLine
            key={`${f.code} ${says(f)}`}
            finding={f}
            chosen={f === chosen}
            onChoose={() => onChoose(i)}
            {...(f.fix !== undefined && { onFix: () => onMend(f) })}
            {...(f === chosen && f.places.length > 0 && { onSilence: () => setSilencing(f) })}
          />
        ))}
        <SilencedList />
      </Box>
      {silencing && <SilenceReason finding={silencing} onClose={() => setSilencing(null)} />}
    </Panel>
  );
}

function NothingWrong({ jobId }: { readonly jobId: string }) {
  return (
    <Empty>
      <Text color="ok" fontFamily="heading" fontWeight="600" fontSize="18px">
        No problems found
      </Text>
      Supply, ground, wiring, inputs, LEDs and switches were looked at.{' '}
      <Link to={`/job/${jobId}/power`} style={{ textDecoration: 'underline' }}>
        Power up
      </Link>{' '}
      and walk the table next.
    </Empty>
  );
}

/** Findings that the person does not want to see, each with the reason, to be shown again. */
function SilencedList() {
  const { job, session } = useJobView();
  const silenced = job.silenced ?? [];
  if (silenced.length === 0) return null;
  return (
    <Box px="12px" py="8px">
      <Text fontSize="13px" fontWeight="700">
        Silenced
      </Text>
      {silenced.map(({ code, place, reason }) => (
        <Box key={`${code} ${place}`} display="flex" gap="8px" alignItems="center" py="4px">
          <Text fontSize="13px" color="soft" flex="1" minW="0">
            {code} at {place}: {reason}
          </Text>
          <Button
            aria-label={`Show again: ${code} at ${place}`}
            onClick={() => session.dispatch({ kind: 'tell-again', code, place })}
          >
            Show again
          </Button>
        </Box>
      ))}
    </Box>
  );
}

/** Asks why a finding is all right here, and silences it with that. */
function SilenceReason({ finding, onClose }: { readonly finding: Finding; readonly onClose: () => void }) {
  const { session } = useJobView();
  return (
    <Ask
      title={says(finding)}
      label="Why it is all right here"
      value=""
      done="Silence"
      onDone={(reason) => {
        const silenced = { code: finding.code, place: placeText(finding), reason: reason.slice(0, 400) };
        session.dispatch({ kind: 'silence', finding: silenced });
      }}
      onClose={onClose}
    />
  );
}
