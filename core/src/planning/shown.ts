import { type FittedSignals, type Fitting, fittingWords, type LedColour } from '../design';
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
  // A signal that is an input too may say what it comes from as well.
  const ofOutputs = fittings.filter(({ fitting }) => fittingWords.out.some((word) => word === fitting.kind));
  const fittingOf = new Map(ofOutputs.flatMap((f) => f.signals.map((name) => [name, f] as const)));
  const isPlain = (o: Output): boolean => !fittingOf.has(o.name);
  const shown: Shown[] = [];
  for (let i = 0; i < outputs.length; ) {
    const first = elementAt(outputs, i);
    const fitted = fittingOf.get(first.name);
    const run = fitted ? outputs.filter((o) => fittingOf.get(o.name) === fitted) : busFrom(outputs.slice(i), isPlain);
    const together = fitted ? run : run.slice(0, run.length - (run.length % BAR_LAMPS));
    const isBar = together.length > 0 && !run.some((o) => isOpen(o.net));
    if (fitted) shown.push(...fittedTogether(fitted.fitting, together));
    else shown.push(...(isBar ? inBars(together) : [{ kind: 'lamp', output: first } as const]));
    i += fitted || isBar ? together.length : 1;
  }
  return sideBySide(shown);
}

/** What outputs of one line of the sheet are shown on. Lines follow one another as outputs do. */
function fittedTogether(fitting: Fitting, outputs: readonly Output[]): Shown[] {
  if (fitting.kind === 'display') return [{ kind: 'digits', digits: [{ signals: outputs, low: fitting.low }] }];
  if (fitting.kind === 'bar') return inBars(outputs);
  const colour = fitting.kind === 'lamp' ? { colour: fitting.colour } : {};
  return outputs.map((output) =>
    fitting.kind === 'buzzer' ? { kind: 'buzzer', output } : { kind: 'lamp', output, ...colour },
  );
}

/** Digits that follow one another, as one. */
function sideBySide(all: readonly Shown[]): Shown[] {
  const made: Shown[] = [];
  for (const one of all) {
    const last = made.at(-1);
    if (one.kind === 'digits' && last?.kind === 'digits')
      made[made.length - 1] = { kind: 'digits', digits: [...last.digits, ...one.digits] };
    else made.push(one);
  }
  return made;
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
