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
