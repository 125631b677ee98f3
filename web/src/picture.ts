/** The one door of the web for the command line: a board, or a trace, as the picture that the screen takes out. */
import { type Job, type Packing, plainTrace, type Reading, type Trace, windowOf } from '@saddlebag/core';
import { coloursOf, readBoard, signalsOf } from './base/job-context';
import { pictureOf, pointsOf, pointsPerMetreOf, type Size } from './kit/board/picture';

export { withScale } from './kit/board/png-scale';

import { boardScene } from './kit/board/scene';
import { gatesByPin } from './kit/board/use-scene';
import { picturedRows, tracePicture } from './kit/trace-picture';

/** What a picture of a job is made from: the job, what its sheet reads as, the packing that wires and chips are named by, and the theme. */
export interface PictureWanted {
  readonly job: Job;
  readonly reading: Reading;
  readonly packing: Packing | null;
  readonly theme?: 'day' | 'dim';
}

/** The SVG of a job's board, and how many points its PNG has. */
export function boardPicture({ job, reading, packing, theme = 'day' }: PictureWanted): {
  readonly svg: string;
  readonly points: Size;
  readonly pointsPerMetre: number;
} {
  const read = readBoard(job.board, packing);
  const scene = boardScene(read);
  const colours = coloursOf(signalsOf(reading, packing), packing, read);
  const shown = { scene, colours, overlay: { gateAt: gatesByPin(read.wired) } };
  return { svg: pictureOf(shown, job.name, theme), points: pointsOf(scene), pointsPerMetre: pointsPerMetreOf(scene) };
}

/** Columns of a trace's picture: a point each. */
const COLUMNS = 720;

/** The SVG of all that a trace holds up to a moment, its rows as the job arranges them. */
export function traceDrawing({ name, trace: setup = plainTrace }: Job, trace: Trace, untilNs: number): string {
  const window = windowOf(trace, { spanNs: untilNs, endNs: untilNs, columns: COLUMNS }, untilNs);
  return tracePicture(name, window, picturedRows(window, setup));
}
