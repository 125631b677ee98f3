import type { Cube } from '@saddlebag/core';

/** The side of a cell, in points. */
export const CELL = 34;

/** A cell of a map: the row of the table it stands for, and its place. */
export interface MapCell {
  readonly row: number;
  readonly x: number;
  readonly y: number;
}

/** A map: neighbouring cells differ in one input. Of five inputs two maps stand side by side, of six four. */
export interface MapLayout {
  readonly inputs: number;
  readonly columns: number;
  readonly lines: number;
  readonly cells: readonly MapCell[];
  /** Inputs, by number, whose levels the lines and columns count, and those that choose the map. */
  readonly lineInputs: readonly number[];
  readonly columnInputs: readonly number[];
  readonly mapInputs: readonly number[];
  /** Levels of those inputs along the lines and columns of one map, and of each map. */
  readonly lineCodes: readonly number[];
  readonly columnCodes: readonly number[];
  readonly mapCodes: readonly number[];
}

/** Numbers 0 to 2^bits - 1 so that neighbours, the last and first too, differ in one bit (Gray's code). */
export function gray(bits: number): number[] {
  return Array.from({ length: 2 ** bits }, (_, i) => i ^ (i >> 1));
}

/** Lays a map of two to six inputs out: the first inputs count the lines, the next the columns; fifth and sixth choose the map. */
export function mapOf(inputs: number): MapLayout {
  const maps = Math.max(0, inputs - 4);
  const inOne = inputs - maps;
  const lineBits = Math.floor(inOne / 2);
  const [mapCodes, lineCodes, columnCodes] = [gray(maps), gray(lineBits), gray(inOne - lineBits)];
  const across = maps === 0 ? 1 : 2;
  const cells: MapCell[] = [];
  mapCodes.forEach((m, k) => {
    const [left, top] = [(k % across) * (columnCodes.length + 1), Math.floor(k / across) * (lineCodes.length + 1)];
    // Four maps go round like the codes, so that those that touch are neighbours.
    const x0 = k === 2 ? columnCodes.length + 1 : k === 3 ? 0 : left;
    lineCodes.forEach((l, y) => {
      columnCodes.forEach((c, x) => {
        const row = (m << inOne) | (l << (inOne - lineBits)) | c;
        cells.push({ row, x: x0 + x, y: top + y });
      });
    });
  });
  const number = (from: number, count: number): number[] => Array.from({ length: count }, (_, i) => from + i);
  return {
    inputs,
    columns: Math.max(...cells.map((c) => c.x)) + 1,
    lines: Math.max(...cells.map((c) => c.y)) + 1,
    cells,
    mapInputs: number(0, maps),
    lineInputs: number(maps, lineBits),
    columnInputs: number(maps + lineBits, inOne - lineBits),
    mapCodes,
    lineCodes,
    columnCodes,
  };
}

/** A rectangle of a group, in cells; `open` tells the sides on which it goes on round the edge of its map. */
export interface GroupBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The rectangles in which a product shows on a map: one for each map, and more where it goes round an edge. */
export function boxesOf({ cells }: MapLayout, { care, value }: Cube): GroupBox[] {
  const own = cells.filter((c) => (c.row & care) === value);
  const left = new Set(own.map((c) => `${c.x} ${c.y}`));
  const boxes: GroupBox[] = [];
  for (const { x, y } of [...own].sort((a, b) => a.y - b.y || a.x - b.x)) {
    if (!left.has(`${x} ${y}`)) continue;
    let [width, height] = [1, 1];
    while (left.has(`${x + width} ${y}`)) width++;
    const full = (dy: number): boolean =>
      Array.from({ length: width }, (_, i) => left.has(`${x + i} ${y + dy}`)).every(Boolean);
    while (full(height)) height++;
    for (let dy = 0; dy < height; dy++) for (let dx = 0; dx < width; dx++) left.delete(`${x + dx} ${y + dy}`);
    boxes.push({ x, y, width, height });
  }
  return boxes;
}

/** A line between two neighbouring cells of a map, or, where they are neighbours round its edge, a piece of that edge; in cells. */
export interface Seam {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** The seams between a row and that in which one input is the other way; `input` by number. */
export function seamsOf({ inputs, cells }: MapLayout, row: number, input: number): Seam[] {
  const a = cells.find((c) => c.row === row);
  const b = cells.find((c) => c.row === (row ^ (1 << (inputs - 1 - input))));
  if (!a || !b) return [];
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  if (Math.abs(dx) + Math.abs(dy) === 1) return [seamBeside(a, dx, dy)];
  // Round the edge, or in another map: the outer edges of both.
  const [sx, sy] = [-Math.sign(dx), -Math.sign(dy)];
  return [seamBeside(a, sx, sy), seamBeside(b, -sx, -sy)];
}

/** The edge of a cell on one side. */
function seamBeside({ x, y }: MapCell, dx: number, dy: number): Seam {
  const [left, top] = [dx > 0 ? x + 1 : x, dy > 0 ? y + 1 : y];
  return dx === 0 ? { x1: x, y1: top, x2: x + 1, y2: top } : { x1: left, y1: y, x2: left, y2: y + 1 };
}
