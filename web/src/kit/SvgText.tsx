import type { ReactNode } from 'react';
import { font as family } from '../base/colours';

interface SvgTextProps {
  readonly x: number;
  readonly y: number;
  /** In the drawing's own units. */
  readonly size: number;
  readonly fill: string;
  readonly font?: 'mono' | 'heading' | 'body';
  readonly weight?: 400 | 600;
  readonly anchor?: 'start' | 'middle' | 'end';
  readonly children: ReactNode;
}

/** Text in a drawing. Set by style, since the page's style reset outranks SVG's own attributes. */
export function SvgText({ x, y, size, fill, font = 'mono', weight = 400, anchor = 'middle', children }: SvgTextProps) {
  const style = { fontSize: `${size}px`, fontFamily: family(font), fontWeight: weight, fill };
  return (
    <text x={x} y={y} textAnchor={anchor} style={style}>
      {children}
    </text>
  );
}

/** Width of a letter of the monospaced font against its size. */
const MONO = 0.6;

interface ScatteredTextProps extends Pick<SvgTextProps, 'size' | 'fill' | 'weight'> {
  readonly labels: readonly { readonly x: number; readonly y: number; readonly text: string }[];
}

/** Many short labels as one element, each letter at its place, each label about its `x`: a board has a thousand of them. */
export function ScatteredText({ labels, size, fill, weight = 400 }: ScatteredTextProps) {
  const letters = labels.flatMap(({ x, y, text }) =>
    [...text].map((letter, i) => ({ letter, x: x + (i - (text.length - 1) / 2) * MONO * size, y })),
  );
  const at = (of: 'x' | 'y'): string => letters.map((l) => Number(l[of].toFixed(2))).join(' ');
  const style = { fontSize: `${size}px`, fontFamily: family('mono'), fontWeight: weight, fill };
  return (
    <text x={at('x')} y={at('y')} textAnchor="middle" style={style}>
      {letters.map((l) => l.letter).join('')}
    </text>
  );
}
