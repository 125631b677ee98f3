import * as core from '@saddlebag/core';
import { inOwnMarks } from './numbers';

/** What core puts into words, with numbers as the reader's language writes them. Screens take these, and not core's own (words.test.ts). */

/** A finding in words. */
export const says = (finding: core.Finding): string => inOwnMarks(core.says(finding));
/** What to do about a finding. */
export const remedy = (finding: core.Finding): string => inOwnMarks(core.remedy(finding));
/** So many nanoseconds, in the largest unit of which there is one. */
export const timeWords = (ns: number): string => inOwnMarks(core.timeWords(ns));
/** So many hertz. */
export const hertzWords = (hertz: number): string => inOwnMarks(core.hertzWords(hertz));
/** The value of a part with its unit. */
export const shownValue = (kind: string, value: number | undefined): string => inOwnMarks(core.shownValue(kind, value));
