import type { Packing } from '@saddlebag/core';
import { drivenBy, typeOf } from '@saddlebag/core';
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
  for (const { units, ...named } of packing?.packages ?? []) {
    const type = typeOf(named);
    units.forEach((use, i) => {
      for (const [k, net] of (use ? drivenBy(use) : []).entries())
        gates.set(`${named.ref}.${type?.units[i]?.outputs[k]}`, net);
    });
  }
  return (pin) => gates.get(pin);
}
