import { autocompletion, closeBrackets, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap } from '@codemirror/commands';
import { setDiagnostics } from '@codemirror/lint';
import { Compartment, EditorState } from '@codemirror/state';
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view';
import type { Finding } from '@saddlebag/core';
import { useEffect, useRef } from 'react';
import { useFollowed } from '../kit/follow';
import type { Colours } from '../kit/palette';
import { completeNames, diagnostics, sheetMarks, sheetTheme } from './sheet-language';

interface SheetEditorProps {
  readonly text: string;
  readonly findings: readonly Finding[];
  readonly colours: Colours;
  readonly onChange: (text: string) => void;
  readonly onReady: (goTo: (offset: number) => void) => void;
}

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;

/** The sheet as text. Undo is the job's, so that every step shares it; the text follows when the job changes elsewhere. */
export default function SheetEditor({ text, findings, colours, onChange, onReady }: SheetEditorProps) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const marks = useRef(new Compartment());
  const change = useRef(onChange);
  change.current = onChange;
  const ready = useRef(onReady);
  const start = useRef(text);
  const followed = useFollowed();

  useEffect(() => {
    const editor = new EditorView({
      parent: host.current as HTMLElement,
      state: EditorState.create({
        doc: start.current,
        extensions: [
          lineNumbers(),
          highlightActiveLine(),
          EditorView.lineWrapping,
          drawSelection(),
          closeBrackets(),
          autocompletion({ override: [completeNames], icons: false }),
          keymap.of([...completionKeymap, ...defaultKeymap]),
          EditorView.contentAttributes.of({ 'aria-label': 'sheet', spellcheck: 'false' }),
          EditorView.updateListener.of((u) => {
            if (u.docChanged && !u.transactions.some((t) => t.isUserEvent('outside')))
              change.current(u.state.doc.toString());
          }),
          marks.current.of([]),
          sheetTheme,
          ...(nonce ? [EditorView.cspNonce.of(nonce)] : []),
        ],
      }),
    });
    view.current = editor;
    ready.current((offset) => {
      const at = Math.min(offset, editor.state.doc.length);
      editor.dispatch({ selection: { anchor: at }, scrollIntoView: true });
      editor.focus();
    });
    return () => editor.destroy();
  }, []);

  useEffect(() => {
    const editor = view.current;
    if (!editor || editor.state.doc.toString() === text) return;
    editor.dispatch({ changes: smallestChange(editor.state.doc.toString(), text), userEvent: 'outside' });
  }, [text]);

  useEffect(() => {
    view.current?.dispatch({ effects: marks.current.reconfigure(sheetMarks(colours, followed)) });
  }, [colours, followed]);

  useEffect(() => {
    const editor = view.current;
    if (editor) editor.dispatch(setDiagnostics(editor.state, diagnostics(findings, editor.state.doc.length)));
  }, [findings]);

  return <div ref={host} style={{ flex: 1, minHeight: 0, overflow: 'hidden' }} />;
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
