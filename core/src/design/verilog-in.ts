import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import type { Connective, Expr } from '../logic';
import { printSheet } from './printer';
import type { Clauses, Force, Line, PinJoin, Signal, Statement, Storage } from './sheet';
import { Refusal, VerilogExpressions } from './verilog-expressions';
import { type Token, tokensOf } from './verilog-tokens';

/** The most characters of Verilog that are read. */
export const MAX_VERILOG_LENGTH = 1_000_000;

const gateKinds = new Set(['and', 'or', 'nand', 'nor', 'xor', 'xnor']);
/**
 * Reads structural Verilog (IEEE 1364) as the text of a sheet: modules, ports, wires, gate primitives,
 * buf, not, bufif0, bufif1, continuous assignments, instances, and always blocks of flip-flops and
 * latches. The first module that no other uses becomes the sheet, the others blocks. What is not
 * understood is named at its place and left out.
 */
export function fromVerilog(text: string): { sheet: string; findings: Finding[] } {
  if (text.length > MAX_VERILOG_LENGTH) {
    const place = atText({ from: MAX_VERILOG_LENGTH, to: text.length });
    const long = finding('sheet/too-long', [place], { length: text.length, limit: MAX_VERILOG_LENGTH });
    return { sheet: '', findings: [long] };
  }
  return new VerilogReader(tokensOf(text), text).read();
}

interface Module {
  readonly name: string;
  readonly ports: string[];
  readonly inputs: Signal[];
  readonly outputs: Signal[];
  readonly statements: Statement[];
  readonly uses: Set<string>;
}

/** Which of the reader's ways reads an item, by its first word. */
type ItemReader = 'declaration' | 'wires' | 'supplies' | 'assignment' | 'always' | 'primitives';
const wordsFor: Readonly<Record<ItemReader, string>> = {
  declaration: 'input output inout',
  wires: 'wire tri reg wand',
  supplies: 'supply0 supply1',
  assignment: 'assign',
  always: 'always',
  primitives: 'and or nand nor xor xnor not buf bufif0 bufif1 notif0 notif1',
};
const itemReaders: Readonly<Record<string, ItemReader | undefined>> = Object.assign(
  Object.create(null),
  ...(Object.keys(wordsFor) as ItemReader[]).flatMap((r) => wordsFor[r].split(' ').map((word) => ({ [word]: r }))),
);
/** Words that begin what is no structure. */
const notRead = new Set(
  'initial function task parameter localparam specify generate integer real time event defparam primitive'.split(' '),
);

class VerilogReader extends VerilogExpressions {
  private readonly findings: Finding[] = [];
  private readonly modules: Module[] = [];
  private readonly ports = new Map<string, string[]>();

  read(): { sheet: string; findings: Finding[] } {
    this.notePorts();
    while (this.peek.kind !== 'end') {
      if (this.is('module')) this.module();
      else {
        this.refuse(this.peek, this.peek.text);
        while (this.kind !== 'end' && !this.is('module')) this.i++;
      }
    }
    return { sheet: this.print(), findings: this.findings };
  }

  /** Port orders of all modules first: instances may stand before the module they name. */
  private notePorts(): void {
    this.tokens.forEach((t, k) => {
      if (t.text !== 'module' || t.kind !== 'name') return;
      const name = this.tokens[k + 1]?.text ?? '';
      const ports: string[] = [];
      for (let j = k + 3; this.tokens[j] && this.tokens[j]?.text !== ')' && this.tokens[j]?.text !== ';'; j++) {
        const next = this.tokens[j + 1]?.text;
        if (this.tokens[j]?.kind === 'name' && (next === ',' || next === ')'))
          ports.push(this.tokens[j]?.text as string);
      }
      this.ports.set(name, ports);
    });
  }

  private print(): string {
    const used = new Set(this.modules.flatMap((m) => [...m.uses]));
    const top = this.modules.find((m) => !used.has(m.name)) ?? this.modules[0];
    if (!top) return '';
    const lines: Line[] = [];
    for (const m of this.modules)
      if (m !== top && used.has(m.name))
        lines.push(
          { statement: { kind: 'block', name: { name: this.names.of(`module ${m.name}`) } } },
          ...bodyOf(m),
          { statement: { kind: 'end' } },
          {},
        );
    return printSheet({
      lines: [{ comment: `# from the Verilog module ${top.name.replace(/\s/g, ' ')}` }, ...lines, ...bodyOf(top)],
    });
  }

  private module(): void {
    this.take();
    this.wide.clear();
    const name = this.peek.kind === 'name' ? this.take().text : '';
    const m: Module = { name, ports: [], inputs: [], outputs: [], statements: [], uses: new Set() };
    this.modules.push(m);
    this.trying(() => {
      if (name === '') this.name();
      if (this.is('(')) this.portList(m);
      this.want(';');
    });
    while (this.peek.kind !== 'end' && !this.is('endmodule')) this.trying(() => this.item(m));
    if (this.is('endmodule')) this.take();
    else this.findings.push(finding('verilog/module-open', [atText(this.peek)], { name }));
  }

  private portList(m: Module): void {
    this.want('(');
    let direction: string | null = null;
    // A range holds for every name behind it, up to the next direction or range (IEEE 1364-2001, 12.3.4).
    let range = '';
    while (!this.is(')') && this.peek.kind !== 'end') {
      if (this.is('input') || this.is('output') || this.is('inout')) {
        direction = this.take().text;
        while (this.is('wire') || this.is('reg') || this.is('tri')) this.take();
        range = this.range();
      } else if (this.is('[')) range = this.range();
      if (direction !== null) this.declare(m, direction, this.name(), range);
      else m.ports.push(this.name());
      if (!this.is(')')) this.want(',');
    }
    this.want(')');
  }

  private declare(m: Module, direction: string, name: string, range: string): void {
    const signal = { name: this.named(name, range) };
    if (direction !== 'output') m.inputs.push(signal);
    if (direction !== 'input') m.outputs.push(signal);
  }

  /** A name that is declared with a range, as the sheet writes both. */
  private named(name: string, range: string): string {
    const own = this.names.of(name);
    if (range !== '') this.wide.add(own);
    return own + range;
  }

  private item(m: Module): void {
    const t = this.peek;
    const read = itemReaders[t.text];
    const plain = t.kind === 'name' && !notRead.has(t.text) && this.tokens[this.i + 1]?.kind === 'name';
    if (read) this[read](m);
    else if (plain) this.instance(m);
    else throw this.error(t, t.text);
  }

  declaration(m: Module): void {
    const direction = this.take().text;
    while (this.is('wire') || this.is('reg') || this.is('tri')) this.take();
    const range = this.range();
    this.each(() => this.declare(m, direction, this.name(), range));
    this.want(';');
  }

  /** Wires need no declaration on the sheet; one that is given a value at once is an equation. */
  wires(m: Module): void {
    this.take();
    const range = this.range();
    this.each(() => {
      const name = this.named(this.name(), range);
      if (!this.is('=')) return;
      this.take();
      const expr = this.whole();
      m.statements.push({ kind: 'equation', target: { name }, expr });
    });
    this.want(';');
  }

  supplies(m: Module): void {
    const value = this.take().text === 'supply1' ? 1 : 0;
    this.each(() => {
      m.statements.push({
        kind: 'equation',
        target: { name: this.names.of(this.name()) },
        expr: { kind: 'const', value },
      });
    });
    this.want(';');
  }

  assignment(m: Module): void {
    this.take();
    this.each(() => {
      const target = this.target();
      this.want('=');
      const expr = this.whole();
      m.statements.push({ kind: 'equation', target, expr });
    });
    this.want(';');
  }

  /** An expression that is all there is up to the next comma or the end: one that goes on otherwise is not read at all. */
  private whole(): Expr {
    const expr = this.expression();
    if (!this.is(',') && !this.is(';')) throw this.error(this.peek, `${this.peek.text} in an assignment`);
    return expr;
  }

  private target(): Signal {
    if (this.is('{')) throw this.error(this.peek, 'a bundle of wires at the left');
    return { name: this.names.of(this.name()) + this.range() };
  }

  primitives(m: Module): void {
    const kind = this.take().text;
    this.each(() => {
      if (this.peek.kind === 'name') this.take();
      this.want('(');
      const target = this.target();
      const of: Expr[] = [];
      while (this.is(',')) {
        this.take();
        of.push(this.expression());
      }
      this.want(')');
      m.statements.push(...this.primitive(kind, target, of));
    });
    this.want(';');
  }

  private primitive(kind: string, target: Signal, of: readonly Expr[]): Statement[] {
    const [a, b] = of;
    const at = elementAt(this.tokens, this.i - 1);
    if (!a) throw this.error(at, `${kind} without inputs`);
    if (gateKinds.has(kind))
      return [
        {
          kind: 'equation',
          target,
          expr: of.length === 1 ? single(kind, a) : { kind: 'gate', gate: kind as Connective, of, infix: false },
        },
      ];
    if (kind === 'buf' || kind === 'not') {
      if (of.length > 1) throw this.error(at, `${kind} with several outputs`);
      return [{ kind: 'equation', target, expr: kind === 'buf' ? a : { kind: 'not', of: a } }];
    }
    if (!b) throw this.error(at, `${kind} without its enable`);
    const expr: Expr = kind.startsWith('not') ? { kind: 'not', of: a } : a;
    if (kind === 'bufif0' && a.kind === 'const' && a.value === 0)
      return [{ kind: 'equation', target, expr: b, clauses: { open: true } }];
    const when: Expr = kind.endsWith('0') ? { kind: 'not', of: b } : b;
    return [{ kind: 'equation', target, expr, clauses: { when } }];
  }

  private instance(m: Module): void {
    const type = this.take();
    // Parts used by number go out with a module of their own, for other programs; here they are parts again.
    const byNumber = /^part_\d{2,7}$/.test(type.text);
    const block = this.ports.has(type.text) && !byNumber;
    const part = /^(?:part_)?(\d{2,7}|\d*[A-Za-z]*\d+[A-Za-z]*)$/.exec(type.text)?.[1] ?? type.text;
    if (block) m.uses.add(type.text);
    const pins: PinJoin[] = [];
    const called = this.name();
    const ref = this.names.of(called);
    this.want('(');
    let k = 0;
    while (!this.is(')') && this.peek.kind !== 'end') {
      const named = this.takes('.') ? this.name() : null;
      const pin = named ?? this.ports.get(type.text)?.[k];
      if (pin === undefined) throw this.error(type, `${type.text}, whose ports are not known in order`);
      if (named !== null) this.want('(');
      // An output that leads nowhere goes by the part and its pin.
      if (byNumber && this.is(`${called}.${pin}`)) this.take();
      else if (!(named !== null && this.is(')'))) {
        const at = { from: this.peek.from, to: this.peek.to };
        pins.push({ pin: block ? this.names.of(pin) : pin, expr: this.expression(), at });
      }
      if (named !== null) this.want(')');
      if (this.is(',')) this.take();
      k++;
    }
    this.want(')');
    this.want(';');
    const name = block ? this.names.of(`module ${type.text}`) : part;
    m.statements.push({ kind: 'use', part: { name }, ref: { name: ref }, pins });
  }

  /** `always @(posedge CK or posedge R) if (R) Q <= 0; else Q <= D;` and latches by `always @*`. */
  always(m: Module): void {
    const start = this.take();
    const edges: { edge: 'rise' | 'fall'; name: string }[] = [];
    if (this.is('@*')) this.take();
    else {
      this.want('@');
      this.want('(');
      while (!this.is(')') && this.peek.kind !== 'end') {
        if (this.is('posedge') || this.is('negedge'))
          edges.push({ edge: this.take().text === 'posedge' ? 'rise' : 'fall', name: this.names.of(this.name()) });
        else if (this.is('*')) this.take();
        else this.name();
        if (this.is('or') || this.is(',')) this.take();
      }
      this.want(')');
    }
    const begun = this.takes('begin');
    const { target, forces, last, when } = this.branches(start);
    if (begun) this.takes('end');
    m.statements.push({ kind: 'equation', target, expr: last, clauses: this.storage(start, edges, forces, when) });
  }

  private branches(start: Token): {
    target: Signal;
    forces: { when: Expr; to: Expr }[];
    last: Expr;
    when: Expr | null;
  } {
    const forces: { when: Expr; to: Expr }[] = [];
    let target: Signal | null = null;
    for (let guard = 0; guard < 40; guard++) {
      const condition = this.takes('if') ? this.bracketed() : null;
      target = this.target();
      if (this.is('<=') || this.is('=')) this.take();
      const value = this.whole();
      this.want(';');
      const more = this.is('else');
      if (!more) return { target, forces, last: value, when: condition };
      this.take();
      if (!condition) break;
      forces.push({ when: condition, to: value });
    }
    throw this.error(start, 'this always block');
  }

  private storage(
    start: Token,
    edges: readonly { edge: 'rise' | 'fall'; name: string }[],
    forces: readonly { when: Expr; to: Expr }[],
    when: Expr | null,
  ): Clauses {
    const forced = forces.map(({ when, to }): Force => {
      if (to.kind !== 'const') throw this.error(start, 'a load that needs no clock');
      return { to: to.value, when };
    });
    const mentioned = JSON.stringify(forces.map((f) => f.when));
    const clock = edges.find((e) => !mentioned.includes(`"${e.name}"`)) ?? edges[0];
    const storage: Storage | null = clock
      ? { kind: clock.edge, clock: { kind: 'name', name: clock.name } }
      : when && { kind: 'while', enable: when };
    if (!storage || (clock && when)) throw this.error(start, 'this always block');
    return { storage, ...(forced.length > 0 && { forces: forced }) };
  }

  private trying(read: () => void): void {
    const start = this.i;
    try {
      this.depth = 0;
      read();
    } catch (e) {
      if (!(e instanceof Refusal)) throw e;
      this.findings.push(e.finding);
      this.i = Math.max(this.i, start + 1);
      while (this.peek.kind !== 'end' && !this.is('endmodule') && this.tokens[this.i - 1]?.text !== ';') this.i++;
    }
  }

  private refuse(at: Span, what: string): void {
    this.findings.push(this.error(at, what.slice(0, 40)).finding);
  }
}

/** A gate of one input passes it on or turns it round. */
const single = (kind: string, a: Expr): Expr =>
  kind === 'nand' || kind === 'nor' || kind === 'xnor' ? { kind: 'not', of: a } : a;

function bodyOf(m: Module): Line[] {
  const line = (statement: Statement): Line => ({ statement });
  return [
    ...(m.inputs.length > 0 ? [line({ kind: 'in', signals: m.inputs })] : []),
    ...(m.outputs.length > 0 ? [line({ kind: 'out', signals: m.outputs })] : []),
    ...m.statements.map(line),
  ];
}
