import type { Shortcut } from '../base/shortcuts';
import type { HandEvent } from './hand';

/** What the keys of the board need. Keys for the hands answer false when the hands had no use for them. */
interface BoardKeys {
  readonly take: (event: HandEvent) => boolean;
  /** What Ctrl and a letter do. */
  readonly command: (letter: string) => boolean;
  /** Whether the focus is on the board, or nowhere: elsewhere Enter and the arrows belong to what has it. */
  readonly isOnBoard: (target: EventTarget | null) => boolean;
  readonly follow: () => void;
  readonly type: () => void;
  /** Lays the next thing while the person is guided and holds nothing; null otherwise. */
  readonly layNext: (() => void) | null;
}

const arrows = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const;

/** The keys of the board, as the foot line and the list of keys show them. */
export function boardShortcuts({ take, command, isOnBoard, follow, type, layNext }: BoardKeys): Shortcut[] {
  const hands = (e: KeyboardEvent): boolean => take({ kind: 'key', key: e.key, shift: e.shiftKey });
  const onBoard = (e: KeyboardEvent): boolean => isOnBoard(e.target) && hands(e);
  const letter = (e: KeyboardEvent): boolean => isOnBoard(e.target) && command(e.key.toLowerCase());
  return [
    { cap: 'arrows', does: 'cursor, or what is chosen', keys: arrows, take: onBoard, isFirst: true },
    { cap: 'Shift arrows', does: 'from pin to pin', keys: arrows.map((a) => `Shift+${a}`), take: onBoard },
    {
      cap: 'Enter',
      does: layNext ? 'lay what is shown' : 'jumper',
      keys: ['Enter'],
      isFirst: true,
      take: (e) => {
        if (!layNext) return onBoard(e);
        if (!isOnBoard(e.target)) return false;
        layNext();
        return true;
      },
    },
    { cap: 'R', does: 'rotate', keys: ['r'], take: hands, isFirst: true },
    { cap: 'Del', does: 'pull out', keys: ['Delete', 'Backspace'], take: hands, isFirst: true },
    { cap: 'N', does: 'next', keys: ['n'], take: hands, isFirst: true },
    { cap: 'Shift N', does: 'the one before', keys: ['Shift+n'], take: hands },
    { cap: 'F', does: 'follow the signal', keys: ['f'], take: follow },
    { cap: 'Esc', does: 'let go', keys: ['Escape'], take: hands },
    { cap: 'Ctrl A', does: 'choose all', keys: ['$mod+a'], take: letter },
    { cap: 'Ctrl C', does: 'copy', keys: ['$mod+c'], take: letter },
    { cap: 'Ctrl V', does: 'paste', keys: ['$mod+v'], take: letter },
    { cap: '/', does: 'type a line', keys: ['/'], take: type, isFirst: true },
  ];
}
