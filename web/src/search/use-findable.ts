import { searchParts } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { type Searchable, searchables } from '../base/searchable';
import { useShownShortcuts } from '../base/shortcuts';
import { shelf } from '../store/shelf';
import { helpLines } from './help';
import { pressKey } from './press-key';
import { pressable } from './pressable';

/** The most parts that some words are asked for. */
const MOST_PARTS = 8;

/** Everything that a search over the page finds: what the screen offers, its keys, parts by what they do, jobs of the shelf, and help. */
export function useFindable(words: string): readonly Searchable[] {
  const navigate = useNavigate();
  const jobs = useLiveQuery(() => shelf.list());
  const groups = useShownShortcuts();
  // What the screen has stays as it was when the search began: nothing changes under it.
  const [offered] = useState(() => [...searchables(), ...pressable()]);
  const [actions] = useState(() =>
    groups.flatMap(({ place, shortcuts }) =>
      shortcuts.flatMap(({ cap, does, keys: [key] = [] }): Searchable[] =>
        key !== undefined && cap !== 'Ctrl K' && !isOfKeys(cap)
          ? [{ kind: 'action', title: capital(does), detail: place, cap, take: () => pressKey(key) }]
          : [],
      ),
    ),
  );
  return useMemo(() => {
    const go = (to: string) => () => void navigate(to);
    const parts = words.trim() === '' ? [] : searchParts(words).slice(0, MOST_PARTS);
    return [
      ...offered,
      ...actions,
      // They are found by what they do, whatever words say it.
      ...parts.map(
        ({ id, number, title }): Searchable => ({
          kind: 'part',
          title: number,
          detail: title,
          rank: 1,
          take: go(`/parts/${id}`),
        }),
      ),
      ...(jobs ?? []).map(
        ({ id, name, summary }): Searchable => ({
          kind: 'job',
          title: name,
          detail: `${summary.inputs.join(' ')} → ${summary.outputs.join(' ')}`,
          take: go(`/job/${id}/design`),
        }),
      ),
      ...helpLines.map(
        ({ asks, answer }): Searchable => ({ kind: 'help', title: asks, detail: answer, take: () => {} }),
      ),
    ];
  }, [offered, actions, jobs, words, navigate]);
}

/** Keys that go on from where the hands are, and mean nothing from a list. */
const isOfKeys = (cap: string): boolean => /^(arrows|Shift arrows|↑ ↓|Enter|Tab|Esc|Alt 1)/.test(cap);

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
