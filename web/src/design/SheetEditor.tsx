import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  completionKeymap,
  completionStatus,
} from '@codemirror/autocomplete';
import { defaultKeymap } from '@codemirror/commands';
import { setDiagnostics } from '@codemirror/lint';
import { closeSearchPanel, findNext, findPrevious, openSearchPanel, search } from '@codemirror/search';
import { Compartment, EditorState, type Extension } from '@codemirror/state';
import {
  drawSelection,
  EditorView,
  type EditorViewConfig,
  highlightActiveLine,
  type KeyBinding,
  keymap,
  lineNumbers,
} from '@codemirror/view';
import { definitionOf, type Finding } from '@saddlebag/core';
import { type RefObject, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { useSession } from '../base/job-context';
import type { Colours } from '../base/palette';
import { useShortcuts } from '../base/shortcuts';
import { useFollowed } from '../kit/follow';
import { completeNames, diagnostics, findWords, sheetMarks, sheetTheme } from './sheet-language';

interface SheetEditorProps {
  readonly findings: readonly Finding[];
  readonly colours: Colours;
  readonly onChange: (text: string) => void;
  readonly onReady: (goTo: (offset: number) => void) => void;
  /** F2 on a name. */
  readonly onRename: (name: string) => void;
}

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;

/** Keys that the editor takes by itself. */
const sheetKeys = [
  { cap: 'Tab', does: 'complete a name', isFirst: true },
  { cap: 'F2', does: 'rename', isFirst: true },
  { cap: 'F12', does: 'where it is made', isFirst: true },
  { cap: 'Ctrl Space', does: 'what can stand here' },
  { cap: 'Ctrl F', does: 'find and replace' },
] as const;

/** The editor in its place, and the marks of signals in it. */
interface Placed {
  readonly host: RefObject<HTMLDivElement | null>;
  readonly view: RefObject<EditorView | null>;
  readonly marks: Compartment;
}

/** Puts the editor in its place. It is found as it was left by those who turn away and back: its text, the cursor, the lines in sight. */
function useEditor(text: string, props: SheetEditorProps): Placed {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const [marks] = useState(() => new Compartment());
  const latest = useRef({ text, ...props });
  latest.current = { text, ...props };
  const left = useRef<Pick<EditorViewConfig, 'state' | 'scrollTo'> | null>(null);
  useEffect(() => {
    const begun = (): EditorState =>
      EditorState.create({
        doc: latest.current.text,
        extensions: [
          editing({ onChange: (t) => latest.current.onChange(t), onRename: (name) => latest.current.onRename(name) }),
          marks.of([]),
          sheetTheme,
          ...(nonce ? [EditorView.cspNonce.of(nonce)] : []),
        ],
      });
    const editor = new EditorView({
      parent: host.current as HTMLElement,
      ...(left.current ?? { state: begun() }),
    });
    view.current = editor;
    // An empty sheet waits to be written.
    if (latest.current.text === '') editor.focus();
    latest.current.onReady((offset) => {
      const at = Math.min(offset, editor.state.doc.length);
      editor.dispatch({ selection: { anchor: at }, scrollIntoView: true });
      editor.focus();
    });
    return () => {
      left.current = { state: editor.state, scrollTo: editor.scrollSnapshot() };
      editor.destroy();
    };
  }, [marks]);
  return { host, view, marks };
}

/** The sheet as text. Undo is the job's, so that every step shares it; the text follows when the job changes elsewhere. */
export default function SheetEditor(props: SheetEditorProps) {
  const { findings, colours } = props;
  useShortcuts('In the sheet', sheetKeys);
  const session = useSession();
  // Apart from the job that is shown, which follows what is typed after a pause.
  const text = useSyncExternalStore(session.subscribe, () => session.job.sheet);
  const { host, view, marks } = useEditor(text, props);
  const followed = useFollowed();

  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() === text) return;
    editor.dispatch({ changes: smallestChange(editor.state.doc.toString(), text), userEvent: 'outside' });
  }, [view, text]);

  useEffect(() => {
    view.current?.dispatch({ effects: marks.reconfigure(sheetMarks(colours, followed)) });
  }, [view, marks, colours, followed]);

  useEffect(() => {
    const editor = view.current;
    if (editor) editor.dispatch(setDiagnostics(editor.state, diagnostics(findings, editor.state.doc.length)));
  }, [view, findings]);

  return <div ref={host} style={{ flex: 1, minHeight: 0, overflow: 'hidden' }} />;
}

const scope = 'editor search-panel';
/** Keys that find, in the sheet and on the panel for it. */
const findKeys: readonly KeyBinding[] = [
  { key: 'Mod-f', run: openSearchPanel, scope },
  { key: 'F3', run: findNext, shift: findPrevious, scope, preventDefault: true },
  { key: 'Escape', run: closeSearchPanel, scope },
];

/** Lines, keys, completion and where a press with Ctrl leads. */
function editing({ onChange, onRename }: Pick<SheetEditorProps, 'onChange' | 'onRename'>): Extension {
  return [
    lineNumbers(),
    highlightActiveLine(),
    EditorView.lineWrapping,
    drawSelection(),
    closeBrackets(),
    autocompletion({ override: [completeNames], icons: false }),
    search({ top: true, literal: true }),
    findWords,
    keymap.of([
      { key: 'F2', run: (v) => withName(v, (name) => onRename(name)) },
      { key: 'F12', run: (v) => withName(v, (name) => jumpTo(v, name)) },
      // Where nothing is offered, Tab leads out of the sheet; what is offered just now is not taken yet.
      { key: 'Tab', run: (v) => acceptCompletion(v) || completionStatus(v.state) === 'active' },
      ...completionKeymap,
      ...findKeys,
      ...defaultKeymap,
    ]),
    EditorView.domEventHandlers({
      mousedown: (e, v) => {
        if (!e.ctrlKey && !e.metaKey) return false;
        const at = v.posAtCoords({ x: e.clientX, y: e.clientY });
        const name = at === null ? null : nameAt(v.state.doc.toString(), at);
        if (name !== null) jumpTo(v, name);
        return name !== null;
      },
    }),
    EditorView.contentAttributes.of({ 'aria-label': 'sheet', spellcheck: 'false', tabindex: '0' }),
    EditorView.updateListener.of((u) => {
      if (u.docChanged && !u.transactions.some((t) => t.isUserEvent('outside'))) onChange(u.state.doc.toString());
    }),
  ];
}

/** The name that a place in a text touches, a pin of a used part whole; null when there is none. */
export function nameAt(text: string, at: number): string | null {
  const before = /[A-Za-z0-9_.]*$/.exec(text.slice(Math.max(0, at - 80), at))?.[0] ?? '';
  const behind = /^[A-Za-z0-9_.]*/.exec(text.slice(at, at + 80))?.[0] ?? '';
  const name = before + behind;
  return /[A-Za-z_]/.test(name) ? name : null;
}

function withName(view: EditorView, act: (name: string) => void): boolean {
  const name = nameAt(view.state.doc.toString(), view.state.selection.main.head);
  if (name === null) return false;
  act(name);
  return true;
}

/** Puts the cursor where a signal is made. */
function jumpTo(view: EditorView, name: string): void {
  const span = definitionOf(view.state.doc.toString(), name);
  if (span) view.dispatch({ selection: { anchor: span.from, head: span.to }, scrollIntoView: true });
}

/** The change from one text to another between their common beginning and end, so that the cursor stays. */
export function smallestChange(from: string, to: string): { from: number; to: number; insert: string } {
  let start = 0;
  while (start < from.length && start < to.length && from[start] === to[start]) start++;
  let end = 0;
  while (end < Math.min(from.length, to.length) - start && from[from.length - 1 - end] === to[to.length - 1 - end])
    end++;
  return { from: start, to: from.length - end, insert: to.slice(start, to.length - end) };
}
