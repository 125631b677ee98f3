import { Box, Button, Flex } from '@chakra-ui/react';
import {
  type Behaviour,
  chipLibrary,
  type Finding,
  formatted,
  type Netlist,
  parseSheet,
  printSheet,
  renamed,
  toVerilog,
} from '@saddlebag/core';
import { Suspense, useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import { fetched } from '../base/fetched';
import { useJobView } from '../base/job-context';
import { NARROW } from '../base/narrow';
import { changeSettings, useSettings } from '../base/settings';
import { useLast } from '../base/use-kept';
import { says } from '../base/words';
import { Ask } from '../kit/Ask';
import { Beside } from '../kit/Beside';
import { download, fileName } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { tell } from '../kit/notices';
import { Empty, Panel } from '../kit/Panel';
import { ReadBackButton } from '../kit/ReadBackButton';
import { TipButton } from '../kit/Tip';
import { Faded } from './Faded';
import { GateDiagram } from './GateDiagram';
import { ToolsPanel } from './ToolsPanel';

const { Shown: SheetEditor, fetch: fetchEditor } = fetched(async () => (await import('./SheetEditor')).default);
const { Shown: MemoryDialog } = fetched(async () => (await import('./MemoryDialog')).MemoryDialog);

// The editor is the largest of what this screen draws: it is on its way before the screen is. What cannot be fetched now is asked for again then.
fetchEditor().catch(() => {});

/** Findings that are listed at once; the rest follow when these are mended. */
const MOST_TOLD = 40;

/** Sheet, gate diagram and truth table side by side: three ways to edit one design. */
export default function DesignStep() {
  const { reading, netlist, behaviour } = useJobView();
  const goTo = useRef<(offset: number) => void>(() => {});
  const [naming, setNaming] = useState<string | null>(null);
  const findings = reading?.findings ?? [];
  const sound = findings.every((f) => f.severity !== 'error');
  // While a mistake is being made or mended, what the sheet said last stays in sight, faded and out of reach.
  const draft = reading?.draft?.reading.design ?? null;
  const drawn = useLast(netlist ?? draft?.netlist ?? null);
  const worked = useLast(behaviour ?? draft?.behaviour ?? null);
  const isStale = !sound && draft === null && drawn !== null && drawn.outputs.length > 0;
  return (
    <>
      <Flex
        direction="column"
        gap="10px"
        minH="0"
        css={{ width: '452px', flexShrink: 0, [NARROW]: { width: 'auto', flex: 1 } }}
      >
        <SheetPanel findings={findings} sound={sound} goTo={goTo} onRename={setNaming} />
        <SheetFindings findings={findings} onGo={(offset) => goTo.current(offset)} />
      </Flex>
      <Beside title="Gates and table" direction="column" gap="10px" flex="1" minW="0" minH="0">
        <GatesPanel drawn={drawn} worked={worked} sound={sound} isStale={isStale} />
        <Faded stale={isStale}>
          <ToolsPanel behaviour={worked} />
        </Faded>
      </Beside>
      {naming !== null && <RenameSignal name={naming} onClose={() => setNaming(null)} />}
    </>
  );
}

interface SheetPanelProps {
  readonly findings: readonly Finding[];
  readonly sound: boolean;
  /** Set to what brings a place of the sheet into view. */
  readonly goTo: { current: (offset: number) => void };
  readonly onRename: (name: string) => void;
}

/** The sheet as text, with what rewrites all of it. */
function SheetPanel({ findings, sound, goTo, onRename }: SheetPanelProps) {
  const { session, colours } = useJobView();
  const from = (useLocation().state as { at?: unknown } | null)?.at;
  return (
    <Panel title="Sheet" flex="1" actions={<SheetActions sound={sound} />}>
      <Suspense fallback={<Empty>…</Empty>}>
        <SheetEditor
          findings={findings}
          colours={colours}
          onChange={(text) => session.dispatch({ kind: 'write-sheet', text, typed: true })}
          onRename={onRename}
          onReady={(go) => {
            goTo.current = go;
            // Whoever comes from a unit of the packing finds its line.
            if (typeof from === 'number') go(from);
          }}
        />
      </Suspense>
    </Panel>
  );
}

function SheetActions({ sound }: { readonly sound: boolean }) {
  const { session } = useJobView();
  const write = (text: string): unknown => session.dispatch({ kind: 'write-sheet', text });
  const rewrite = (notation: 'ascii' | 'textbook'): void => {
    const { sheet, findings: broken } = parseSheet(session.job.sheet);
    if (broken.length === 0) write(printSheet(sheet, notation));
  };
  const tidy = (): void => {
    const text = formatted(session.job.sheet);
    if (text === session.job.sheet) tell('The sheet is tidy as it is.');
    else write(text);
  };
  return (
    <>
      <ReadBackButton />
      <MemoryButton />
      <Button onClick={tidy}>Tidy</Button>
      <TipButton fontFamily="mono" disabled={!sound} tip="write with & | ~ ^" onClick={() => rewrite('ascii')}>
        K & ~E
      </TipButton>
      <TipButton
        fontFamily="mono"
        disabled={!sound}
        tip="write as textbooks do: · + and a stroke"
        onClick={() => rewrite('textbook')}
      >
        K·E'
      </TipButton>
    </>
  );
}

function MemoryButton() {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <TipButton tip="Put a memory on the sheet that holds what a file says" onClick={() => setOpen(true)}>
        Memory
      </TipButton>
      {isOpen && (
        <Suspense fallback={null}>
          <MemoryDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

interface SheetFindingsProps {
  readonly findings: readonly Finding[];
  readonly onGo: (offset: number) => void;
}

/** What is wrong on the sheet, each with its line, and on an empty one how to begin. */
function SheetFindings({ findings, onGo }: SheetFindingsProps) {
  const { job, session } = useJobView();
  const mend = ({ places: [place], fix }: Finding): void => {
    // What has been typed since was not read: its findings are about to come.
    if (place?.kind !== 'text' || fix === undefined || session.job.sheet !== job.sheet) return;
    const { from, to } = place.span;
    session.dispatch({ kind: 'write-sheet', text: job.sheet.slice(0, from) + fix + job.sheet.slice(to) });
  };
  return (
    <Panel
      title="On the sheet"
      hint={findings.length === 0 ? 'no problems found' : `${findings.length} to see to`}
      maxH="210px"
      flexShrink={0}
    >
      <Box overflowY="auto" aria-live="polite">
        {findings.slice(0, MOST_TOLD).map((f) => {
          const [place] = f.places;
          const at = place?.kind === 'text' ? place.span.from : 0;
          return (
            <FindingLine
              key={`${at} ${says(f)}`}
              finding={f}
              where={`line ${job.sheet.slice(0, at).split('\n').length}`}
              onChoose={() => onGo(at)}
              {...(f.code === 'sheet/meant' && { onFix: () => mend(f) })}
            />
          );
        })}
        {findings.length > MOST_TOLD && (
          <Box px="14px" py="6px" color="soft" fontSize="13px">
            … and {findings.length - MOST_TOLD} more further down.
          </Box>
        )}
        {job.sheet.trim() === '' && <Beginning />}
      </Box>
    </Panel>
  );
}

interface GatesPanelProps {
  readonly drawn: Netlist | null;
  readonly worked: Behaviour | null;
  readonly sound: boolean;
  readonly isStale: boolean;
}

/** The gate diagram, or why there is none. */
function GatesPanel({ drawn, worked, sound, isStale }: GatesPanelProps) {
  const { colours } = useJobView();
  // The engine that lays gates out starts while the sheet is still being read.
  useEffect(() => {
    import('./elk').then((m) => m.startLayout()).catch(() => {});
  }, []);
  return (
    <Panel
      title="Gates"
      hint={isStale ? 'as they were before the mistake' : 'what is changed here, the sheet follows'}
      flex="1.5"
      actions={<GatesActions />}
    >
      {drawn && drawn.outputs.length > 0 ? (
        <Faded stale={isStale}>
          <GateDiagram netlist={drawn} colours={colours} behaviour={worked} />
        </Faded>
      ) : (
        <Empty>
          {sound
            ? 'The gates appear here as soon as the sheet has an output.'
            : 'The gates appear here when the sheet has no mistakes.'}
        </Empty>
      )}
    </Panel>
  );
}

function GatesActions() {
  const { job, reading, netlist } = useJobView();
  const rectangular = useSettings().symbols === 'rectangular';
  const verilog =
    netlist && reading ? () => toVerilog(reading, job.name.replace(/\W+/g, '_'), chipLibrary) ?? '' : null;
  return (
    <>
      <Button
        disabled={!verilog}
        onClick={() => verilog && download(fileName(job.name, '.v'), verilog(), 'text/plain')}
      >
        Verilog
      </Button>
      <Button
        aria-pressed={rectangular}
        onClick={() => changeSettings({ symbols: rectangular ? 'distinctive' : 'rectangular' })}
      >
        Rectangular symbols
      </Button>
    </>
  );
}

/** Asks for the new name of a signal and gives it everywhere. */
function RenameSignal({ name, onClose }: { readonly name: string; readonly onClose: () => void }) {
  const { session } = useJobView();
  const rename = (to: string): void => {
    const text = renamed(session.job.sheet, name, to);
    if (text === null) tell(`${to} is not a free name for ${name}: letters, digits and _, and not taken.`);
    else session.dispatch({ kind: 'write-sheet', text });
  };
  return (
    <Ask
      title={`Rename ${name} everywhere`}
      label="Name"
      value={name}
      done="Rename"
      onDone={rename}
      onClose={onClose}
    />
  );
}

/** What to write on an empty sheet. */
function Beginning() {
  return (
    <Box as="pre" px="14px" py="8px" fontFamily="mono" fontSize="12.5px" color="soft" whiteSpace="pre-wrap">
      {'in  K "key turned"  E "levels equal"\nout G "gate permit"\nG = K & E      # or K·E, and(K, E)'}
    </Box>
  );
}
