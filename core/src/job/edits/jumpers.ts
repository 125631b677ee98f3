import type { Draft } from 'immer';
import {
  type Board,
  checkCorners,
  checkJumper,
  type Jumper,
  type JumperColour,
  jumperOf,
  type Point,
  withEnds,
} from '../../board';
import { entryOf } from '../../element-at';
import { type Finding, finding } from '../../finding';
import type { EditKinds } from './kind';

/** Edits of jumpers. */
export type JumperEdit =
  | { readonly kind: 'lay-jumper'; readonly jumper: Jumper }
  | { readonly kind: 'pull-jumper'; readonly id: string }
  | { readonly kind: 're-plug'; readonly id: string; readonly end: 'from' | 'to'; readonly hole: string }
  | { readonly kind: 'colour'; readonly ids: readonly string[]; readonly colour: JumperColour | null }
  | { readonly kind: 'straighten'; readonly ids: readonly string[]; readonly straight: boolean }
  | { readonly kind: 'bend'; readonly id: string; readonly corners: readonly Point[] };

/** Edits of jumpers: laid, taken away, moved, coloured, bent. */
export const jumperEdits: EditKinds<JumperEdit> = {
  'lay-jumper': {
    refuses: ({ board }, { jumper }) =>
      jumperOf(board, jumper.id) ? [finding('hand/ref-taken', [], { ref: jumper.id })] : checkJumper(board, jumper),
    apply: ({ board }, { jumper }) => put(board, jumper),
    says: ({ jumper }) => `jumper ${jumper.id}`,
  },
  'pull-jumper': {
    refuses: ({ board }, { id }) => missing(board, [id]),
    apply: ({ board }, { id }) => {
      delete board.jumpers[id];
    },
    says: ({ id }) => `pull ${id}`,
  },
  're-plug': {
    refuses: ({ board }, { id, end, hole }) => {
      const jumper = jumperOf(board, id);
      return jumper ? checkJumper(board, { ...jumper, [end]: hole }) : missing(board, [id]);
    },
    apply: ({ board }, { id, end, hole }, job) => {
      const jumper = entryOf(job.board.jumpers, id);
      put(board, withEnds(jumper, end === 'from' ? hole : jumper.from, end === 'to' ? hole : jumper.to));
    },
    says: ({ id }) => `re-plug ${id}`,
  },
  colour: {
    refuses: ({ board }, { ids }) => missing(board, ids),
    apply: ({ board }, { ids, colour }) => {
      for (const id of ids) {
        const jumper = entryOf(board.jumpers, id);
        if (colour) jumper.colour = colour;
        else delete jumper.colour;
      }
    },
    says: ({ ids }) => `colour of ${ids.join(', ')}`,
  },
  straighten: {
    refuses: ({ board }, { ids }) => missing(board, ids),
    apply: ({ board }, { ids, straight }) => {
      for (const id of ids) {
        const jumper = entryOf(board.jumpers, id);
        if (straight) jumper.route = 'straight';
        else delete jumper.route;
        delete jumper.corners;
      }
    },
    says: ({ ids }) => `route of ${ids.join(', ')}`,
  },
  bend: {
    refuses: ({ board }, { id, corners }) =>
      jumperOf(board, id) ? checkCorners(board, id, corners) : missing(board, [id]),
    apply: ({ board }, { id, corners }) => {
      const jumper = entryOf(board.jumpers, id);
      delete jumper.route;
      jumper.corners = [...corners];
      if (corners.length === 0) delete jumper.corners;
    },
    says: ({ id }) => `route of ${id}`,
  },
};

function put(board: Draft<Board>, jumper: Jumper): void {
  board.jumpers[jumper.id] = jumper as Draft<Jumper>;
}

/** A finding for each jumper that is not there. */
function missing(board: Board, ids: readonly string[]): Finding[] {
  return ids.flatMap((id) => (jumperOf(board, id) ? [] : [finding('hand/no-such-jumper', [], { id })]));
}
