import type { GateKind } from '@saddlebag/core';
import { colour } from '../base/colours';
import { SvgText } from './SvgText';

/** Size of a gate symbol, bubble aside, in its own units; inputs enter at the left, the output leaves at the right in the middle. */
export const SYMBOL = { width: 40, height: 32, bubble: 7 } as const;

/** A gate, or a buffer, which only passes its input on. */
export type SymbolKind = GateKind | 'buffer';

const inverting = new Set<SymbolKind>(['not', 'nand', 'nor', 'xnor']);
const bodies: Readonly<Record<SymbolKind, string>> = {
  buffer: 'M6,3 L36,16 L6,29 Z',
  and: 'M2,1 H22 A15,15 0 0 1 22,31 H2 Z',
  nand: 'M2,1 H22 A15,15 0 0 1 22,31 H2 Z',
  or: 'M1,1 H12 C24,1 33,8 38,16 C33,24 24,31 12,31 H1 C8,21 8,11 1,1 Z',
  nor: 'M1,1 H12 C24,1 33,8 38,16 C33,24 24,31 12,31 H1 C8,21 8,11 1,1 Z',
  xor: 'M6,1 H14 C25,1 33,8 38,16 C33,24 25,31 14,31 H6 C13,21 13,11 6,1 Z',
  xnor: 'M6,1 H14 C25,1 33,8 38,16 C33,24 25,31 14,31 H6 C13,21 13,11 6,1 Z',
  not: 'M6,3 L36,16 L6,29 Z',
};
/** Where the body ends at the right, and its qualifying mark in the rectangular form (IEC 60617-12). */
const tips: Readonly<Record<SymbolKind, number>> = {
  buffer: 36,
  and: 37,
  nand: 37,
  or: 38,
  nor: 38,
  xor: 38,
  xnor: 38,
  not: 36,
};
const marks: Readonly<Record<SymbolKind, string>> = {
  buffer: '1',
  and: '&',
  nand: '&',
  or: '≥1',
  nor: '≥1',
  xor: '=1',
  xnor: '=1',
  not: '1',
};

interface GateSymbolProps {
  readonly kind: SymbolKind;
  readonly form: 'distinctive' | 'rectangular';
  readonly lit?: boolean;
  readonly spare?: boolean;
  readonly stroke?: number;
}

/** A gate symbol, distinctive (IEEE 91a) or rectangular; filled when its output is high, dashed when the gate is spare. */
export function GateSymbol({ kind, form, lit = false, spare = false, stroke = 2 }: GateSymbolProps) {
  const line = spare ? colour('soft') : colour('boneLine');
  const paint = {
    fill: spare ? 'none' : lit ? colour('lit') : '#FFFDF6',
    stroke: line,
    strokeWidth: stroke,
    ...(spare && { strokeDasharray: '3.5 3' }),
  };
  const tip = form === 'rectangular' ? 36 : tips[kind];
  const exclusive = kind === 'xor' || kind === 'xnor';
  return (
    <g>
      {form === 'rectangular' ? (
        <>
          <rect x={4} y={1} width={32} height={30} {...paint} />
          <SvgText x={20} y={21} size={15} fill={line} room={30}>
            {marks[kind]}
          </SvgText>
        </>
      ) : (
        <>
          <path d={bodies[kind]} strokeLinejoin="round" {...paint} />
          {exclusive && <path d="M1,1 C8,11 8,21 1,31" {...paint} fill="none" />}
        </>
      )}
      {inverting.has(kind) && <circle cx={tip + 3.6} cy={16} r={3.4} {...paint} strokeDasharray={undefined} />}
    </g>
  );
}

/** The x at which a symbol's output leaves. */
export function outputX(kind: SymbolKind, form: 'distinctive' | 'rectangular'): number {
  return (form === 'rectangular' ? 36 : tips[kind]) + (inverting.has(kind) ? 7 : 0);
}
