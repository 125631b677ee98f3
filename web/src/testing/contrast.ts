/** Red, green and blue of a colour in hexadecimal, as light: 0 to 1. */
export function linear(hex: string): readonly [number, number, number] {
  const part = (i: number): number => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  return [part(1), part(3), part(5)];
}

/** Relative luminance as WCAG 2.2 defines it. */
export function luminance(hex: string): number {
  const [r, g, b] = linear(hex);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast as WCAG 2.2 defines it: 1 to 21. */
export function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

/** A colour over another one, as strong as `opacity` says. */
export function over(top: string, below: string, opacity: number): string {
  const part = (i: number): string => {
    const [a, b] = [top, below].map((hex) => Number.parseInt(hex.slice(i, i + 2), 16)) as [number, number];
    return Math.round(opacity * a + (1 - opacity) * b)
      .toString(16)
      .padStart(2, '0');
  };
  return `#${part(1)}${part(3)}${part(5)}`;
}
