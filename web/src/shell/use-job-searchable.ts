import { typeOf } from '@saddlebag/core';
import { useCallback, useRef } from 'react';
import { useNavigate } from 'react-router';
import type { JobView } from '../base/job-context';
import { jobAddress, type Linked } from '../base/links';
import { type Searchable, useSearchable } from '../base/searchable';
import { remedy, says } from '../base/words';
import { findingLink } from '../kit/finding-link';
import { keep } from '../kit/follow';
import { tell } from '../kit/notices';
import { type StepId, stepIds, stepTitles } from './steps';

type Going = (step: StepId, at?: Readonly<Partial<Record<Linked, string>>>) => () => void;

/** What an open job has to be found: its steps, findings, signals, what is on its board, and links to what is shown. */
export function useJobSearchable(view: JobView, step: StepId): void {
  const navigate = useNavigate();
  const latest = useRef({ view, step });
  latest.current = { view, step };
  const source = useCallback((): readonly Searchable[] => {
    const now = latest.current;
    const go: Going = (to, at) => () => void navigate(jobAddress(now.view.id, to, at));
    return [...stepsOf(go), ...findingsOf(now.view, go), ...signalsOf(now.view), ...onBoard(now.view, go), linkTo(now)];
  }, [navigate]);
  useSearchable(source);
}

const stepsOf = (go: Going): Searchable[] =>
  stepIds.map((id, i) => ({
    kind: 'step',
    title: stepTitles[id],
    detail: 'step of this job',
    cap: `Alt ${i + 1}`,
    take: go(id),
  }));

const findingsOf = ({ findings }: JobView, go: Going): Searchable[] =>
  (findings ?? []).map((f) => ({
    kind: 'finding',
    title: says(f),
    detail: remedy(f),
    take: go('inspect', { finding: findingLink(f) }),
  }));

function signalsOf({ reading }: JobView): Searchable[] {
  const { inputs = [], outputs = [] } = reading?.design ?? {};
  return [...inputs, ...outputs].map(({ name, label = '' }) => ({
    kind: 'signal',
    title: name,
    detail: `follow it; ${label}`,
    take: () => keep(name),
  }));
}

function onBoard({ board: { board } }: JobView, go: Going): Searchable[] {
  const parts = Object.values(board.parts).map(
    (part): Searchable => ({
      kind: 'on the board',
      title: part.ref,
      detail: [part.part, typeOf(part)?.title ?? '', part.signal ?? '', part.at].filter(Boolean).join(', '),
      take: go('board', { show: part.ref }),
    }),
  );
  const jumpers = Object.values(board.jumpers).map(
    ({ id, from, to }): Searchable => ({
      kind: 'on the board',
      title: id,
      detail: `jumper from ${from} to ${to}`,
      take: go('board', { show: id }),
    }),
  );
  return [...parts, ...jumpers];
}

/** Copies the address of what is shown: it leads back there, in this browser. */
function linkTo({ view, step }: { readonly view: JobView; readonly step: StepId }): Searchable {
  const address = (): string => `${window.location.origin}${jobAddress(view.id, step, searchNow())}`;
  const copy = async (): Promise<void> => {
    const text = address();
    await navigator.clipboard.writeText(text).then(
      () => tell(`Copied: ${text}`),
      () => tell(`The link is ${text}`),
    );
  };
  return {
    kind: 'action',
    title: 'Copy a link',
    detail: `to ${stepTitles[step]} as it stands`,
    take: () => void copy(),
  };
}

const searchNow = (): Record<string, string> => Object.fromEntries(new URLSearchParams(window.location.search));
