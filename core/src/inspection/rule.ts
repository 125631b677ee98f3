import type { Finding, FindingCode } from '../finding';
import type { Context } from './context';

/**
 * One thing that can be wrong with a board. `id` is the code of its findings and the name of its
 * file. `coveredBy` lists codes whose findings, on the same part, are the cause of this one: then this
 * one is left unsaid.
 */
export interface Rule {
  readonly id: FindingCode;
  readonly check: (context: Context) => Iterable<Finding>;
  /** It looks at nothing but what is seated where: as long as that stays, so do its findings. */
  readonly partsAlone?: true;
  readonly coveredBy?: readonly FindingCode[];
  /** The same, for findings at the very place: that pin or jumper. */
  readonly coveredAtPlace?: readonly FindingCode[];
}
