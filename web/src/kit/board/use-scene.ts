import { type Board, drivenBy, type Packing, type Paths, pinOf, typeOf } from '@saddlebag/core';
import { useEffect, useState } from 'react';
import type { ReadBoard } from '../../base/job-context';
import { stages } from '../../workers/stages';
import { tell } from '../notices';
import { learnRoutes, routesOf } from './routes';
import { type BoardScene, boardScene } from './scene';

const none: Paths = new Map();

/** The scene of each board that was read, with the ways its jumpers ran: steps that show the same board share it. */
const scenes = new WeakMap<ReadBoard, { readonly paths: Paths; readonly scene: BoardScene }>();

function sceneOf(read: ReadBoard, paths: Paths): BoardScene {
  const known = scenes.get(read);
  if (known?.paths === paths) return known.scene;
  const scene = boardScene(read, paths);
  scenes.set(read, { paths, scene });
  return scene;
}

/**
 * The scene of a board, made again only when the board or its names change. Where many jumpers are new the worker finds
 * their ways, and until then they are not drawn.
 */
export function useScene(read: ReadBoard): BoardScene {
  const { board } = read;
  const [, learned] = useState<Board | null>(null);
  const paths = routesOf(board);
  const isWaiting = paths === null;
  useEffect(() => {
    if (!isWaiting) return;
    stages()
      .route(board)
      .then((found) => {
        learnRoutes(board, found);
        learned(board);
      })
      .catch((e: unknown) => tell(`The wires could not be drawn: ${String(e)}`));
  }, [board, isWaiting]);
  return sceneOf(read, paths ?? none);
}

/** Which gate of the design sits in the unit whose output is at a pin. */
export function gatesByPin(packing: Packing | null): (pin: string) => string | undefined {
  const gates = new Map<string, string>();
  for (const { units, ...named } of packing?.packages ?? []) {
    const type = typeOf(named);
    units.forEach((use, i) => {
      for (const [k, net] of (use ? drivenBy(use) : []).entries())
        gates.set(pinOf(named.ref, type?.units[i]?.outputs[k] ?? ''), net);
    });
  }
  return (pin) => gates.get(pin);
}
