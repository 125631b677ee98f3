import { useLayoutEffect, useRef, useSyncExternalStore } from 'react';
import { tinykeys } from 'tinykeys';

/**
 * A key that does something here. `keys` are bindings as tinykeys writes them (`$mod+z`, `Shift+ArrowUp`); without any, the element that has
 * the focus takes the key by itself and it is only listed. `take` answers false when the key was not meant for it.
 */
export interface Shortcut {
  /** As it is printed on the keyboard, for the foot line and the list of keys. */
  readonly cap: string;
  readonly does: string;
  readonly keys?: readonly string[];
  readonly take?: (e: KeyboardEvent) => unknown;
  /** Whether it works while something is being written, as undo does. */
  readonly whileWriting?: boolean;
  /** Whether the foot line shows it: what is used most. */
  readonly isFirst?: boolean;
}

/** Keys of one place on the screen, as the list of keys heads them. */
export interface ShortcutGroup {
  readonly place: string;
  readonly shortcuts: readonly Shortcut[];
}

/** Places that several screens share, in the order in which they are listed, after the screen's own. */
export const ON_THE_MAT = 'On the mat';
/** Keys that work on every screen of a job. */
export const EVERYWHERE = 'Everywhere';

/** The keys that inputs which are not written in keep for themselves, by type. */
const keptKeys: Readonly<Record<string, RegExp>> = {
  range: /^(Arrow|Page|Home|End)/,
  checkbox: /^ $/,
  radio: /^( |Arrow)/,
};

/** Whether a field is written in: it has a text, and an undo, of its own. */
export function isWriting(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !(target.type in keptKeys);
  return target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName);
}

/** Whether a key moves the slider or box that has the focus. */
const isKept = ({ target, key }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement && keptKeys[target.type]?.test(key) === true;

/**
 * Binds keys for as long as a component is there, and lists them: what the list of keys and the foot line show is what is
 * bound. A key that one place took is not offered to another.
 */
export function useShortcuts(place: string, shortcuts: readonly Shortcut[]): void {
  const latest = useRef(shortcuts);
  latest.current = shortcuts;
  const listed = shortcuts.map((s) => [s.cap, s.does, s.isFirst, ...(s.keys ?? [])].join()).join('\n');
  // biome-ignore lint/correctness/useExhaustiveDependencies: bound anew when another key is, not when what it does is a new function
  useLayoutEffect(() => {
    const group: ShortcutGroup = { place, shortcuts: latest.current };
    show([...groups, group]);
    const unbind = tinykeys(window, bindings(latest));
    return () => {
      unbind();
      show(groups.filter((g) => g !== group));
    };
  }, [place, listed]);
}

/** What tinykeys is given: each binding asks the shortcut as it is now. */
function bindings(latest: { readonly current: readonly Shortcut[] }): Record<string, (e: KeyboardEvent) => void> {
  return Object.fromEntries(
    latest.current.flatMap(({ keys = [] }, i) =>
      keys.map((key) => [
        key,
        (e: KeyboardEvent): void => {
          const now = latest.current[i];
          if (!now?.take || e.defaultPrevented || isKept(e)) return;
          if (isWriting(e.target) && !now.whileWriting) return;
          if (now.take(e) !== false) e.preventDefault();
        },
      ]),
    ),
  );
}

let groups: readonly ShortcutGroup[] = [];
const listeners = new Set<() => void>();

function show(next: readonly ShortcutGroup[]): void {
  groups = next;
  for (const listener of listeners) listener();
}

/** The keys that work now, the innermost place first. */
export function useShownShortcuts(): readonly ShortcutGroup[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => groups,
  );
}
