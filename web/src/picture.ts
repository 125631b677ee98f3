/** The one door of the web for the command line: a board as the picture that the screen takes out. */
import type { Job, Packing, Reading } from '@saddlebag/core';
import { coloursOf, readBoard, signalsOf } from './base/job-context';
import { pictureOf, pointsOf, type Size } from './kit/board/picture';
import { boardScene } from './kit/board/scene';
import { gatesByPin } from './kit/board/use-scene';

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
} {
  const read = readBoard(job.board, packing);
  const scene = boardScene(read);
  const colours = coloursOf(signalsOf(reading, packing), packing, read);
  const shown = { scene, colours, overlay: { gateAt: gatesByPin(read.wired) } };
  return { svg: pictureOf(shown, job.name, theme), points: pointsOf(scene) };
}
