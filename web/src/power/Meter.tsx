import { Text } from '@chakra-ui/react';
import { type Board, labelPlacesOf, type Nets, parseHole, shownSignal, stripOf, withPin } from '@saddlebag/core';
import { useRef, useState, useSyncExternalStore } from 'react';
import type { PowerBench } from '../base/bench';
import { useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { type Shortcut, useShortcuts } from '../base/shortcuts';
import { hertzWords } from '../base/words';
import { inVolts, levelWords } from '../kit/level-words';
import { MonoInput } from '../kit/MonoInput';
import { type MeterPlace, usePointedMeter } from './meter-place';
import { useTraceSetup } from './use-trace-setup';

/** A meter and logic probe in one: it reads whatever the pointer is over, or the pin or hole that is typed. */
export function Meter() {
  const { board, bench } = useJobView();
  const { on } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const pointed = usePointedMeter();
  const [typed, setTyped] = useState('');
  const field = useRef<HTMLInputElement>(null);
  const place = pointed ?? typedPlace(typed);
  useMeterKeys({ on, place, onType: () => field.current?.focus() });
  if (!on) return null;
  const shown = place && reading(place, board, bench);
  return (
    <>
      <MonoInput
        aria-label="measure at"
        placeholder="U1.8, b1.e17"
        ref={field}
        w="128px"
        h="28px"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      <Text fontSize="13px" role="status" aria-label="meter" truncate minW="0">
        {shown ?? (typed.trim() === '' ? 'point at a hole, a wire or a lamp' : 'nothing there to measure')}
      </Text>
    </>
  );
}

interface MeterKeys {
  readonly on: boolean;
  readonly place: MeterPlace | null;
  readonly onType: () => void;
}

/** The keys of the meter while the power is on: a pin to type, and what is measured put into the trace. */
function useMeterKeys({ on, place, onType }: MeterKeys): void {
  const { board, bench } = useJobView();
  const { arrange } = useTraceSetup();
  const trace = (): void => {
    const traced = place && pinAt(place, board);
    if (traced === null) return;
    arrange((setup) => withPin(setup, traced));
    bench.show('trace');
  };
  const keys: readonly Shortcut[] = [
    { cap: '/', does: 'measure at a pin', keys: ['/'], take: onType },
    { cap: ';', does: 'trace what is pointed at, or no longer', keys: [';'], take: trace },
  ];
  useShortcuts('Under power', on ? keys : []);
}

/** Where a typed word holds the meter: a hole, a pin, or a lamp. */
function typedPlace(text: string): MeterPlace | null {
  const word = text.trim();
  if (word === '') return null;
  if (parseHole(word.toLowerCase())) return { kind: 'hole', name: word.toLowerCase() };
  return { kind: word.includes('.') ? 'pin' : 'lamp', name: word.toUpperCase() };
}

/** A pin on the net of a place: its own, or the first that is on it; null where there is none. A lamp's is its anode. */
function pinAt({ kind, name }: MeterPlace, { nets, board }: BoardNames): string | null {
  if (kind === 'pin') return nets.ofPin.has(name) ? name : null;
  const hole = kind === 'hole' ? parseHole(name) : null;
  const part = kind === 'lamp' ? board.parts[name] : undefined;
  const net = hole
    ? nets.ofStrip.get(stripOf(hole))
    : part && labelPlacesOf(part).flatMap((p) => nets.ofPin.get(p.pin) ?? [])[0];
  return net === undefined ? null : (nets.nets[net]?.pins[0] ?? null);
}

/** What a meter shows there; null where there is nothing. */
function reading({ kind, name }: MeterPlace, { nets, names }: BoardNames, bench: PowerBench): string | null {
  if (kind === 'lamp') {
    const lamp = bench.lamp(name);
    return lamp && `${name}: ${fixed(lamp.ma, 2)} mA, ${lamp.state}`;
  }
  const hole = kind === 'hole' ? parseHole(name) : null;
  const net = hole ? nets.ofStrip.get(stripOf(hole)) : nets.ofPin.get(name);
  const probed = net === undefined ? null : bench.probe(net);
  if (!probed || net === undefined) return null;
  const signal = names.get(net);
  const called = signal === undefined ? name : `${name}, ${shownSignal(signal)}`;
  const rate = probed.hertz > 0 ? `, ${hertzWords(probed.hertz)}` : '';
  return `${called}: ${probed.volts === null ? 'open' : `${inVolts(probed.volts)} V`}, ${levelWords[probed.level]}${rate}`;
}

interface BoardNames {
  readonly board: Board;
  readonly nets: Nets;
  readonly names: ReadonlyMap<number, string>;
}
