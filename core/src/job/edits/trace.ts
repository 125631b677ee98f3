import {
  MOST_NUMBER_BITS,
  MOST_NUMBERS,
  MOST_ORDERED,
  MOST_TRACED,
  TRACE_LETTERS,
  type TraceSetup,
} from '../trace-setup';
import { type EditKinds, never } from './kind';

/** An edit of how the trace is looked at. */
export type TraceEdit = { readonly kind: 'arrange-trace'; readonly trace: TraceSetup };

/** Edits of how the trace is looked at. */
export const traceEdits: EditKinds<TraceEdit> = {
  'arrange-trace': {
    refuses: never,
    apply: (draft, { trace }) => {
      const { pins, order, numbers, speed, marks } = trace;
      const named = (most: number) => (name: string) => name !== '' && name.length <= most;
      draft.trace = {
        pins: pins.filter(named(TRACE_LETTERS.pin)).slice(0, MOST_TRACED),
        order: order.filter(named(TRACE_LETTERS.row)).slice(0, MOST_ORDERED),
        // A number of fewer than two bits is none.
        numbers: numbers
          .filter((n) => named(TRACE_LETTERS.row)(n.name) && n.of.length > 1 && n.of.every(named(TRACE_LETTERS.pin)))
          .slice(0, MOST_NUMBERS)
          .map((n) => ({ ...n, of: n.of.slice(0, MOST_NUMBER_BITS) })),
        ...(speed !== undefined && { speed }),
        ...(marks && { marks: { ...marks } }),
      };
    },
    says: () => 'arranging the trace',
  },
};
