import { type Board, placeNamed } from '@saddlebag/core';

/** Whether a signal comes from a clock module or a timer: nobody presses these. */
export const runsByItself = (board: Board, signal: string): boolean =>
  placeNamed(board, 'give', signal)?.runsByItself === true;

/** Keys that the step itself uses. */
const reserved = new Set(['w']);

/** Keys for signals whose own characters are all taken, as they lie on the keyboard. */
const others = [...'1234567890qertyuiopasdfghjklzxcvbnm'];

/**
 * The key of each switch: the first letter of its signal when no other signal begins with it, or else
 * the last of its characters that is still free (`F0` to `F9` answer to their digits), or else any digit or letter that
 * is: as many switches as there are keys have one.
 */
export function switchKeys(signals: readonly string[]): ReadonlyMap<string, string> {
  const taken = new Set(reserved);
  const keys = new Map<string, string>();
  for (const signal of signals) {
    const characters = [...signal.toLowerCase()].filter((c) => /[a-z0-9]/.test(c));
    const alone = signals.filter((s) => s[0]?.toLowerCase() === characters[0]).length === 1;
    const key = [...(alone ? characters : characters.reverse()), ...others].find((c) => !taken.has(c));
    if (key === undefined) continue;
    taken.add(key);
    keys.set(signal, key.toUpperCase());
  }
  return keys;
}
