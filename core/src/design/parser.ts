import { atText, type Finding, finding, type Span } from '../finding';
import { shown, spanOf } from './cursor';
import { ExpressionParser } from './expression-parser';
import {
  type Fitting,
  fittingWord,
  fittingWords,
  lampColours,
  MOST_HERTZ,
  PULSE_S,
  printHertz,
  type RatedKind,
  rateUnits,
  timeUnits,
  type WrittenFitting,
} from './fitting';
import type { Clauses, Force, Line, PinJoin, Sheet, Signal, Statement, Storage } from './sheet';

/** The most characters of a sheet that are read. */
export const MAX_SHEET_LENGTH = 1_000_000;

/**
 * Reads the text of a sheet. Lines that are right are kept whatever is wrong with the others; each
 * line that is wrong gives one finding with its span in the text. Grammar: docs/sheet.md.
 */
export function parseSheet(text: string): { sheet: Sheet; findings: Finding[] } {
  if (text.length > MAX_SHEET_LENGTH) {
    const place = atText({ from: MAX_SHEET_LENGTH, to: text.length });
    const long = finding('sheet/too-long', [place], { length: text.length, limit: MAX_SHEET_LENGTH });
    return { sheet: { lines: [] }, findings: [long] };
  }
  return new SheetParser(text).sheet();
}

type FittingWord = (typeof fittingWords)['in' | 'out'][number];

/** The same of a clause being built. */
type Building = { -readonly [K in keyof Clauses]: Clauses[K] } & { forces?: Force[] };

class SheetParser extends ExpressionParser {
  sheet(): { sheet: Sheet; findings: Finding[] } {
    const lines: Line[] = [this.line()];
    while (this.takeIf('newline')) lines.push(this.line());
    return { sheet: { lines }, findings: this.findings };
  }

  private line(): Line {
    this.depth = 0;
    const statement = this.recovering(() => this.statement());
    const comment = this.takeIf('comment')?.text.trimEnd();
    return { ...(statement && { statement }), ...(comment !== undefined && { comment }) };
  }

  private statement(): Statement | undefined {
    const first = this.peek;
    if (this.atLineEnd) return undefined;
    if (first.kind === 'const' || first.kind === 'number' || first.kind === '-') return this.row(first);
    if (first.kind === 'name' && (first.text === 'in' || first.text === 'out')) {
      this.take();
      return this.declaration(first.text);
    }
    if (first.kind !== 'name') {
      this.refuseStray(first);
      throw this.error('sheet/not-a-statement', first, { found: `“${first.text}”` });
    }
    return this.worded(first.text) ?? this.equation();
  }

  /**
   * Statements that begin with a word of their own. The word is one only where an equation cannot be
   * meant: what follows is neither `=` nor the range of a bus.
   */
  private worded(word: string): Statement | undefined {
    const next = this.ahead(1);
    if (next.kind === '=' || next.kind === '[') return undefined;
    const start = this.peek;
    if (word === 'end' && next.kind !== 'name') {
      this.take();
      return { kind: 'end', at: spanOf(start) };
    }
    if (word === 'others' && next.kind === ':') return this.row(start);
    if (word === 'never' && (next.kind === 'name' || next.kind === 'op' || next.kind === '(')) {
      this.take();
      return { kind: 'never', expr: this.infix(0) };
    }
    if (word === 'holds' && ['name', 'number', 'const'].includes(next.kind)) return this.holds();
    if (next.kind !== 'name' && next.kind !== 'number') return undefined;
    if (word === 'table') return this.table();
    if (word === 'block') {
      this.take();
      return { kind: 'block', name: this.name('a name', 'block adder') };
    }
    if (word === 'part') return this.part();
    if (word === 'pins' || (word === 'wide' && next.text === 'pins')) return this.pins();
    return word === 'use' ? this.use() : undefined;
  }

  private declaration(kind: 'in' | 'out'): Statement {
    const signals: Signal[] = [];
    let fitted: WrittenFitting | null = null;
    do {
      signals.push(this.labelled('a letter or word, such as K'));
      this.takeIf(',');
      fitted = this.fitted(kind);
    } while (!fitted && !this.atLineEnd);
    if (!this.atLineEnd) throw this.error('sheet/behind-fitting', this.peek, { kind });
    return { kind, signals, ...(fitted && { fitted }) };
  }

  /** What the signals of a line come from or are shown on. `from` and `on` are names like others where the sheet uses them as such. */
  private fitted(kind: 'in' | 'out'): WrittenFitting | null {
    const word = fittingWord[kind];
    if (this.peek.kind !== 'name' || this.peek.text !== word || this.isOwnName(word)) return null;
    const { from } = this.take();
    const what = this.peek;
    const known: readonly string[] = fittingWords[kind];
    if (what.kind !== 'name' || !known.includes(what.text))
      throw this.error('sheet/unknown-fitting', what, { word, found: shown(what), known: known.join(', ') });
    this.take();
    const fitting = this.fitting(what.text as FittingWord);
    return { fitting, at: { from, to: this.ahead(-1).to } };
  }

  private fitting(kind: FittingWord): Fitting {
    if (kind === 'display') return { kind, low: this.takeIf('name', 'low') !== undefined };
    if (kind === 'clock' || kind === 'timer') return { kind, hertz: this.hertz(kind) };
    if (kind !== 'lamp') return { kind };
    const colour = this.peek;
    const found = lampColours.find((c) => c === colour.text);
    if (!found)
      throw this.error('sheet/unknown-colour', colour, { found: shown(colour), known: lampColours.join(', ') });
    this.take();
    return { kind, colour: found };
  }

  /** A whole number of hertz, `10 kHz` or `10kHz`. */
  private hertz(kind: RatedKind): number {
    const start = this.peek;
    const { number, unit, text } = this.measure(Object.keys(rateUnits));
    const hertz = number * (rateUnits[unit] ?? 0);
    if (!(hertz >= 1 && hertz <= MOST_HERTZ[kind]))
      throw this.error('sheet/bad-rate', start, {
        found: text === '' ? shown(start) : `“${text}”`,
        kind: kind === 'clock' ? 'clock module' : 'timer',
        most: printHertz(MOST_HERTZ[kind]),
      });
    return hertz;
  }

  /** A name with its label, if it has one. */
  private labelled(example: string): Signal {
    const { name, at } = this.plainName('a name', example);
    const label = this.takeIf('string')?.text;
    if (this.peek.kind === 'open-string') throw this.error('sheet/open-string', this.peek, {});
    return { name, at, ...(label !== undefined && { label }) };
  }

  private part(): Statement {
    this.take();
    const name = this.labelled('part MAJ "majority of three"');
    if (!this.takeIf('name', 'of')) return { kind: 'part', name };
    const number = this.takeIf('number') ?? this.expect('name', 'a memory', 'part MAP "levels" of 74288');
    return { kind: 'part', name, of: { name: number.text, at: spanOf(number) } };
  }

  private holds(): Statement {
    const { from } = this.take();
    const words: string[] = [];
    while (!this.atLineEnd) {
      const word = this.takeIf('number') ?? this.takeIf('const') ?? this.expect('name', 'a word', 'holds 3F 06 5B');
      if (!/^[0-9a-f]{1,4}$/i.test(word.text)) throw this.error('sheet/bad-word', word, { word: shown(word) });
      words.push(word.text.toUpperCase());
    }
    return { kind: 'holds', words, at: { from, to: this.ahead(-1).to } };
  }

  private pins(): Statement {
    const wide = this.take().text === 'wide';
    if (wide) this.take();
    const names: Signal[] = [];
    do {
      const { name, at } = this.plainName('a pin', 'pins A B GND Y NC VCC');
      names.push({ name, at });
      this.takeIf(',');
    } while (!this.atLineEnd);
    return { kind: 'pins', names, wide };
  }

  /** A name that a person gives: names with a dot belong to the pins of parts. */
  private plainName(expected: string, example: string): Signal & { at: Span } {
    const signal = this.name(expected, example);
    if (signal.name.includes('.')) throw this.error('sheet/dotted-name', signal.at, { name: signal.name });
    return signal;
  }

  private equation(): Statement {
    const target = this.plainName('a name', 'NAME = …');
    this.expect('=', '=', `${target.name} = …`);
    const expr = this.infix(0);
    const clauses = this.clauses();
    return { kind: 'equation', target, expr, ...(clauses && { clauses }) };
  }

  private clauses(): Clauses | undefined {
    const clauses: Building = {};
    while (this.peek.kind === 'name' && this.clause(this.peek.text, clauses));
    const { storage, forces, when, open } = clauses;
    const begun = this.peek;
    if (forces && !storage) throw this.error('sheet/force-without-storage', begun, {});
    if (storage && (when || open)) throw this.error('sheet/stored-output', begun, {});
    return Object.keys(clauses).length > 0 ? clauses : undefined;
  }

  /** Reads one clause into `into`; false when the word begins none. */
  private clause(word: string, into: Building): boolean {
    const at = this.peek;
    const once = (taken: unknown): void => {
      if (taken) throw this.error('sheet/clause-twice', at, { word });
      this.take();
    };
    if (word === 'at' || word === 'while') {
      once(into.storage);
      into.storage = word === 'at' ? this.edge() : { kind: 'while', enable: this.infix(0) };
    } else if (word === 'clear' || word === 'preset') {
      once(false);
      into.forces = [...(into.forces ?? []), { to: word === 'clear' ? 0 : 1, when: this.infix(0) }];
    } else if (word === 'when') {
      once(into.when ?? into.open);
      into.when = this.infix(0);
    } else if (word === 'open') {
      once(into.open ?? into.when);
      into.open = true;
    } else if (word === 'dc') {
      once(into.dontCare);
      into.dontCare = this.infix(0);
    } else return false;
    return true;
  }

  private edge(): Storage {
    const token = this.expect('name', 'rise or fall', 'at rise CK');
    if (token.text !== 'rise' && token.text !== 'fall')
      throw this.error('sheet/expected', token, {
        expected: 'Rise or fall',
        found: `“${token.text}”`,
        example: 'at rise CK',
      });
    return { kind: token.text, clock: this.infix(0) };
  }

  private table(): Statement {
    const word = this.take();
    const outputs: Signal[] = [];
    while (!(this.peek.kind === 'name' && this.peek.text === 'of'))
      outputs.push(this.plainName('of', 'table Y of A B'));
    this.take();
    const inputs: Signal[] = [];
    while (this.peek.kind === 'name') {
      inputs.push(this.name('a signal', 'table Y of A B'));
      this.takeIf(',');
    }
    if (inputs.length === 0) this.name('a signal', 'table Y of A B');
    const at = { from: word.from, to: inputs[inputs.length - 1]?.at?.to ?? word.to };
    const cells = this.takeIf(':') ? this.cells('the cells of the table', '0110 100-') : undefined;
    return { kind: 'table', outputs, inputs, at, ...(cells !== undefined && { cells }) };
  }

  private row(start: Span): Statement {
    const inputs = this.takeIf('name') ? null : this.cells('inputs', '01-');
    this.expect(':', ':', '01 : 1');
    const outputs = this.cells('what the outputs are', '0, 1 or -');
    return { kind: 'row', inputs, outputs, at: { from: start.from, to: this.ahead(-1).to } };
  }

  /** A run of 0, 1 and -, spaces between them left out. */
  private cells(expected: string, example: string): string {
    let text = '';
    for (let t = this.peek; t.kind === 'const' || t.kind === 'number' || t.kind === '-'; t = this.peek) {
      if (/[^01-]/.test(t.text)) throw this.error('sheet/stray-character', t, { text: t.text });
      text += this.take().text;
    }
    if (text === '') this.expect('const', expected, example);
    return text;
  }

  private use(): Statement {
    this.take();
    const number = this.peek;
    const part = this.takeIf('number') ?? this.expect('name', 'a part number or block', 'use 7493 as C1 (…)');
    const as = this.peek;
    if (!this.takeIf('name', 'as')) this.expect('=', 'the word as', `use ${number.text} as C1 (…)`);
    const ref = this.plainName('a name for it', `use ${number.text} as C1 (…)`);
    const open = this.expect('(', '(', `${as.text} ${ref.name} (CK = clock)`);
    const pins: PinJoin[] = [];
    while (this.peek.kind !== ')') {
      pins.push(this.join());
      if (!this.takeIf(',')) break;
    }
    this.close(open);
    const use = { kind: 'use', part: { name: part.text, at: spanOf(part) }, ref, pins } as const;
    return this.takeIf('name', 'for') ? { ...use, pulses: this.times() } : use;
  }

  /** Whole numbers of microseconds, milliseconds or seconds, `20 ms` or `20ms`, with commas between. */
  private times(): number[] {
    const times: number[] = [];
    do {
      const start = this.peek;
      const { number, unit, text } = this.measure(Object.keys(timeUnits));
      const seconds = Number((number * (timeUnits[unit] ?? 0)).toPrecision(9));
      if (!(seconds >= PULSE_S.least && seconds <= PULSE_S.most))
        throw this.error('sheet/bad-pulse', start, {
          found: text === '' ? shown(start) : `“${text}”`,
          most: PULSE_S.most,
        });
      times.push(seconds);
    } while (this.takeIf(','));
    return times;
  }

  /** A whole number with a unit behind it, with or without a space between; NaN and what was read where it is none. */
  private measure(units: readonly string[]): { number: number; unit: string; text: string } {
    let text = '';
    const isWhole = (): boolean => units.some((u) => /^\d+$/.test(text.slice(0, -u.length)) && text.endsWith(u));
    while (['const', 'number', 'name'].includes(this.peek.kind) && !isWhole()) text += this.take().text;
    const [, number, unit = ''] = /^(\d{1,8})(\w+)$/.exec(text) ?? [];
    return { number: Number(number), unit, text };
  }

  private join(): PinJoin {
    const pin = this.takeIf('number') ?? this.takeIf('const') ?? this.expect('name', 'a pin', 'CK = clock');
    const range = this.peek.kind === '[' && this.peek.from === pin.to;
    const name = range ? this.ranged(pin.text) : pin.text;
    this.expect('=', '=', `${pin.text} = a signal`);
    return { pin: name, expr: this.infix(0), at: spanOf(pin) };
  }

  private ranged(name: string): string {
    const open = this.take();
    let text = `${name}[`;
    while (this.peek.kind === 'const' || this.peek.kind === 'number' || this.peek.kind === ':')
      text += this.take().text;
    this.expect(']', ']', `${name}[3:0]`);
    if (!/\[\d{1,4}(:\d{1,4})?$/.test(text)) throw this.error('sheet/bus-too-wide', open, { name, limit: 64 });
    return `${text}]`;
  }
}
