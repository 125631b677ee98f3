import { Button, Flex } from '@chakra-ui/react';
import { says } from '@saddlebag/core';
import { useIsFetching } from '@tanstack/react-query';
import { createContext, memo, type ReactNode, Suspense, useContext, useEffect, useSyncExternalStore } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import { ColoursContext, JobContext, SessionContext, useJobView, useSession } from '../base/job-context';
import { EVERYWHERE, isWriting, useShortcuts } from '../base/shortcuts';
import { useCard } from '../base/use-card';
import { Brand } from '../kit/Brand';
import { download } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { Empty, Panel } from '../kit/Panel';
import type { JobSession } from '../store/session';
import { FootLine } from './FootLine';
import { JobHeader } from './JobHeader';
import { Strap } from './Strap';
import { fetchScreens, screens } from './screens';
import { type StepId, stepIds, stepTitles } from './steps';
import { type Opening, useOpenJob } from './use-job';
import { useJobStages } from './use-job-stages';

/** Whether what the screens show is still that of an earlier reading. */
const BehindContext = createContext(false);

/** A job at one of its steps. */
export function JobPage() {
  const { id = '', step } = useParams();
  const opening = useOpenJob(id);
  if (!stepIds.includes(step as StepId)) return <Navigate to={`/job/${id}/design`} replace />;
  if (opening.state === 'opening') return <Empty>Opening …</Empty>;
  if (opening.state === 'refused') return <RefusedJob opening={opening} />;
  return <OpenJob key={id} id={id} session={opening.session} step={step as StepId} />;
}

interface OpenJobProps {
  readonly id: string;
  readonly session: JobSession;
  readonly step: StepId;
}

function OpenJob({ id, session, step }: OpenJobProps) {
  const { view, isBehind } = useJobStages(id, session);
  useEffect(fetchScreens, []);
  const navigate = useNavigate();
  const { job } = view;
  const card = useCard(view);
  useEffect(() => {
    document.title = `${job.name} · ${stepTitles[step]} · Saddlebag`;
  }, [job.name, step]);
  // A field of its own keeps its own undo; the sheet shares the job's.
  const outsideFields = (then: () => void) => (e: KeyboardEvent) => {
    if (e.target instanceof HTMLInputElement && isWriting(e.target)) return false;
    then();
    return true;
  };
  useShortcuts(EVERYWHERE, [
    {
      cap: 'Ctrl Z',
      does: 'undo',
      keys: ['$mod+z'],
      take: outsideFields(() => session.undo()),
      whileWriting: true,
      isFirst: step === 'design' || step === 'pack',
    },
    {
      cap: 'Ctrl Y',
      does: 'redo',
      keys: ['$mod+y', '$mod+Shift+z'],
      take: outsideFields(() => session.redo()),
      whileWriting: true,
    },
    {
      cap: 'Alt 1 … 6',
      does: 'to a step',
      keys: stepIds.map((_, i) => `Alt+Digit${i + 1}`),
      take: (e) => void navigate(`/job/${id}/${stepIds[Number(e.code.slice(-1)) - 1]}`),
      whileWriting: true,
      isFirst: step === 'design' || step === 'pack',
    },
  ]);
  return (
    <JobContext.Provider value={view}>
      <SessionContext.Provider value={session}>
        <ColoursContext.Provider value={view.colours}>
          <Flex direction="column" h="100%" css={{ '@media print': { height: 'auto' } }}>
            <JobHeader />
            <Strap current={step} stages={card?.stages.length ?? null} />
            <BehindContext.Provider value={isBehind}>
              <Main step={step} />
            </BehindContext.Provider>
            <FootLine step={step} />
          </Flex>
        </ColoursContext.Provider>
      </SessionContext.Provider>
    </JobContext.Provider>
  );
}

/** The screen of a step. It is drawn again when it asks for something that has changed, not whenever the page is. */
const Main = memo(function Main({ step }: { readonly step: StepId }) {
  const Screen = screens[step];
  return (
    <Busy step={step}>
      <Suspense fallback={<Empty>…</Empty>}>
        <Screen />
      </Suspense>
    </Busy>
  );
});

/** Says whether anything is being worked out, or waits for a pause in the typing; what is in it takes no notice. */
function Busy({ step, children }: { readonly step: StepId; readonly children: ReactNode }) {
  const session = useSession();
  const { job } = useJobView();
  const isTyping = useSyncExternalStore(session.subscribe, () => session.job !== job);
  const busy = [useIsFetching() > 0, useContext(BehindContext), isTyping].some(Boolean);
  return (
    <Flex as="main" data-step={step} aria-busy={busy} flex="1" minH="0" p="10px 12px" gap="10px">
      {children}
    </Flex>
  );
}

function RefusedJob({ opening }: { readonly opening: Extract<Opening, { state: 'refused' }> }) {
  const { findings, text } = opening;
  return (
    <Flex direction="column" h="100%">
      <Flex as="header" align="center" px="18px" h="42px">
        <Brand />
      </Flex>
      <Flex as="main" justify="center" p="40px">
        <Panel
          title="This job cannot be opened"
          hint="nothing of it is lost"
          width="620px"
          actions={
            text !== null && <Button onClick={() => download('job.saddlebag.json', text)}>Export its file</Button>
          }
        >
          {findings.map((f) => (
            <FindingLine key={says(f)} finding={f} />
          ))}
        </Panel>
      </Flex>
    </Flex>
  );
}
