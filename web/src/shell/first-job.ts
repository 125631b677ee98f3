import { isBare, placeNamed } from '@saddlebag/core';
import type { JobView } from '../base/job-context';
import type { StepId } from './steps';

/** What the first job begins with when it is written for the newcomer. */
export const firstSheet = 'in A B\nout Y\nY = A & B\n';

/** What a newcomer does next on the first job, and what one press does of it. */
export interface Leading {
  readonly number: number;
  readonly says: string;
  readonly press: { readonly says: string; readonly does: 'write' | 'end' | { readonly turnsTo: StepId } } | null;
}

/** How many things there are to do. */
export const LEADINGS = 6;

/** What comes next, from what is there: nothing of it is remembered, so that undo and detours are led on from as well. */
export function leadingOf(view: Pick<JobView, 'job' | 'packing' | 'bench' | 'reading'>, step: StepId): Leading {
  const { job, packing, bench, reading } = view;
  const outputs = reading?.design?.outputs ?? [];
  const isSound = reading?.findings.every((f) => f.severity !== 'error') ?? false;
  if (outputs.length === 0 || !isSound)
    return {
      number: 1,
      says: 'Write what the lamp shall do. In the sheet: in A B, below it out Y, below it Y = A & B.',
      press: { says: 'Write it for me', does: 'write' },
    };
  if (isBare(job.board)) {
    if (step !== 'board')
      return {
        number: 2,
        says: packing
          ? `The gate is drawn, and Pack has found its chip: ${packing.packages.map((p) => p.part).join(', ')}. Now to the board.`
          : 'The gate is drawn, and Pack looks for its chip. Now to the board.',
        press: { says: 'To Board', does: { turnsTo: 'board' } },
      };
    return {
      number: 3,
      says: 'Press Lay it all out: supply, switches, chip, lamp and every wire find their holes.',
      press: null,
    };
  }
  if (step !== 'power')
    return {
      number: 4,
      says: 'The board is wired, and Inspect finds no problems. Now put power on it.',
      press: { says: 'To Power up', does: { turnsTo: 'power' } },
    };
  if (!bench.snapshot().on) return { number: 4, says: 'Press Power on, or the space bar.', press: null };
  const isLit = outputs.some(({ name }) => {
    const lamp = placeNamed(job.board, 'show', name)?.called;
    return lamp !== undefined && bench.led(lamp) === 'lit';
  });
  if (!isLit)
    return {
      number: 5,
      says: 'Turn both switches on: press them, or the keys A and B. The lamp lights when both are.',
      press: null,
    };
  return {
    number: 6,
    says: 'The lamp is lit. That was a whole job; Build card shows how to build it on a bench, and the samples show more.',
    press: { says: 'Done', does: 'end' },
  };
}
