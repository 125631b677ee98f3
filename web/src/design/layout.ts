import type { Cell, GateKind, Netlist } from '@saddlebag/core';
import type { ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import { outputX, SYMBOL } from '../kit/GateSymbol';

/** A box of the diagram: an input tag, an output tag, a constant or a gate, placed. */
export interface DrawnNode {
  readonly id: string;
  readonly kind: 'input' | 'output' | 'constant' | 'cell' | GateKind;
  /** The net it carries or drives. */
  readonly net: string;
  readonly label: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly ports: readonly { readonly x: number; readonly y: number }[];
  /** Of a cell: the names at its left and right ports, in their order. */
  readonly pins?: { readonly left: readonly PinName[]; readonly right: readonly PinName[] };
}

/** A pin of a cell as drawn: its name, and whether it is a clock, marked by a wedge, or acts low or falling, by a ring. */
export interface PinName {
  readonly name: string;
  readonly net: string;
  readonly clock?: boolean;
  readonly ring?: boolean;
}

/** A net's line from its source to one place, as corners; `dots` are where lines of the net branch. */
export interface DrawnLine {
  readonly id: string;
  readonly net: string;
  readonly corners: readonly { readonly x: number; readonly y: number }[];
  readonly dots: readonly { readonly x: number; readonly y: number }[];
}

/** A gate diagram laid out: its size and what lies where, in points of the drawing from the upper left corner. */
export interface Diagram {
  readonly width: number;
  readonly height: number;
  readonly nodes: readonly DrawnNode[];
  readonly lines: readonly DrawnLine[];
}

const TAG_HEIGHT = 20;
const tagWidth = (name: string): number => 22 + 8 * Math.min(name.length, 12);
/** Gates above this many are not drawn: the layout would take minutes and nobody could read it. */
export const MAX_DRAWN_GATES = 400;

/**
 * Up to so many gates are placed by the network simplex, which draws straighter lines; more by linear segments, which take a sixth to a tenth
 * of its time with the same height and bends (docs/performance.md), and with fewer tries at crossing lines, which leave as many of them.
 */
const FEW_GATES = 40;

type Meta = Pick<DrawnNode, 'kind' | 'net' | 'label' | 'pins'>;
type Placed = ElkNode & { readonly meta: Meta };

/** The graph that the layout engine is given: inputs in the first layer, outputs in the last, ports in their order. */
export function graphOf(netlist: Netlist): ElkNode {
  const cells = netlist.cells.map(pinsOf);
  const read = new Set([
    ...netlist.gates.flatMap((g) => g.inputs),
    ...netlist.outputs.map((o) => o.net),
    ...cells.flatMap((c) => c.left.map((p) => p.net)),
  ]);
  const constants = ['0', '1'].filter((net) => read.has(net));
  const children: Placed[] = [
    ...netlist.inputs.map((net) => tagNode(`in ${net}`, 'input', net, net)),
    ...constants.map((net) => tagNode(`in ${net}`, 'constant', net, net)),
    ...netlist.gates.map(gateNode),
    ...cells.map(cellNode),
    ...netlist.outputs.map(({ name, net }) => tagNode(`out ${name}`, 'output', net, name)),
  ];
  const isLarge = netlist.gates.length > FEW_GATES;
  return {
    id: 'root',
    children,
    edges: edgesOf(netlist, constants, cells),
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'RIGHT',
      'elk.edgeRouting': 'ORTHOGONAL',
      'elk.layered.spacing.nodeNodeBetweenLayers': '46',
      'elk.layered.spacing.edgeNodeBetweenLayers': '16',
      'elk.layered.spacing.edgeEdgeBetweenLayers': '12',
      'elk.spacing.nodeNode': '22',
      'elk.spacing.edgeNode': '14',
      'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
      'elk.layered.nodePlacement.strategy': isLarge ? 'LINEAR_SEGMENTS' : 'NETWORK_SIMPLEX',
      'elk.layered.thoroughness': isLarge ? '3' : '7',
      'elk.padding': '[top=8,left=8,bottom=8,right=8]',
    },
  };
}

/** The tag of an input, an output or a constant: it has one port, on the side of the gates. */
function tagNode(id: string, kind: 'input' | 'output' | 'constant', net: string, label: string): Placed {
  const width = tagWidth(label);
  const x = kind === 'output' ? 0 : width;
  return {
    id,
    width,
    height: TAG_HEIGHT,
    meta: { kind, net, label },
    ports: [{ id: `${id}:0`, x, y: TAG_HEIGHT / 2, width: 0, height: 0 }],
    layoutOptions: {
      'elk.portConstraints': 'FIXED_POS',
      'elk.layered.layering.layerConstraint': kind === 'output' ? 'LAST' : 'FIRST',
    },
  };
}

function gateNode({ output, kind, inputs, says }: Netlist['gates'][number]): Placed {
  const height = Math.max(SYMBOL.height, 12 * inputs.length);
  const width = outputX(kind, 'distinctive') + 1;
  const id = `gate ${output}`;
  const ports = [{ id: `${id}:o`, x: width, y: height / 2, width: 0, height: 0 }].concat(
    inputs.map((_, i) => ({ id: `${id}:${i}`, x: 4, y: ((i + 0.5) * height) / inputs.length, width: 0, height: 0 })),
  );
  return {
    id,
    width,
    height,
    ports,
    meta: { kind, net: output, label: says },
    layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
  };
}

interface CellPins {
  readonly title: string;
  readonly net: string;
  readonly left: readonly PinName[];
  readonly right: readonly PinName[];
}

/** What a cell shows: flip-flops and latches by the letters of the trade, parts by the names of their pins. */
function pinsOf(cell: Cell): CellPins {
  if (cell.kind === 'part')
    return {
      title: `${cell.ref} ${cell.part}`,
      net: cell.outputs[0]?.net ?? cell.ref,
      left: cell.inputs.map(({ pin, net }) => ({ name: pin, net })),
      right: cell.outputs.map(({ pin, net }) => ({ name: pin, net })),
    };
  if (cell.kind === 'wire')
    return {
      title: cell.output,
      net: cell.output,
      left: cell.drivers.flatMap(({ value, enable }) => [
        { name: enable === null ? 'open' : '', net: value },
        ...(enable === null ? [] : [{ name: 'EN', net: enable }]),
      ]),
      right: [{ name: '', net: cell.output }],
    };
  const control =
    cell.edge === 'while'
      ? { name: 'EN', net: cell.control }
      : { name: '', net: cell.control, clock: true, ring: cell.edge === 'fall' };
  const forces = cell.forces.map(({ to, net }) => ({ name: to === 1 ? 'S' : 'R', net }));
  return {
    title: cell.output,
    net: cell.output,
    left: [{ name: 'D', net: cell.data }, control, ...forces],
    right: [{ name: 'Q', net: cell.output }],
  };
}

const CELL = { width: 96, row: 20, head: 24 } as const;

function cellNode({ title, net, left, right }: CellPins, i: number): Placed {
  const rows = Math.max(left.length, right.length);
  const height = CELL.head + CELL.row * rows + 4;
  const y = (k: number): number => CELL.head + CELL.row * (k + 0.5);
  const id = `cell ${i}`;
  return {
    id,
    width: CELL.width,
    height,
    ports: [
      ...left.map((_, k) => ({ id: `${id}:${k}`, x: 0, y: y(k), width: 0, height: 0 })),
      ...right.map((_, k) => ({ id: `${id}:o${k}`, x: CELL.width, y: y(k), width: 0, height: 0 })),
    ],
    meta: { kind: 'cell', net, label: title, pins: { left, right } },
    layoutOptions: { 'elk.portConstraints': 'FIXED_POS' },
  };
}

function edgesOf(netlist: Netlist, constants: readonly string[], cells: readonly CellPins[]): ElkExtendedEdge[] {
  const fromCell = new Map(
    cells.flatMap((c, i) => c.right.map((p, k): [string, string] => [p.net, `cell ${i}:o${k}`])),
  );
  const source = (net: string): string =>
    fromCell.get(net) ?? (netlist.inputs.includes(net) || constants.includes(net) ? `in ${net}:0` : `gate ${net}:o`);
  const edges: { net: string; to: string }[] = [
    ...netlist.gates.flatMap((g) => g.inputs.map((net, i) => ({ net, to: `gate ${g.output}:${i}` }))),
    ...cells.flatMap((c, i) => c.left.map(({ net }, k) => ({ net, to: `cell ${i}:${k}` }))),
    ...netlist.outputs.map(({ name, net }) => ({ net, to: `out ${name}:0` })),
  ];
  return edges.map(({ net, to }, i) => ({ id: `${i} ${net}`, sources: [source(net)], targets: [to] }));
}

/** Reads a laid-out graph back as a diagram. */
export function diagramOf(root: ElkNode): Diagram {
  const nodes = (root.children ?? []).map((child): DrawnNode => {
    const { meta, id, x = 0, y = 0, width = 0, height = 0, ports = [] } = child as Placed;
    return { id, ...meta, x, y, width, height, ports: ports.map((p) => ({ x: x + (p.x ?? 0), y: y + (p.y ?? 0) })) };
  });
  const lines = ((root.edges ?? []) as ElkExtendedEdge[]).flatMap((edge): DrawnLine[] => {
    const [section] = edge.sections ?? [];
    if (!section) return [];
    const corners = [section.startPoint, ...(section.bendPoints ?? []), section.endPoint];
    return [{ id: edge.id, net: edge.id.slice(edge.id.indexOf(' ') + 1), corners, dots: edge.junctionPoints ?? [] }];
  });
  return { width: root.width ?? 0, height: root.height ?? 0, nodes, lines };
}
