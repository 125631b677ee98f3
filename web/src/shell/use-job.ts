import { type Finding, finding } from '@saddlebag/core';
import { liveQuery } from 'dexie';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { tell } from '../kit/notices';
import { keptHistory, recoverRescued, world } from '../store/environment';
// What saves a job is there before one is opened: no save waits for the server.
import '../store/kept-job';
import { JobSession } from '../store/session';
import { shelf } from '../store/shelf';

/** A job that is being opened, open, or could not be; then its text is still there to take out. */
export type Opening =
  | { readonly state: 'opening' }
  | { readonly state: 'open'; readonly session: JobSession }
  | { readonly state: 'refused'; readonly findings: readonly Finding[]; readonly text: string | null };

/** Opens the job with an id, keeps it saved, and follows changes from other tabs. */
export function useOpenJob(id: string): Opening {
  const [opening, setOpening] = useState<Opening>({ state: 'opening' });
  const navigate = useNavigate();
  useEffect(() => {
    let gone = false;
    let close = (): void => {};
    setOpening({ state: 'opening' });
    const start = async (): Promise<void> => {
      const { readJobFile } = await import('@saddlebag/core/job-reader');
      await recoverRescued(id);
      const row = await shelf.get(id);
      if (gone) return;
      if (row?.deletedAt !== 0) {
        const missing = finding('file/not-found', [], { path: 'This job', detail: 'it is not on the shelf' });
        setOpening({ state: 'refused', findings: [missing], text: null });
        return;
      }
      const text = String(row.text ?? '');
      const read = readJobFile(text);
      if (!read.ok) {
        setOpening({ state: 'refused', findings: read.findings, text });
        return;
      }
      const history = await keptHistory(id, row.rev, read.job);
      if (gone) return;
      const session = new JobSession({ id, history, rev: row.rev }, world, (copy) => {
        tell('Another tab changed this job too. Your work goes on in a copy.');
        void navigate(`/job/${copy}/${location.pathname.split('/')[3] ?? 'design'}`, { replace: true });
      });
      close = keepSaved(session, id);
      setOpening({ state: 'open', session });
    };
    start().catch((e: unknown) => {
      const detail = e instanceof Error ? `${e.name}: ${e.message}`.slice(0, 200) : String(e);
      if (!gone) setOpening({ state: 'refused', findings: [finding('store/failed', [], { detail })], text: null });
    });
    return () => {
      gone = true;
      close();
    };
  }, [id, navigate]);
  return opening;
}

/** Saves when the tab is hidden or leaves, and takes over what other tabs save. Returns how to end that. */
function keepSaved(session: JobSession, id: string): () => void {
  const onHide = (): void => session.rescue();
  const onVisibility = (): void => {
    if (document.visibilityState === 'hidden') session.rescue();
  };
  window.addEventListener('pagehide', onHide);
  document.addEventListener('visibilitychange', onVisibility);
  const others = liveQuery(() => shelf.get(id)).subscribe((row) => {
    if (!row || !session.wants(row.rev)) return;
    void import('@saddlebag/core/job-reader').then(({ readJobFile }) => {
      const read = readJobFile(row.text);
      if (read.ok && session.adopt(read.job, row.rev)) tell('Changed in another tab; shown here as it is now.');
    });
  });
  return () => {
    window.removeEventListener('pagehide', onHide);
    document.removeEventListener('visibilitychange', onVisibility);
    others.unsubscribe();
    void session.flush();
  };
}
