import {
  type Completion,
  type CompletionContext,
  type CompletionResult,
  snippet,
  snippetCompletion,
} from '@codemirror/autocomplete';
import type { Diagnostic } from '@codemirror/lint';
import { EditorState, type Extension, RangeSetBuilder } from '@codemirror/state';
import { Decoration, type DecorationSet, EditorView, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import {
  chipLibrary,
  clauseWords,
  type Finding,
  findChip,
  fittingPhrases,
  fittingSpans,
  fittingWord,
  fittingWords,
  keywords,
  lex,
  MOST_HERTZ,
  ownPartsOf,
  ownPartType,
  type PartType,
  parseSheet,
  partEntries,
  statementWords,
  type Token,
} from '@saddlebag/core';
import type { Colours } from '../base/palette';
import { remedy, says } from '../base/words';
import { pointAt } from '../kit/follow';

/** Underlines that the editor is given at once. */
const MOST_UNDERLINED = 500;

/** Turns findings on the text into the editor's underlines; places that lie beyond the text are drawn in. */
export function diagnostics(findings: readonly Finding[], length: number): Diagnostic[] {
  return findings.slice(0, MOST_UNDERLINED).flatMap((f) =>
    f.places.flatMap((place): Diagnostic[] => {
      if (place.kind !== 'text') return [];
      const to = Math.min(Math.max(place.span.to, place.span.from + 1), length);
      const from = Math.max(0, Math.min(place.span.from, to - 1));
      const severity = f.severity === 'note' ? 'info' : f.severity;
      return from > to ? [] : [{ from, to, severity, message: `${says(f)} ${remedy(f)}` }];
    }),
  );
}

const keyword = Decoration.mark({ class: 'sb-keyword' });
const comment = Decoration.mark({ class: 'sb-comment' });
const label = Decoration.mark({ class: 'sb-label' });

function nameMark(name: string, colours: Colours, followed: string | null): Decoration {
  const colour = colours.of(name);
  return Decoration.mark({
    class: followed === name ? 'sb-name sb-followed' : 'sb-name',
    attributes: { 'data-signal': name, ...(colour !== null && { style: `--sb-signal: ${colour}` }) },
  });
}

function decorate(view: EditorView, colours: Colours, followed: string | null): DecorationSet {
  const marks = new RangeSetBuilder<Decoration>();
  for (const { from: start, to: end } of view.visibleRanges) {
    const tokens = lex(view.state.sliceDoc(start, end));
    const fitted = fittingSpans(tokens);
    const isWord = ({ text, from }: Token): boolean =>
      keywords.has(text) || fitted.some((span) => span.from <= from && from < span.to);
    for (const token of tokens) {
      const [from, to] = [start + token.from, start + token.to];
      if (token.kind === 'comment') marks.add(from, to, comment);
      else if (token.kind === 'string' || token.kind === 'open-string') marks.add(from, to, label);
      else if (token.kind === 'name')
        marks.add(from, to, isWord(token) ? keyword : nameMark(token.text, colours, followed));
    }
  }
  return marks.finish();
}

/** Colours the text as the parser's own tokens, each name underlined in its signal's colour; pointing at a name lights it. */
export function sheetMarks(colours: Colours, followed: string | null): Extension {
  return [
    ViewPlugin.fromClass(
      class {
        decorations: DecorationSet;
        constructor(view: EditorView) {
          this.decorations = decorate(view, colours, followed);
        }
        update(u: ViewUpdate): void {
          if (u.docChanged || u.viewportChanged) this.decorations = decorate(u.view, colours, followed);
        }
      },
      { decorations: (plugin) => plugin.decorations },
    ),
    EditorView.domEventHandlers({
      mouseover: (e) => {
        const at = (e.target as HTMLElement).closest?.('[data-signal]');
        pointAt(at?.getAttribute('data-signal') ?? null);
      },
      mouseleave: () => pointAt(null),
    }),
  ];
}

/** A part of one's own, to be filled in. */
const ownPart = snippetCompletion(
  // biome-ignore lint/suspicious/noTemplateCurlyInString: the fields of a snippet
  'part ${NAME} "${what it is}"\npins ${A} ${B} GND ${Y} NC VCC\n${Y} = ${A} & ${B}\nend\n',
  { label: 'part', detail: 'of your own', type: 'keyword' },
);

/** Offers parts behind `use`, each with its pins to be joined. */
function completeParts(context: CompletionContext): CompletionResult | null {
  const written = context.matchBefore(/^\s*use\s+\w*/);
  if (!written) return null;
  const from = written.to - (/\w*$/.exec(written.text)?.[0].length ?? 0);
  const own = [...ownPartsOf(parseSheet(context.state.doc.toString()).sheet, chipLibrary).parts.values()];
  const offer = (label: string, detail: string, type: () => PartType | null): Completion => ({
    label,
    detail,
    apply: (view, completion, start, end) => {
      const part = type();
      if (part) snippet(afterUse(part))(view, completion, start, end);
    },
  });
  const options = [
    ...own.map((p) => offer(p.name, p.title, () => ownPartType(p.text))),
    ...partEntries.filter((e) => e.group !== 'on the bench').map((e) => offer(e.id, e.title, () => findChip(e.id))),
  ];
  return { from, options, validFor: /^\w*$/ };
}

/** The rest of a `use` line, a field for the name and for what each pin is joined to. */
export function afterUse({ id, pins, units }: PartType): string {
  const field = (text: string): string => `\${${text}}`;
  const used = new Set(units.flatMap((u) => [...u.inputs, ...u.outputs]));
  const joins = pins.filter((p) => used.has(p.id)).map(({ name }) => `${name} = ${field(name)}`);
  return `${id} as ${field('C1')} (${joins.join(', ')})`;
}

/** What a signal comes from or is shown on; behind what runs by itself stands a rate, to be written over. */
function fittingOption(label: string): Completion {
  const option = { label, type: 'keyword' };
  const isRated = Object.keys(MOST_HERTZ).some((word) => label.endsWith(word));
  return isRated ? snippetCompletion(`${label} \${10 Hz}`, option) : option;
}

/** Offers what inputs come `from`, and what outputs are shown `on`, behind that word. */
function completeFittings(context: CompletionContext): CompletionResult | null {
  const written = context.matchBefore(/^\s*(?:in|out)\s.*\s(?:from|on)\s+\w*/);
  if (!written) return null;
  const kind = /^\s*in\s/.test(written.text) ? 'in' : 'out';
  const [, word, begun = ''] = /(\w+)\s+(\w*)$/.exec(written.text) ?? [];
  if (word !== fittingWord[kind]) return null;
  return { from: written.to - begun.length, options: fittingWords[kind].map(fittingOption), validFor: /^\w*$/ };
}

/** Completes the names in the sheet, the words of the language, parts behind `use`, and what signals come from or are shown on. */
export function completeNames(context: CompletionContext): CompletionResult | null {
  const special = completeParts(context) ?? completeFittings(context);
  if (special) return special;
  const word = context.matchBefore(/\w+/);
  if (!word && !context.explicit) return null;
  const at = word?.from ?? context.pos;
  const names = new Set<string>();
  const words = new Set([...keywords, ...statementWords, ...clauseWords.flatMap((w) => w.split(' '))]);
  const tokens = lex(context.state.doc.toString());
  const fitted = fittingSpans(tokens);
  const isFitting = (from: number): boolean => fitted.some((span) => span.from <= from && from < span.to);
  for (const token of tokens)
    if (
      token.kind === 'name' &&
      !words.has(token.text) &&
      !isFitting(token.from) &&
      !(token.from <= at && context.pos <= token.to)
    )
      names.add(token.text);
  const options: Completion[] = [...names].map((name) => ({ label: name, type: 'variable' }));
  for (const name of [...keywords, ...statementWords, ...clauseWords])
    options.push(name === 'part' ? ownPart : { label: name, type: 'keyword' });
  options.push(...fittingPhrases.map(fittingOption));
  return { from: at, options, validFor: /^\w*$/ };
}

/** What stands on the panel for finding and replacing. */
export const findWords: Extension = EditorState.phrases.of({
  next: 'Next',
  previous: 'Previous',
  all: 'Choose all',
  'match case': 'Match case',
  'by word': 'Whole words',
  replace: 'Replace',
  'replace all': 'Replace all',
  close: 'Close',
});

/** The editor's look, from the theme's colours. */
export const sheetTheme: Extension = EditorView.theme({
  '&': { height: '100%', fontSize: '13.5px', backgroundColor: 'transparent', color: 'var(--sb-colors-ink)' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: 'var(--sb-fonts-mono)', lineHeight: '1.62' },
  '.cm-gutters': { backgroundColor: 'transparent', border: 'none', color: 'var(--sb-colors-soft)' },
  '.cm-lineNumbers .cm-gutterElement': { padding: '0 10px 0 12px' },
  '.cm-activeLine, .cm-activeLineGutter': {
    backgroundColor: 'color-mix(in srgb, var(--sb-colors-wash) 55%, transparent)',
  },
  '.cm-cursor': { borderLeftColor: 'var(--sb-colors-ink)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': {
    backgroundColor: 'color-mix(in srgb, var(--sb-colors-brass) 35%, transparent) !important',
  },
  '.sb-keyword': { fontWeight: '600' },
  '.sb-comment': { color: 'var(--sb-colors-soft)', fontStyle: 'normal' },
  '.sb-label': { color: 'var(--sb-colors-warn)' },
  '.sb-name': { fontWeight: '600', boxShadow: 'inset 0 -2px 0 var(--sb-signal, transparent)' },
  '.sb-followed': {
    backgroundColor: 'color-mix(in srgb, var(--sb-signal, #999) 35%, transparent)',
    borderRadius: '2px',
  },
  '.cm-tooltip': {
    backgroundColor: 'var(--sb-colors-card)',
    color: 'var(--sb-colors-ink)',
    border: '1px solid var(--sb-colors-line)',
    borderRadius: '6px',
    maxWidth: '420px',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--sb-colors-wash)',
    color: 'var(--sb-colors-ink)',
  },
  '.cm-completionIcon': { display: 'none' },
  '.cm-panels': { backgroundColor: 'var(--sb-colors-wash)', color: 'var(--sb-colors-ink)' },
  '.cm-panels-top': { borderBottom: '1px solid var(--sb-colors-line)' },
  '.cm-panel.cm-search': { padding: '6px 30px 6px 12px', fontFamily: 'var(--sb-fonts-body)' },
  '.cm-panel.cm-search label, .cm-panel.cm-search .cm-button, .cm-panel.cm-search .cm-textfield': {
    fontSize: '12.5px',
  },
  '.cm-panel.cm-search .cm-textfield, .cm-panel.cm-search .cm-button': {
    backgroundColor: 'var(--sb-colors-card)',
    backgroundImage: 'none',
    color: 'var(--sb-colors-ink)',
    border: '1px solid var(--sb-colors-line)',
    borderRadius: '5px',
    padding: '2px 7px',
  },
  '.cm-panel.cm-search .cm-textfield::placeholder': { color: 'var(--sb-colors-soft)', opacity: 1 },
  // Sheets have no use for patterns, and the panel would not say what is wrong with one.
  '.cm-panel.cm-search label:has([name=re])': { display: 'none' },
  '.cm-panel.cm-search [name=close]': { color: 'var(--sb-colors-ink)', fontSize: '16px', top: '4px', right: '8px' },
  '.cm-searchMatch': { backgroundColor: 'color-mix(in srgb, var(--sb-colors-brass) 30%, transparent)' },
  '.cm-searchMatch, .cm-searchMatch *': { color: 'var(--sb-colors-ink)' },
  '.cm-searchMatch-selected': { outline: '1.5px solid var(--sb-colors-ink)', borderRadius: '2px' },
  '.cm-diagnostic-error': { borderLeftColor: 'var(--sb-colors-bad)' },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--sb-colors-bad) 1.5px',
    textUnderlineOffset: '4px',
  },
  '.cm-lintRange-warning': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--sb-colors-brass) 1.5px',
    textUnderlineOffset: '4px',
  },
  '.cm-lintRange-info': { backgroundImage: 'none' },
});
