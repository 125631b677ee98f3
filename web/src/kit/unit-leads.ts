import type { PartType, Unit } from '@saddlebag/core';
import { outputX, SYMBOL, type SymbolKind } from './GateSymbol';

/** A place in a drawing. */
interface Point {
  readonly x: number;
  readonly y: number;
}

/** Where a symbol stands: its upper left corner, how large it is, and whether its output leaves at the left. */
export interface PlacedSymbol extends Point {
  readonly scale: number;
  readonly mirrored: boolean;
}

/** Whether a unit's symbol has to look to the left: its output pin lies to the left of its inputs, as on a 7402. */
export function looksLeft(type: PartType, unit: Unit): boolean {
  const dx = (id: string): number => type.pins.find((p) => p.id === id)?.dx ?? 0;
  const inputs = unit.inputs.map(dx);
  const middle = inputs.reduce((sum, x) => sum + x, 0) / Math.max(1, inputs.length);
  return dx(unit.outputs[0] ?? '') < middle;
}

/** The transform that puts a symbol, drawn at its own size, where it stands. */
export function symbolTransform({ x, y, scale, mirrored }: PlacedSymbol): string {
  return mirrored
    ? `translate(${x + SYMBOL.width * scale} ${y}) scale(${-scale} ${scale})`
    : `translate(${x} ${y}) scale(${scale})`;
}

/**
 * Thin lines from the ends of a symbol to the pins of its unit, as SVG paths: each leaves sideways, passes the symbol above or below, on the
 * side of its pin, and enters the pin straight. `inputs` are in the order of the unit's, from top to bottom on the symbol where that crosses
 * nothing; `gap` is how far apart lines run.
 */
export function unitLeads(
  kind: SymbolKind,
  form: 'distinctive' | 'rectangular',
  at: PlacedSymbol,
  { inputs, output, gap }: { readonly inputs: readonly Point[]; readonly output: Point; readonly gap: number },
): readonly { readonly pin: Point; readonly d: string }[] {
  const X = (x: number): number => at.x + at.scale * (at.mirrored ? SYMBOL.width - x : x);
  const Y = (y: number): number => at.y + at.scale * y;
  const out = at.mirrored ? -1 : 1;
  const middle = Y(SYMBOL.height / 2);
  // What goes up leaves above what goes down, and the pin that lies furthest from the output goes round the others, so that no line crosses one.
  const up = (p: Point): boolean => p.y < middle;
  const order = inputs
    .map((pin, i) => ({ pin, i }))
    .sort(
      (a, b) =>
        Number(up(b.pin)) - Number(up(a.pin)) || (up(a.pin) ? out * (b.pin.x - a.pin.x) : out * (a.pin.x - b.pin.x)),
    );
  const leads = order.map(({ pin }, k) => {
    const y = Y(((k + 0.5) * SYMBOL.height) / inputs.length);
    const nth = up(pin) ? k : inputs.length - 1 - k;
    const side = X(2) - out * gap * (1 + nth);
    const level = up(pin) ? Y(0) - gap * (1 + nth) : Y(SYMBOL.height) + gap * (1 + nth);
    return { pin, d: `M${X(6)},${y} H${side} V${level} H${pin.x} V${pin.y}` };
  });
  const level = up(output) ? Y(0) - gap : Y(SYMBOL.height) + gap;
  const tip = X(outputX(kind, form));
  return [...leads, { pin: output, d: `M${tip},${middle} H${tip + out * gap} V${level} H${output.x} V${output.y}` }];
}

/** A box that stands for a unit without a symbol: its middle, and half of its size. */
export interface UnitBox extends Point {
  readonly halfWidth: number;
  readonly halfHeight: number;
}

/**
 * Thin lines from the box of a unit to its pins, as SVG paths. The pins of each side share that edge of the box in their
 * order; each line leaves straight, runs beside at a level of its own and enters its pin straight, so that none crosses another.
 */
export function boxLeads(
  box: UnitBox,
  pins: readonly Point[],
  gap: number,
): readonly { readonly pin: Point; readonly d: string }[] {
  return [true, false].flatMap((isUp) => {
    const side = pins.filter((p) => p.y < box.y === isUp).sort((a, b) => a.x - b.x);
    const exits = side.map((pin, i) => ({
      pin,
      x: box.x - box.halfWidth + ((i + 0.5) * 2 * box.halfWidth) / side.length,
    }));
    const edge = isUp ? box.y - box.halfHeight : box.y + box.halfHeight;
    // What goes out furthest runs nearest to the box: the lines on its way are passed below their own levels.
    const left = exits.filter((e) => e.pin.x < e.x);
    const right = exits.filter((e) => e.pin.x >= e.x).reverse();
    return [left, right].flatMap((list) =>
      list.map(({ pin, x }, nth) => {
        const level = edge + (isUp ? -1 : 1) * gap * (nth + 1);
        return { pin, d: `M${x},${edge} V${level} H${pin.x} V${pin.y}` };
      }),
    );
  });
}
