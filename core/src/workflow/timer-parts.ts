import { type Board, extractNets, leadsOf, type Nets, pinOf, type SeatedPart, spokenPin } from '../board';
import { readDesign, shownValue, typeOf } from '../catalogue';
import { type Netlist, printHertz, printSeconds } from '../design';
import { type FoundTimer, rhythmOf, type TimerValues, timersOf } from '../electrical';
import { type Finding, finding } from '../finding';
import type { Job } from '../job';
import { remembered } from '../memo';
import { looseNets, type Packing } from '../packing';
import { runningValues, timerPinsOf, timingsOf } from '../planning';
import { hertzWords, timeWords } from '../simulation';

/** A timer may be this much off what is wanted: as much as a value of the series E12 is from the next. */
const MOST_OFF = 0.1;

const periodOf = ({ law }: FoundTimer, values: TimerValues): number => {
  const { highS, lowS } = rhythmOf(law, values);
  return highS + (lowS ?? 0);
};

/** Whether a timer takes as long with the parts that it has as with others, or nearly. */
const isRight = (timer: FoundTimer, wanted: TimerValues): boolean =>
  Math.abs(periodOf(timer, timer.values) / periodOf(timer, wanted) - 1) <= MOST_OFF;

/** The labelled timers of a board that run by themselves at another rate than a sheet wants of their signals, by `hertzOf`. */
export function mistimed(
  board: Board,
  nets: Nets,
  hertzOf: (signal: string) => number | undefined,
): { readonly timer: FoundTimer; readonly signal: string; readonly hertz: number }[] {
  const found = timersOf(board, nets).filter(({ kind }) => kind === 'astable');
  return Object.values(board.parts).flatMap((part) => {
    const timer = found.find(({ pin }) => pin === timerPinsOf(part)?.output);
    const hertz = part.signal === undefined ? undefined : hertzOf(part.signal);
    if (!timer || part.signal === undefined || hertz === undefined) return [];
    return isRight(timer, runningValues(hertz)) ? [] : [{ timer, signal: part.signal, hertz }];
  });
}

/** The resistors and capacitors at a timer's discharge and threshold. */
export function timingPartsOf(board: Board, nets: Nets, timer: SeatedPart): string[] {
  const pins = timerPinsOf(timer);
  const at = [pins?.ends, pins?.empties].map((pin) => nets.ofPin.get(pin ?? ''));
  return Object.values(board.parts).flatMap((part) => {
    const kind = typeOf(part)?.kind;
    if (kind !== 'resistor' && kind !== 'capacitor') return [];
    const isThere = leadsOf(part).some((lead) => {
      const net = nets.ofPin.get(lead.pin);
      return net !== undefined && at.includes(net);
    });
    return isThere ? [part.ref] : [];
  });
}

/** The parts of a timer with the values that it should have: `R1 3 kΩ, R2 75 kΩ, C2 4.7 µF`. */
function withValues({ resistors, capacitor }: FoundTimer, { ohms, farads }: TimerValues): string {
  const named = resistors.map((ref, i) => `${ref}${shownValue('resistor', ohms[i])}`);
  return [...named, `${capacitor}${shownValue('capacitor', Number((farads * 1e9).toPrecision(3)))}`].join(', ');
}

/** Timers that run at another rate, and pulses that last for another time, than the sheet wants, with the parts that would do. */
export function wrongTimes({ board, sheet }: Job, packing: Packing | null): Finding[] {
  const netlist = timesIn(sheet);
  if (!netlist) return [];
  const nets = extractNets(board);
  const hertzOf = (signal: string): number | undefined => {
    const fitted = netlist.fittings.find((f) => f.fitting.kind === 'timer' && f.signals.includes(signal));
    return fitted?.fitting.kind === 'timer' ? fitted.fitting.hertz : undefined;
  };
  const rates = mistimed(board, nets, hertzOf).map(({ timer, signal, hertz }) =>
    finding('timer-rate', [{ kind: 'pin', pin: timer.pin }], {
      pin: spokenPin(timer.pin),
      runs: hertzWords(1 / periodOf(timer, timer.values)),
      signal,
      wanted: printHertz(hertz),
      parts: withValues(timer, runningValues(hertz)),
    }),
  );
  return [...rates, ...wrongPulses({ board, nets }, packing, netlist.pulses)];
}

/** The design of a sheet, where it wants a rate or a pulse of something. */
const timesIn = remembered((sheet): Netlist | null => {
  const { netlist } = readDesign(sheet).design;
  const hasTimes = netlist?.fittings.some((f) => f.fitting.kind === 'timer') || (netlist?.pulses.length ?? 0) > 0;
  return hasTimes ? netlist : null;
}, 50);

function wrongPulses(
  { board, nets }: { readonly board: Board; readonly nets: Nets },
  packing: Packing | null,
  pulses: Netlist['pulses'],
): Finding[] {
  if (!packing || pulses.length === 0) return [];
  const found = timersOf(board, nets).filter(({ kind }) => kind === 'pulse');
  return packing.packages.flatMap((one) =>
    timingsOf(one, pulses, looseNets(packing)).flatMap(({ charged, seconds, ohms, nanofarads }) => {
      const net = nets.ofPin.get(pinOf(one.ref, charged));
      const isAt = (ref: string): boolean => ['1', '2'].some((id) => nets.ofPin.get(pinOf(ref, id)) === net);
      const timer = found.find(({ resistors }) => net !== undefined && resistors.some(isAt));
      const values = { ohms: [ohms], farads: nanofarads * 1e-9 };
      if (!timer || isRight(timer, values)) return [];
      return finding('pulse-length', [{ kind: 'pin', pin: timer.pin }], {
        pin: spokenPin(timer.pin),
        lasts: timeWords(1e9 * periodOf(timer, timer.values)),
        wanted: printSeconds(seconds),
        parts: withValues(timer, values),
      });
    }),
  );
}
