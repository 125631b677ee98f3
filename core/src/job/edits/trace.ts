import type { TraceSetup } from '../trace-setup';
import { type EditKinds, never } from './kind';

/** An edit of how the trace is looked at. */
export type TraceEdit = { readonly kind: 'arrange-trace'; readonly trace: TraceSetup };

/** Edits of how the trace is looked at. */
export const traceEdits: EditKinds<TraceEdit> = {
  'arrange-trace': {
    refuses: never,
    apply: (draft, { trace }) => {
      const { pins, order, numbers, speed, marks } = trace;
      draft.trace = {
        pins: [...pins],
        order: [...order],
        numbers: numbers.map((n) => ({ ...n, of: [...n.of] })),
        ...(speed !== undefined && { speed }),
        ...(marks && { marks: { ...marks } }),
      };
    },
    says: () => 'arranging the trace',
  },
};
