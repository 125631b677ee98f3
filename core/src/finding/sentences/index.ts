import { fromOutsideSentences } from './from-outside';
import { handsSentences } from './hands';
import { inspectionSentences } from './inspection';
import { packingSentences } from './packing';
import { sheetSentences } from './sheet';
import { simulationSentences } from './simulation';

/**
 * Every sentence, by the code of its finding: the one place that turns codes and facts into words. The compiler demands each
 * fact that a sentence names where the finding is made.
 */
export const sentences = {
  ...sheetSentences,
  ...fromOutsideSentences,
  ...packingSentences,
  ...handsSentences,
  ...inspectionSentences,
  ...simulationSentences,
} as const;

/** Every code a finding can have. */
export type FindingCode = keyof typeof sentences;

type Slots<S extends string> = S extends `${string}{${infer K}}${infer Rest}` ? K | Slots<Rest> : never;

/** The facts that the sentence of code `C` needs, by name. */
export type FactsOf<C extends FindingCode> = {
  readonly [K in Slots<(typeof sentences)[C]['says']> | Slots<(typeof sentences)[C]['todo']>]: string | number;
};
