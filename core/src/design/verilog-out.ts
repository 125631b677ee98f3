import { type Design, type Reading, readSheet } from './design';
import type { Library } from './elaborate';
import { compareNames } from './names';
import type { Cell, Netlist } from './netlist';
import { withOwnParts } from './own-part';
import { printSheet } from './printer';
import type { Sheet } from './sheet';

/** Words of IEEE 1364-2001 that cannot name anything unescaped; those of primitives and structure first. */
const reserved = new Set(
  (
    'and or not nand nor xor xnor buf bufif0 bufif1 notif0 notif1 module endmodule input output inout wire tri supply0 supply1 reg assign always ' +
    'posedge negedge if else begin end case casex casez default endcase for while repeat forever initial parameter function endfunction ' +
    'task endtask table endtable primitive endprimitive integer real time event deassign disable edge endspecify specify force release ' +
    'fork join highz0 highz1 large macromodule medium small nmos pmos cmos pull0 pull1 pulldown pullup rcmos rnmos rpmos rtran rtranif0 ' +
    'rtranif1 scalared vectored signed strong0 strong1 tran tranif0 tranif1 tri0 tri1 triand trior trireg wait wand weak0 weak1 wor ' +
    'defparam generate endgenerate genvar localparam'
  ).split(' '),
);

/** A name as Verilog has it: plain where it can be, otherwise escaped with a backslash and a space behind. */
export function verilogName(name: string): string {
  return /^[A-Za-z_][A-Za-z0-9_$]*$/.test(name) && !reserved.has(name) ? name : `\\${name} `;
}

/** Nets as Verilog has them: the constants, or a name. */
const net = (n: string): string => (n === '0' ? "1'b0" : n === '1' ? "1'b1" : verilogName(n));

/**
 * Writes a design as structural Verilog (IEEE 1364-2001): gates as primitives, stored signals as always
 * blocks, three-state outputs as bufif1, open-collector ones as bufif0 that only pull low, each used part
 * as an instance of a module that follows. Null while the sheet has a mistake.
 */
export function toVerilog(
  { design, ownParts }: Pick<Reading, 'design' | 'ownParts'>,
  name: string,
  library: Library,
): string | null {
  if (!design.netlist) return null;
  const partSheet = (part: string): Sheet | undefined =>
    withOwnParts(library, new Map(ownParts.map((p) => [p.name, p])))(part)?.sheet;
  const modules = new Map<string, string>();
  const top = moduleOf(design.netlist, name, design);
  const want = (netlist: Netlist): void => {
    for (const c of netlist.cells) {
      if (c.kind !== 'part' || modules.has(c.part)) continue;
      modules.set(c.part, '');
      const sheet = partSheet(c.part);
      const part = sheet && readSheet(printSheet(sheet), library).design;
      if (part?.netlist) {
        modules.set(c.part, moduleOf(part.netlist, `part_${c.part}`, part));
        want(part.netlist);
      }
    }
  };
  want(design.netlist);
  return [top, ...modules.values()].join('\n');
}

function moduleOf(netlist: Netlist, name: string, design: Design): string {
  const both = new Set(netlist.outputs.flatMap((o) => (netlist.inputs.includes(o.name) ? [o.name] : [])));
  const inputs = netlist.inputs.filter((n) => !both.has(n));
  const outputs = netlist.outputs.map((o) => o.name).filter((n) => !both.has(n));
  const ports = [...inputs, ...outputs, ...both];
  const stored = new Set(netlist.cells.flatMap((c) => (c.kind === 'stored' ? [c.output] : [])));
  const made = [...netlist.gates.map((g) => g.output), ...netlist.cells.flatMap(outputsOf)];
  const wires = [...new Set(made)].filter((n) => !ports.includes(n) && !stored.has(n)).sort(compareNames);
  const labels = new Map([...design.inputs, ...design.outputs].map((s) => [s.name, s.label]));
  const declare = (kind: string, n: string): string => {
    const label = labels.get(n);
    return `  ${kind} ${verilogName(n)};${label ? ` // ${label}` : ''}`;
  };
  const lines = [
    `module ${verilogName(name)}(${ports.map((n) => verilogName(n).trimEnd() + (verilogName(n).endsWith(' ') ? ' ' : '')).join(', ')});`,
    ...inputs.map((n) => declare('input', n)),
    ...outputs.map((n) => declare('output', n)),
    ...[...both].map((n) => declare('inout', n)),
    ...wires.map((n) => `  wire ${verilogName(n)};`),
    ...[...stored].map((n) => `  reg ${verilogName(n)};`),
    ...netlist.gates.map((g, i) => `  ${g.kind} g${i + 1} (${[g.output, ...g.inputs].map(net).join(', ')});`),
    ...netlist.cells.flatMap((c, i) => cellLines(c, i)),
    ...netlist.outputs.flatMap((o, i) =>
      o.net === o.name ? [] : [`  buf o${i + 1} (${net(o.name)}, ${net(o.net)});`],
    ),
    'endmodule',
    '',
  ];
  return lines.join('\n');
}

const outputsOf = (c: Cell): string[] => (c.kind === 'part' ? c.outputs.map((o) => o.net) : [c.output]);

function cellLines(c: Cell, i: number): string[] {
  if (c.kind === 'part') {
    const pins = [...c.inputs, ...c.outputs].map((p) => `.${verilogName(p.pin)}(${net(p.net)})`);
    return [`  ${verilogName(`part_${c.part}`)} ${verilogName(c.ref)} (${[...new Set(pins)].join(', ')});`];
  }
  if (c.kind === 'wire')
    return c.drivers.map(({ value, enable }, k) =>
      enable === null
        ? `  bufif0 w${i + 1}_${k + 1} (${net(c.output)}, 1'b0, ${net(value)});`
        : `  bufif1 w${i + 1}_${k + 1} (${net(c.output)}, ${net(value)}, ${net(enable)});`,
    );
  const q = net(c.output);
  const forces = c.forces.map((f) => `if (${net(f.net)}) ${q} <= 1'b${f.to};`);
  if (c.edge === 'while') {
    const taken = `if (${net(c.control)}) ${q} <= ${net(c.data)};`;
    return [`  always @* ${[...forces, taken].join(' else ')}`];
  }
  const edge = c.edge === 'rise' ? 'posedge' : 'negedge';
  const events = [`${edge} ${net(c.control)}`, ...c.forces.map((f) => `posedge ${net(f.net)}`)];
  return [`  always @(${events.join(' or ')}) ${[...forces, `${q} <= ${net(c.data)};`].join(' else ')}`];
}
