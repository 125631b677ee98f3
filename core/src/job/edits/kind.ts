import type { Draft } from 'immer';
import type { Finding } from '../../finding';
import type { Job } from '../job';

/** One kind of edit: whether it may be, what it does, and its words. */
export interface EditKind<E> {
  /** What stands in its way; empty when it may be done. */
  readonly refuses: (job: Job, edit: E) => readonly Finding[];
  /** Does it to a draft of `job`, once nothing stands in its way. */
  readonly apply: (draft: Draft<Job>, edit: E, job: Job) => void;
  /** What it does, for the undo button: `jumper w12`. */
  readonly says: (edit: E) => string;
}

/** The kinds of a union of edits, by name: the compiler asks for each of them. */
export type EditKinds<E extends { readonly kind: string }> = {
  readonly [K in E['kind']]: EditKind<Extract<E, { kind: K }>>;
};

/** For kinds that nothing stands in the way of. */
export const never = (): readonly Finding[] => [];
