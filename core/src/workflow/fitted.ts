import { labelPlacesOf, type SeatedPart } from '../board';
import { innerOf, segmentsOf, typeOf } from '../catalogue';
import type { FittedSignals } from '../design';

/**
 * Whether a seated part is what a sheet wants a signal to come from or to be shown on, at its contact or lamp `of` (`''` where there is one). Which switch it
 * is does not matter to a sheet that asks for a switch.
 */
export function isFitted(part: SeatedPart, of: string, { fitting, signals }: FittedSignals, signal: string): boolean {
  const type = typeOf(part);
  if (fitting.kind === 'lamp')
    return type?.kind === 'led' && innerOf(type).lamps.some(({ colour = 'red' }) => colour === fitting.colour);
  if (fitting.kind === 'bar') return type?.kind === 'led-bar';
  if (fitting.kind === 'buzzer') return type?.kind === 'buzzer';
  if (fitting.kind === 'button') return type?.kind === 'push-button';
  if (fitting.kind === 'clock') return type?.kind === 'clock' && (part.value ?? 1) === fitting.hertz;
  if (fitting.kind === 'timer') return innerOf(type).runs;
  if (fitting.kind === 'switch') return type?.kind !== 'clock' && !innerOf(type).runs;
  const place = labelPlacesOf(part).find((p) => p.name === of);
  return (
    fitting.kind === 'display' &&
    type?.kind === 'display' &&
    place?.inverted === fitting.low &&
    segmentsOf(type)[signals.indexOf(signal)]?.name === of
  );
}
