import type { FittedSignals, LedColour } from '../design';
import { elementAt } from '../element-at';
import type { Packing } from '../packing';
import { BAR_LAMPS } from './seats';

/** An output with the net that it shows. */
export type Output = Packing['outputs'][number];

/** What outputs are shown on, one after the other as they are seated. */
export type Shown =
  | { readonly kind: 'lamp'; readonly output: Output; readonly colour?: LedColour }
  | { readonly kind: 'bar'; readonly outputs: readonly Output[] }
  | { readonly kind: 'digits'; readonly digits: readonly ShownDigit[] }
  | { readonly kind: 'buzzer'; readonly output: Output };

/** The signals of a digit, from segment a on; `low`: segments light when low. */
export interface ShownDigit {
  readonly signals: readonly Output[];
  readonly low: boolean;
}

/**
 * What the outputs of a packing are shown on, in their order: as the sheet says; where it says nothing, eight wires of a bus that stand together on a
 * bar, unless one `isOpen` (a pull-up alone lifts it, and drives no network), the others on lamps. Displays that follow one another are side by side.
 */
export function shownOn(
  outputs: readonly Output[],
  fittings: readonly FittedSignals[],
  isOpen: (net: string) => boolean,
): Shown[] {
  const fittingOf = new Map(fittings.flatMap((f) => f.signals.map((name) => [name, f] as const)));
  const outputNamed = new Map(outputs.map((o) => [o.name, o]));
  const shown: Shown[] = [];
  const done = new Set<FittedSignals>();
  for (let i = 0; i < outputs.length; i++) {
    const output = elementAt(outputs, i);
    const fitted = fittingOf.get(output.name);
    if (!fitted) {
      const run = busFrom(outputs.slice(i), (o) => !fittingOf.has(o.name));
      const whole = run.length - (run.length % BAR_LAMPS);
      const isBar = whole > 0 && !run.some((o) => isOpen(o.net));
      if (isBar) shown.push(...inBars(run.slice(0, whole)));
      else shown.push({ kind: 'lamp', output });
      if (isBar) i += whole - 1;
      continue;
    }
    if (done.has(fitted)) continue;
    done.add(fitted);
    const together = fitted.signals.flatMap((name) => outputNamed.get(name) ?? []);
    const { fitting } = fitted;
    const last = shown.at(-1);
    if (fitting.kind === 'display') {
      const digit = { signals: together, low: fitting.low };
      if (last?.kind === 'digits') shown[shown.length - 1] = { kind: 'digits', digits: [...last.digits, digit] };
      else shown.push({ kind: 'digits', digits: [digit] });
    } else if (fitting.kind === 'bar') shown.push(...inBars(together));
    else if (fitting.kind === 'buzzer') shown.push({ kind: 'buzzer', output });
    else if (fitting.kind === 'lamp')
      shown.push(...together.map((o) => ({ kind: 'lamp', output: o, colour: fitting.colour }) as const));
  }
  return shown;
}

function inBars(outputs: readonly Output[]): Shown[] {
  const bars: Shown[] = [];
  for (let i = 0; i < outputs.length; i += BAR_LAMPS)
    bars.push({ kind: 'bar', outputs: outputs.slice(i, i + BAR_LAMPS) });
  return bars;
}

/** The wires of one bus from the first output on, as long as they follow one another upwards or downwards. */
function busFrom(outputs: readonly Output[], belongs: (output: Output) => boolean): Output[] {
  const wireOf = ({ name }: Output) => /^(.*?)(\d+)$/.exec(name);
  const [first, second] = [outputs[0], outputs[1]].map((o) => (o ? wireOf(o) : null));
  if (!first || !second) return outputs.slice(0, 1);
  const step = Number(second[2]) - Number(first[2]);
  const count = outputs.findIndex((o, i) => {
    const wire = wireOf(o);
    return !belongs(o) || wire?.[1] !== first[1] || Number(wire?.[2]) !== Number(first[2]) + step * i;
  });
  return Math.abs(step) === 1 ? outputs.slice(0, count < 0 ? outputs.length : count) : outputs.slice(0, 1);
}
