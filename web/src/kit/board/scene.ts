import {
  breadboardXY,
  columnNumbers,
  columnsOf,
  type GateKind,
  hasRailHole,
  hasRails,
  holesOfStrip,
  holeXY,
  isRail,
  type JumperColour,
  leadsOf,
  markOf,
  type PartKind,
  type PartType,
  type Paths,
  type Point,
  parseHole,
  pinOf,
  railsOf,
  remembered,
  rotated,
  routeJumpers,
  rows,
  rowY,
  type SeatedPart,
  stripOf,
  typeOf,
} from '@saddlebag/core';
import type { ReadBoard } from '../../base/job-context';
import { type RunningWire, type WireTag, wireTags } from './wire-tags';

/** A strip or rail as a capsule, with the net it belongs to when something is plugged into it. */
export interface SceneStrip {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly rail: '+' | '-' | null;
  readonly net: number | null;
  readonly signal: string | undefined;
  /** Holds nothing but pins that lead nowhere. */
  readonly idle: boolean;
}

/** A unit symbol inside a chip: where its middle is, how far it and its name may reach, and the pin it drives. */
export interface SceneUnit {
  readonly kind: GateKind;
  readonly x: number;
  readonly y: number;
  readonly left: number;
  readonly right: number;
  readonly output: string;
  /** Whether its output leaves at the left, and where its pins are: inputs in their order, then the output. */
  readonly mirrored: boolean;
  readonly inputs: readonly { readonly x: number; readonly y: number }[];
  readonly out: { readonly x: number; readonly y: number };
}

/** A pin of a drawn part: its place in tenths of an inch from the mat's corner and the net it is on. */
export interface ScenePin {
  readonly pin: string;
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly net: number | null;
}

/** A part as it is drawn: its body, its pins and what is written on it. */
export interface ScenePart {
  readonly ref: string;
  readonly part: string;
  readonly kind: PartKind;
  readonly seated: SeatedPart;
  /** Outline on the mat. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly pins: readonly ScenePin[];
  readonly units: readonly SceneUnit[];
}

/** A wire as it is drawn: its path and its net. */
export interface SceneWire extends RunningWire {
  readonly net: number | null;
  /** The colour of its insulation, when the person chose one. */
  readonly colour: JumperColour | undefined;
}

/** A slip of paper, its upper left corner beside its hole, with its text in lines. */
export interface SceneNote {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly lines: readonly string[];
}

/** A breadboard on the mat: `x` is its column 0, `y` its top rail; */
export interface SceneBoard {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly columns: number;
  readonly rails: boolean;
}

/** A board as plain data, in tenths of an inch; (0, 0) is one column left of, and on, the first top rail. */
export interface BoardScene {
  readonly boards: readonly SceneBoard[];
  readonly width: number;
  readonly height: number;
  readonly strips: readonly SceneStrip[];
  readonly parts: readonly ScenePart[];
  readonly wires: readonly SceneWire[];
  /** Names on wires that leave sight. */
  readonly tags: readonly WireTag[];
  readonly notes: readonly SceneNote[];
}

/** Room around the holes, in tenths of an inch. */
export const MARGIN = { x: 1.2, top: 1.2, bottom: 1.2 } as const;

/** Describes a board for drawing, its jumpers running as they are given. Pure, so that a test can look at it. */
export function boardScene(read: ReadBoard, paths: Paths = routeJumpers(read.board)): BoardScene {
  const { board, nets, names } = read;
  const boards = board.breadboards.map(({ id }) => ({
    id,
    ...breadboardXY(id),
    columns: columnsOf(id),
    rails: hasRails(id),
  }));
  const netOf = (strip: string): number | null => nets.ofStrip.get(strip) ?? null;
  const strips = boards.flatMap(stripsOf).map((s) => {
    const net = netOf(s.id);
    const pins = net === null ? [] : (nets.nets[net]?.pins ?? []);
    const idle = pins.length > 0 && pins.every((pin) => nets.leads.get(pin)?.type.role === 'none');
    return { ...s, net, signal: net === null ? undefined : names.get(net), idle };
  });
  const parts = Object.values(board.parts).flatMap((seated) => partOf(seated, read));
  const wires = Object.values(board.jumpers).flatMap(({ id, from, colour }) => {
    const [path, hole] = [paths.get(id), parseHole(from)];
    if (!path || !hole) return [];
    const net = netOf(stripOf(hole));
    return [{ id, path, net, signal: net === null ? undefined : names.get(net), colour }];
  });
  const width = Math.max(...boards.map((b) => b.x + b.columns + 1));
  const height = Math.max(...boards.map((b) => b.y)) + rowY['bottom-'];
  const notes = Object.values(board.notes ?? {}).flatMap(({ id, at, text }) => {
    const hole = parseHole(at);
    return hole ? [{ id, ...holeXY(hole), lines: linesOf(text) }] : [];
  });
  const boardAt = (p: Point): string | undefined =>
    boards.find(
      (b) =>
        Math.abs(p.x - b.x - b.columns / 2) <= b.columns / 2 + 1 && p.y >= b.y - 1 && p.y <= b.y + rowY['bottom-'] + 1,
    )?.id;
  return { boards, width, height, strips, parts, wires, tags: wireTags(wires, boardAt), notes };
}

/** A note's text in lines of some 22 letters, at most five. */
function linesOf(text: string): string[] {
  const lines: string[] = [];
  for (const word of text.split(/\s+/)) {
    const last = lines[lines.length - 1];
    if (last !== undefined && last.length + word.length < 22) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word.length > 24 ? `${word.slice(0, 23)}…` : word);
  }
  return lines.length > 5 ? [...lines.slice(0, 4), '…'] : lines;
}

type Capsule = Omit<SceneStrip, 'net' | 'signal' | 'idle'>;
/** Half of what a strip is wide. */
export const HALF = 0.42;

/** The strips and rails of a board, with nothing in them: they follow from its id. */
export const stripsOf = ({ id }: Pick<SceneBoard, 'id'>): readonly Capsule[] => emptyStrips(id);

const emptyStrips = remembered((id: string): readonly Capsule[] => {
  const { x, y } = breadboardXY(id);
  const columns = columnsOf(id);
  const half = (column: number, side: 'e' | 'f', top: number): Capsule => {
    const height = 4 + 2 * HALF;
    return {
      id: `${id}.${column}${side}`,
      x: x + column - HALF,
      y: y + top - HALF,
      width: 2 * HALF,
      height,
      rail: null,
    };
  };
  const rails = railsOf(id).map((first): Capsule => {
    const last = holesOfStrip(first).at(-1)?.column ?? first.column;
    const left = x + first.column - 0.6;
    const size = { width: last - first.column + 1.2, height: 2 * HALF };
    return { id: stripOf(first), x: left, y: y + rowY[first.row] - HALF, ...size, rail: markOf(first.row) };
  });
  const numbers = Array.from({ length: columns }, (_, i) => i + 1);
  return [...numbers.flatMap((c) => [half(c, 'f', rowY.j), half(c, 'e', rowY.e)]), ...rails];
});

/** Every hole of a board, as places on the mat. */
export function holesOf({ id, x, y }: Pick<SceneBoard, 'id' | 'x' | 'y'>): { x: number; y: number }[] {
  return rows.flatMap((row) =>
    columnNumbers(id)
      .filter((column) => !isRail(row) || hasRailHole(column, id))
      .map((column) => ({ x: x + column, y: y + rowY[row] })),
  );
}

function partOf(seated: SeatedPart, { nets }: ReadBoard): ScenePart[] {
  const type = typeOf(seated);
  const anchor = parseHole(seated.at);
  if (!type || !anchor) return [];
  const at = holeXY(anchor);
  const place = (dx: number, dy: number) => {
    const t = rotated(dx, dy, seated.rotation);
    return { x: at.x + t.dx, y: at.y + t.dy };
  };
  const { body } = type;
  const [a, b] = [place(body.x, body.y), place(body.x + body.width, body.y + body.height)];
  const pins = leadsOf(seated).map(({ pin, type: p }) => {
    return { pin, id: p.id, ...place(p.dx, p.dy), net: nets.ofPin.get(pin) ?? null };
  });
  const outline = { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y) };
  const [width, height] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
  const units = withRoom(unitsOf(type, seated.ref, place), outline.x, outline.x + width);
  return [{ ref: seated.ref, part: seated.part, kind: type.kind, seated, ...outline, width, height, pins, units }];
}

/** Units stand between their own pins, on the side of their output. */
function unitsOf(
  type: PartType,
  ref: string,
  place: (dx: number, dy: number) => { x: number; y: number },
): Omit<SceneUnit, 'left' | 'right'>[] {
  const pinAt = new Map(type.pins.map((p) => [p.id, p]));
  const pinPlace = (id: string) => {
    const pin = pinAt.get(id);
    return place(pin?.dx ?? 0, pin?.dy ?? 0);
  };
  return type.units.flatMap((unit) => {
    const { gate, inputs, outputs } = unit;
    const [output = ''] = outputs;
    const out = pinAt.get(output);
    if (!gate || !out) return [];
    const side = [...inputs, output].flatMap((id) => pinAt.get(id) ?? []);
    const dx = side.reduce((sum, p) => sum + p.dx, 0) / side.length;
    const at = place(dx, out.dy === 0 ? -0.8 : -2.2);
    const [ins, end] = [inputs.map(pinPlace), pinPlace(output)];
    const mirrored = end.x < ins.reduce((sum, p) => sum + p.x, 0) / Math.max(1, ins.length);
    return [{ kind: gate.kind, ...at, output: pinOf(ref, output), mirrored, inputs: ins, out: end }];
  });
}

/** Units of one side share its length between the ends of the chip: each reaches half way to the next. */
function withRoom(units: readonly Omit<SceneUnit, 'left' | 'right'>[], left: number, right: number): SceneUnit[] {
  return units.map((unit) => {
    const beside = units.filter((u) => u.y === unit.y && u !== unit).map((u) => (u.x + unit.x) / 2);
    return {
      ...unit,
      left: Math.max(left, ...beside.filter((x) => x < unit.x)),
      right: Math.min(right, ...beside.filter((x) => x > unit.x)),
    };
  });
}
