import { renderToStaticMarkup } from 'react-dom/server';
import { writtenOut } from '../../base/colours';
import { BoardPicture, type BoardProps, viewBoxOf } from './BoardDrawing';
import { withScale } from './png-scale';
import type { BoardScene } from './scene';
import { typefaces } from './typefaces';

/** Millimetres from hole to hole, the drawing's unit. */
const PITCH_MM = 2.54;
/** Points of a PNG to a unit: 300 to the inch; fewer where a side would be longer than MAX_SIDE. */
const POINTS = 30;
const MAX_SIDE = 16_000;

/** Width and height of a picture, in the unit that it is asked for. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/**
 * A board as an SVG that stands by itself, true to scale: printed at 100 % its holes are 2.54 mm apart. Colours and fonts
 * that a page's style sheet would name are written out. Needs no page, so that the command line draws the same.
 */
export function pictureOf(shown: BoardProps, title: string, theme: 'day' | 'dim' = 'day'): string {
  const { width, height } = viewBoxOf(shown.scene);
  const size = { width: `${mm(width)}mm`, height: `${mm(height)}mm` };
  const drawn = renderToStaticMarkup(
    <BoardPicture {...shown} title={title} size={size}>
      <style>{typefaces}</style>
    </BoardPicture>,
  );
  return writtenOut(drawn, theme);
}

const mm = (units: number): string => (units * PITCH_MM).toFixed(2);

/** How many points of a board's PNG make a metre. */
export function pointsPerMetreOf(scene: BoardScene): number {
  return (1000 * pointsOf(scene).width) / (viewBoxOf(scene).width * PITCH_MM);
}

/** Width and height in points of a board's PNG. */
export function pointsOf(scene: BoardScene): Size {
  const { width, height } = viewBoxOf(scene);
  const points = Math.min(POINTS, MAX_SIDE / Math.max(width, height));
  return { width: Math.round(width * points), height: Math.round(height * points) };
}

/** An SVG as a PNG of so many points, which says how many make a metre; rejects when the browser cannot paint it. */
export async function pngOf(svg: string, { width, height }: Size, pointsPerMetre: number): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.drawImage(image, 0, 0, width, height);
  const painted = await new Promise<Blob>((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large'))), 'image/png'),
  );
  const bytes = new Uint8Array(await painted.arrayBuffer());
  return new Blob([withScale(bytes, pointsPerMetre)], { type: 'image/png' });
}
