import type { ReactNode } from 'react';
import { font as family } from '../base/colours';
import { useGrowth } from './legible';

interface SvgTextProps {
  readonly x: number;
  readonly y: number;
  /** In the drawing's own units. */
  readonly size: number;
  readonly fill: string;
  readonly font?: 'mono' | 'heading' | 'body';
  readonly weight?: 400 | 600;
  readonly anchor?: 'start' | 'middle' | 'end';
  /** How wide it may become where it has to be larger to be read. Where that is too little it is cut, or left out. */
  readonly room?: number;
  readonly isCut?: boolean;
  readonly children: ReactNode;
}

/** Width of a letter of the monospaced font against its size. */
const MONO = 0.6;
/** Half the height of a capital against its size: larger letters stay about the same middle. */
const HALF_HEIGHT = 0.35;

/** Text in a drawing, never smaller than can be read. Set by style, since the page's style reset outranks SVG's own attributes. */
export function SvgText({
  x,
  y,
  size,
  fill,
  font = 'mono',
  weight = 400,
  anchor = 'middle',
  room,
  isCut = false,
  children,
}: SvgTextProps) {
  const grown = size * useGrowth(size);
  const text = [children].flat().join('');
  const letters = room === undefined || grown === size ? text.length : Math.floor(room / (MONO * grown));
  if (letters < text.length && (!isCut || letters < 1)) return null;
  const style = { fontSize: `${grown}px`, fontFamily: family(font), fontWeight: weight, fill };
  return (
    <text x={x} y={y + HALF_HEIGHT * (grown - size)} textAnchor={anchor} style={style}>
      {letters < text.length ? text.slice(0, letters) : children}
    </text>
  );
}

interface ScatteredTextProps extends Pick<SvgTextProps, 'size' | 'fill' | 'weight'> {
  /** Where they have to be larger and do not fit their room, those that count stay. */
  readonly labels: readonly {
    readonly x: number;
    readonly y: number;
    readonly text: string;
    readonly counts?: boolean;
  }[];
  readonly room?: number;
}

/** Many short labels as one element, each letter at its place, each label about its `x`: a board has a thousand of them. */
export function ScatteredText({ labels, size, fill, weight = 400, room }: ScatteredTextProps) {
  const grown = size * useGrowth(size);
  const fits = (text: string): boolean => room === undefined || grown === size || text.length * MONO * grown <= room;
  const letters = labels
    .filter(({ text, counts }) => fits(text) || counts)
    .flatMap(({ x, y, text }) =>
      [...text].map((letter, i) => ({
        letter,
        x: x + (i - (text.length - 1) / 2) * MONO * grown,
        y: y + HALF_HEIGHT * (grown - size),
      })),
    );
  const at = (of: 'x' | 'y'): string => letters.map((l) => Number(l[of].toFixed(2))).join(' ');
  const style = { fontSize: `${grown}px`, fontFamily: family('mono'), fontWeight: weight, fill };
  return (
    <text x={at('x')} y={at('y')} textAnchor="middle" style={style}>
      {letters.map((l) => l.letter).join('')}
    </text>
  );
}
