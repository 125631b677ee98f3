import type { Packing } from '@saddlebag/core';
import { drivenBy, partType } from '@saddlebag/core';
import { useMemo } from 'react';
import type { ReadBoard } from '../../app/job-context';
import { type BoardScene, boardScene } from './scene';

/** The scene of a board, made again only when the board or its names change. */
export function useScene(read: ReadBoard): BoardScene {
  return useMemo(() => boardScene(read), [read]);
}

/** Which gate of the design sits in the unit whose output is at a pin. */
export function gatesByPin(packing: Packing | null): (pin: string) => string | undefined {
  const gates = new Map<string, string>();
  for (const { ref, part, units } of packing?.packages ?? [])
    units.forEach((use, i) => {
      for (const [k, net] of (use ? drivenBy(use) : []).entries())
        gates.set(`${ref}.${partType(part)?.units[i]?.outputs[k]}`, net);
    });
  return (pin) => gates.get(pin);
}
