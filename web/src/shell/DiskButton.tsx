import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { useJobView, useSession } from '../base/job-context';
import { fileName } from '../kit/download';
import { TipButton } from '../kit/Tip';
import { canWriteFiles, DiskFile, type OnDisk } from '../store/on-disk';

const says: Readonly<Record<OnDisk['state'], (name: string) => string>> = {
  none: () => 'Save to a file',
  kept: (name) => `In ${name}`,
  writing: (name) => (name === '' ? 'Saving …' : `In ${name} …`),
  asleep: (name) => `Go on in ${name}`,
  failed: (name) => (name === '' ? 'Not saved' : `${name} is not written`),
};
const tips: Readonly<Record<OnDisk['state'], string>> = {
  none: 'write the job into a file on the disk, and every step after it',
  kept: 'the file has every step; press to write it now',
  writing: 'the file is being written',
  asleep: 'the browser asks you once more before it writes into the file',
  failed: 'the file could not be written; the job is kept in the browser all the same. Press to try again',
};

/** Keeps the job in a file on the disk, where the browser can. */
export function DiskButton() {
  const { id } = useJobView();
  const session = useSession();
  const file = useMemo(() => new DiskFile(id, () => session.job), [id, session]);
  const { state, name } = useSyncExternalStore(file.subscribe, file.snapshot);
  useEffect(() => {
    if (!canWriteFiles()) return;
    void file.recall().catch(() => {});
    const stop = session.subscribe(() => file.follow());
    return () => {
      stop();
      file.close();
    };
  }, [file, session]);
  if (!canWriteFiles()) return null;
  return (
    <TipButton
      tip={tips[state]}
      maxW="200px"
      color={state === 'failed' ? 'bad' : undefined}
      onClick={() => void file.write(fileName(session.job.name, '.saddlebag.json'))}
    >
      {says[state](name)}
    </TipButton>
  );
}
