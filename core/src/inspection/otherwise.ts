import type { Board } from '../board';
import { innerOf, type PartType, typeOf } from '../catalogue';
import type { Packing } from '../packing';

/**
 * Whether a board does without gates in chips and is built of transistors, diodes or analogue switches instead, whatever its packing has: then
 * there are no pins of gates that its wiring could be held to. What it does is still to be compared, by walking the table.
 */
export function isBuiltOtherwise(board: Board, packing: Packing | null): boolean {
  if (!packing) return false;
  const types = Object.values(board.parts).map(typeOf);
  const switches = (type: PartType | null): boolean => innerOf(type).devices.length > 0;
  return types.every((type) => type?.kind !== 'chip' || switches(type)) && types.some(switches);
}
