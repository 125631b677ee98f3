import { Button, Flex } from '@chakra-ui/react';
import { useEffect } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import { ColoursContext, JobContext, SessionContext } from '../base/job-context';
import { useLinked } from '../base/links';
import { EVERYWHERE, isWriting, useShortcuts } from '../base/shortcuts';
import { useCard } from '../base/use-card';
import { says } from '../base/words';
import { Brand } from '../kit/Brand';
import { download } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { keep } from '../kit/follow';
import { Empty, Panel } from '../kit/Panel';
import type { JobSession } from '../store/session';
import { FirstJob } from './FirstJob';
import { FootLine } from './FootLine';
import { JobHeader } from './JobHeader';
import { Screens } from './Screens';
import { Strap } from './Strap';
import { type StepId, stepIds, stepTitles } from './steps';
import { type Opening, useOpenJob } from './use-job';
import { useJobSearchable } from './use-job-searchable';
import { useJobStages } from './use-job-stages';

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
  const navigate = useNavigate();
  const { job } = view;
  const card = useCard(view);
  useJobSearchable(view, step);
  useLinked('signal', keep);
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
            <FirstJob step={step} />
            <Screens step={step} isBehind={isBehind} />
            <FootLine step={step} />
          </Flex>
        </ColoursContext.Provider>
      </SessionContext.Provider>
    </JobContext.Provider>
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
