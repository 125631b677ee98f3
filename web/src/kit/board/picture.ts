/** Millimetres from hole to hole, the drawing's unit. */
const PITCH_MM = 2.54;
/** Points of a PNG to a unit: 300 to the inch; fewer where a side would be longer than MAX_SIDE. */
const POINTS = 30;
const MAX_SIDE = 16_000;

/**
 * A drawing as a picture that stands by itself, true to scale: printed at 100 % its holes are 2.54 mm apart. Colours
 * and fonts that the page's style sheet names are written out.
 */
export function pictureOf(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = sizeOf(svg);
  copy.setAttribute('width', `${mm(width)}mm`);
  copy.setAttribute('height', `${mm(height)}mm`);
  copy.removeAttribute('style');
  const style = getComputedStyle(document.documentElement);
  const text = new XMLSerializer().serializeToString(copy);
  // A name may stand for another name: the fonts do.
  return resolved(resolved(text, style), style);
}

const mm = (units: number): string => (units * PITCH_MM).toFixed(2);

function resolved(text: string, style: CSSStyleDeclaration): string {
  return text.replace(/var\((--[\w-]+)\)/g, (_, name: string) =>
    (style.getPropertyValue(name).trim() || 'currentColor').replaceAll('"', "'"),
  );
}

function sizeOf(svg: SVGSVGElement): { width: number; height: number } {
  const [, , width = 1, height = 1] = (svg.getAttribute('viewBox') ?? '').split(/\s+/).map(Number);
  return { width, height };
}

/** Width and height in points of a drawing's PNG. */
export function pointsOf(svg: SVGSVGElement): { width: number; height: number } {
  const { width, height } = sizeOf(svg);
  const points = Math.min(POINTS, MAX_SIDE / Math.max(width, height));
  return { width: Math.round(width * points), height: Math.round(height * points) };
}

/** The picture as PNG; rejects when the browser cannot paint it. */
export async function pngOf(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = pointsOf(svg);
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(pictureOf(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.drawImage(image, 0, 0, width, height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large'))), 'image/png'),
  );
}
