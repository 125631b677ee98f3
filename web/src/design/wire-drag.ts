import type { GateEdit } from '@saddlebag/core';
import { elementAt } from '@saddlebag/core';
import type { DrawnNode } from './layout';

/** A place in the diagram's own units. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A line being drawn from a net's source to wherever the pointer is, and what letting go there would do. */
export interface WireDrag {
  readonly net: string;
  readonly from: Point;
  readonly to: Point;
  readonly drop: Drop | null;
}

/** What a line let go over a gate does: it takes the place of an input, or comes to the others. */
export interface Drop {
  readonly gate: string;
  /** Where the line would end. */
  readonly at: Point;
  readonly edit: GateEdit;
  readonly says: string;
}

/** How near to an input, in the diagram's units, a line must end to take its place. */
const NEAR = 7;

/** Where a line can begin: the right edge of what drives a net; null for what drives none. */
export function sourceAt(node: DrawnNode, at: Point): { net: string; from: Point } | null {
  if (node.kind === 'output') return null;
  if (node.kind !== 'cell') return { net: node.net, from: { x: node.x + node.width, y: node.y + node.height / 2 } };
  // Of a cell, the output beside the pointer.
  const { left = [], right = [] } = node.pins ?? {};
  const ports = node.ports.slice(left.length);
  const k = ports.findIndex((p) => Math.abs(p.y - at.y) <= 10);
  const pin = right[k];
  return pin && at.x > node.x + node.width / 2 ? { net: pin.net, from: elementAt(ports, k) } : null;
}

/** What letting a line from a net go at a place would do; null away from gates and over the gate itself. */
export function dropAt(nodes: readonly DrawnNode[], net: string, at: Point): Drop | null {
  const node = nodes.find(
    (n) => isGate(n) && at.x >= n.x - 14 && at.x <= n.x + n.width + 4 && at.y >= n.y - 4 && at.y <= n.y + n.height + 4,
  );
  if (!node || node.net === net) return null;
  const [, ...inputs] = node.ports;
  const gate = node.net;
  const near = inputs.findIndex((p) => Math.abs(p.y - at.y) <= NEAR && at.x < node.x + node.width / 2);
  const input = node.kind === 'not' ? 0 : near;
  const port = inputs[input];
  if (port)
    return {
      gate,
      at: port,
      edit: { act: 'rewire', gate, input, signal: net },
      says: `in place of input ${input + 1}`,
    };
  const end = { x: node.x + 2, y: Math.min(Math.max(at.y, node.y), node.y + node.height) };
  return { gate, at: end, edit: { act: 'connect', gate, signal: net }, says: 'one more input' };
}

const isGate = (n: DrawnNode): boolean =>
  n.kind !== 'input' && n.kind !== 'output' && n.kind !== 'constant' && n.kind !== 'cell';
