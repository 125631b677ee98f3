import { elementAt } from '../element-at';
import { HIGH, LOW, MachineRun, rowBit, type Table, tableOf } from '../logic';
import { type AnalogueContacts, type ChipData, outputDelaysOf } from './chips';
import { type ClockNeeds, timingRequirementsOf } from './chips/timing-requirements';
import { type Family, type FamilyId, families, partNumber, schmittLevels } from './family';
import type { PartType, Unit } from './part';

/** A line of a part's limits: what it is, its value with its unit, and the conditions under which that is promised. */
export interface Limit {
  readonly name: string;
  readonly value: string;
  readonly at?: string;
}

const volts = (v: number): string => `${v} V`;
const amps = (ua: number): string => (ua >= 1000 ? `${ua / 1000} mA` : `${ua} µA`);
const span = ([a, b]: readonly [number, number], unit: string): string => `${a} to ${b} ${unit}`;

/** The delays of an output in nanoseconds, going high and going low. */
export interface EdgeDelays {
  readonly rise: Family['delayNs'];
  readonly fall: Family['delayNs'];
}

/**
 * The delays of one output of a chip, by the output's name: that output's own where a data sheet of the chip gives it, else the chip's, else its family's.
 */
export function delaysOf({ chip }: Pick<PartType, 'chip'>, id: FamilyId, output = '*'): EdgeDelays {
  const given = chip ? outputDelaysOf(chip.base, id) : [];
  const own = given.find((d) => d.pins.split(' ').includes(output)) ?? given.find((d) => d.pins === '*');
  const both = (pair: readonly [number, number]) => ({ typical: pair[0], most: pair[1] });
  if (own) return { rise: both(own.rise), fall: both(own.fall) };
  const whole = chip?.own?.delayNs;
  const same = whole ? both(whole) : families[id].delayNs;
  return { rise: same, fall: same };
}

/** The delays of a chip as a line says them: of all its outputs where they are alike, or from the least to the greatest. */
function delayWords(chip: ChipData, id: FamilyId): string {
  const named = outputDelaysOf(chip.base, id);
  const outputs = named.length > 0 ? named.flatMap(({ pins }) => pins.split(' ')) : ['*'];
  const all = outputs.map((name) => delaysOf({ chip }, id, name));
  const edges = all.flatMap(({ rise, fall }) => [rise, fall]);
  const [least, most] = [Math.min(...edges.map((e) => e.typical)), Math.max(...edges.map((e) => e.typical))];
  const typical = least === most ? `${least}` : `${least} to ${most}`;
  const from = named[0]?.workedOutFrom;
  const source = from ? `, worked out from the ${partNumber(chip.base, from)}` : '';
  return `${typical} and ${Math.max(...edges.map((e) => e.most))} ns${source}`;
}

/** The conditions of a family's figures, in words. */
function conditionsOf(f: Family) {
  const range = span(f.celsius, '°C').replace('-', '−');
  const isCmos = f.overRange !== null;
  /** Of a level or current at 25 °C: what is promised over the whole range. */
  const over = (value: string | undefined): string => (value ? `25 °C; ${value} from ${range}` : range);
  const supply = `${volts(f.levelsAtV)} supply`;
  return {
    range,
    input: isCmos ? `${supply}, and in proportion to it` : range,
    outputLow: `${supply}, ${over(f.overRange ? volts(f.overRange.outputLowV) : undefined)}`,
    outputHigh: `${supply}, ${over(f.overRange ? volts(f.overRange.outputHighV) : undefined)}`,
    inputCurrent: over(f.overRange ? amps(f.overRange.inputUa) : undefined),
    delay: `${volts(f.delaysAtV)} supply, 25 °C, ${f.delayPf} pF`,
    timing: isCmos ? `${volts(f.delaysAtV)} supply, 25 °C` : `${span(f.supplyV, 'V')}, ${range}`,
  };
}

/** What an output sinks and gives, in milliamperes. */
function outputMaOf({ drive }: ChipData, id: FamilyId): readonly [low: number, high: number] {
  const { low, high } = families[id].outputMa;
  return drive?.[id] ?? [low, high];
}

/** The limits of a chip in a family it is made in, as its data sheet gives them. */
export function limitsOf(chip: ChipData, id: FamilyId): Limit[] {
  const f = families[id];
  const [low, high] = outputMaOf(chip, id);
  const { contacts } = chip;
  const at = conditionsOf(f);
  const all: (Limit | null)[] = [
    { name: 'Supply', value: span(f.supplyV, 'V'), at: at.range },
    { name: 'Supply, absolute maximum', value: volts(f.absoluteMaxV) },
    { name: 'Input reads low up to', value: volts(f.inputLowV), at: at.input },
    { name: 'Input reads high from', value: volts(f.inputHighV), at: at.input },
    chip.schmitt ? { name: 'Schmitt inputs', value: switchingOf(id), at: `${volts(f.levelsAtV)} supply, 25 °C` } : null,
    ...(contacts ? limitsOfContacts(contacts, id) : limitsOfOutputs(chip, id)),
    {
      name: 'Input current, low and high',
      value: `${amps(f.inputUa.low)}, ${amps(f.inputUa.high)}`,
      at: at.inputCurrent,
    },
    contacts ? null : { name: 'Inputs of its family it drives', value: String(fanOut(low, high, id)) },
    { name: 'Delay, typical and at most', value: delayWords(chip, id), at: at.delay },
    ...timingLimits(chip.base, id).map((limit) => ({ ...limit, at: at.timing })),
    {
      name: 'An open input',
      value: f.openInput === 'high' ? 'reads high, and picks up noise' : 'reads anything: tie it',
    },
  ];
  return all.filter((l): l is Limit => l !== null);
}

/** What a chip's outputs promise, in lines. */
function limitsOfOutputs(chip: ChipData, id: FamilyId): (Limit | null)[] {
  const f = families[id];
  const [low, high] = outputMaOf(chip, id);
  const openOnly = high === 0;
  const at = conditionsOf(f);
  return [
    { name: 'Output low at most', value: volts(f.outputLowV), at: at.outputLow },
    openOnly ? null : { name: 'Output high at least', value: volts(f.outputHighV), at: at.outputHigh },
    { name: 'Output sinks', value: `${low} mA`, at: 'that low level' },
    openOnly
      ? { name: 'Output gives', value: 'nothing: it needs a pull-up' }
      : { name: 'Output gives', value: `${high} mA`, at: 'that high level' },
    chip.openV ? { name: 'Output, pulled up to at most', value: volts(chip.openV) } : null,
    f.absoluteOutputMa ? { name: 'Output, absolute maximum', value: `±${f.absoluteOutputMa} mA` } : null,
  ];
}

/** What a chip's analogue switches promise, in lines. */
function limitsOfContacts({ ohms }: AnalogueContacts, id: FamilyId): (Limit | null)[] {
  const { absoluteOutputMa, levelsAtV } = families[id];
  return [
    { name: 'A closed switch, typically', value: `${ohms} Ω`, at: `${volts(levelsAtV)} supply, 25 °C` },
    { name: 'Volts on a switch', value: 'from ground to supply' },
    absoluteOutputMa ? { name: 'Through a switch, absolute maximum', value: `±${absoluteOutputMa} mA` } : null,
  ];
}

/** What a chip that stores something needs of its clocks and other inputs, in lines. */
function timingLimits(base: string, id: FamilyId): Limit[] {
  const needs = timingRequirementsOf(base, id);
  if (!needs) return [];
  const { clocks, clearNs, setUpNs, holdNs, workedOutFrom } = needs;
  const source = workedOutFrom ? `, worked out from the ${partNumber(base, workedOutFrom)}` : '';
  const words = ({ mostMhz, highNs, lowNs }: ClockNeeds): string =>
    [
      mostMhz === null ? null : `${mostMhz} MHz`,
      highNs === null ? null : `high ${highNs} ns`,
      lowNs === null ? null : `low ${lowNs} ns`,
    ]
      .filter(Boolean)
      .join(', ');
  return [
    ...Object.entries(clocks).map(([pin, clock]) => ({
      name:
        clock.mostMhz === null
          ? 'Trigger, least width'
          : `${pin === '*' ? 'Clock' : `Clock ${pin}`}, at most and least width`,
      value: `${words(clock)}${source}`,
    })),
    ...(clearNs === null ? [] : [{ name: 'Clear, preset or load, least width', value: `${clearNs} ns` }]),
    ...(setUpNs + holdNs === 0 ? [] : [{ name: 'Set-up and hold at the clock', value: `${setUpNs} and ${holdNs} ns` }]),
  ];
}

function switchingOf(id: FamilyId): string {
  const levels = schmittLevels[id];
  return levels
    ? `switch at ${volts(levels.risesV)} going up, ${volts(levels.fallsV)} going down, typically`
    : 'two thresholds';
}

function fanOut(lowMa: number, highMa: number, id: FamilyId): number | string {
  const { inputUa } = families[id];
  const low = Math.floor((lowMa * 1000) / inputUa.low);
  const high = highMa === 0 ? low : Math.floor((highMa * 1000) / inputUa.high);
  const n = Math.min(low, high);
  return n > 100 ? 'over 100' : n;
}

/** The limits of a part that belongs to no family. */
export function ownLimits({ own, openV }: ChipData): Limit[] {
  if (!own) return [];
  const [low, high] = own.outputMa;
  return [
    { name: 'Supply', value: span(own.supplyV, 'V') },
    { name: 'Output sinks and gives', value: `${low} and ${high} mA` },
    ...(openV ? [{ name: 'Open output, pulled up to at most', value: volts(openV) }] : []),
  ];
}

/** Units that do the same, the first of them standing for all: `2 like this`. */
export function kindsOfUnit(type: PartType): { readonly unit: Unit; readonly names: readonly string[] }[] {
  const kinds = new Map<string, { unit: Unit; names: string[] }>();
  for (const unit of type.units) {
    const kind = kinds.get(unit.like);
    if (kind) kind.names.push(unit.name);
    else kinds.set(unit.like, { unit, names: [unit.name] });
  }
  return [...kinds.values()];
}

/** The function table of a unit without memory and of up to `most` inputs; null for others. */
export function functionTableOf(unit: Unit, most = 6): Table | null {
  const { stored, inputs } = unit.behaviour;
  return stored.length === 0 && inputs.length <= most ? tableOf(unit.behaviour) : null;
}

/** Groups of input pins (by name) that may be exchanged for each other; found by trying, for up to 12 inputs. */
export function interchangeable(unit: Unit): string[][] {
  const { inputs } = unit.behaviour;
  if (unit.gate) return inputs.length > 1 ? [[...inputs]] : [];
  if (unit.behaviour.stored.length > 0 || inputs.length > 12) return [];
  const { columns, floats, rows } = tableOf(unit.behaviour);
  const all = [...columns, ...(floats ?? []).filter((f) => f !== null)];
  const alike = (i: number, j: number): boolean => {
    const [a, b] = [inputs.length - 1 - i, inputs.length - 1 - j];
    for (let r = 0; r < rows; r++) {
      if (((r >>> a) & 1) !== 1 || ((r >>> b) & 1) !== 0) continue;
      const swapped = r ^ (1 << a) ^ (1 << b);
      if (all.some((set) => rowBit(set, r) !== rowBit(set, swapped))) return false;
    }
    return true;
  };
  const groups: number[][] = [];
  inputs.forEach((_, i) => {
    const group = groups.find((g) => alike(elementAt(g, 0), i));
    if (group) group.push(i);
    else groups.push([i]);
  });
  return groups.filter((g) => g.length > 1).map((g) => g.map((i) => elementAt(inputs, i)));
}

/** When a stored signal changes, in words: `takes its value as CLK rises; cleared at once while CLRn is low`. */
export function edgesOf(unit: Unit): string[] {
  const { gates, stored, inputs } = unit.behaviour;
  const gateOf = new Map(gates.map((g) => [g.output, g]));
  const when = (net: string): string => {
    const gate = gateOf.get(net);
    if (inputs.includes(net)) return `${net} is high`;
    if (gate?.kind === 'not' && inputs.includes(elementAt(gate.inputs, 0))) return `${gate.inputs[0]} is low`;
    return 'its load or reset asks for it';
  };
  const timed = new Set(unit.timers.map((t) => inputs[t.input]));
  const lines = stored.map((s) => {
    const forced = s.forces.filter((f) => !timed.has(f.net));
    const forces = forced.map((f) => `${f.to === 1 ? 'set' : 'cleared'} at once while ${when(f.net)}`);
    // What ends a pulse is no pin.
    if (forced.length < s.forces.length)
      return ['a pulse begins as the table says and ends after the time of its resistor and capacitor', ...forces].join(
        '; ',
      );
    const clock = clockOf(s.control, gateOf, inputs);
    const takes =
      s.edge === 'while'
        ? `follows while ${when(s.control)}`
        : `changes as ${clock} ${s.edge === 'rise' ? 'rises' : 'falls'}`;
    return [takes, ...forces].join('; ');
  });
  return [...new Set(lines)];
}

/** A clock by the pin it comes from, where one gate at most is between. */
function clockOf(
  net: string,
  gateOf: ReadonlyMap<string, { inputs: readonly string[] }>,
  inputs: readonly string[],
): string {
  if (inputs.includes(net)) return net;
  const pins = (gateOf.get(net)?.inputs ?? []).filter((n) => inputs.includes(n));
  return pins.length > 0 ? `the gate of ${pins.join(' and ')}` : /^[A-Za-z0-9]+$/.test(net) ? net : 'its clock';
}

/** A signal over time: its level at each step, LOW, HIGH or UNKNOWN. */
export interface Waveform {
  readonly name: string;
  readonly input: boolean;
  readonly levels: readonly number[];
}

/**
 * How a unit with memory answers a sequence of inputs: its behaviour run, not drawn by hand. Clocks tick
 * every step, forces act at the beginning and once later, other inputs change between the edges.
 */
export function timingOf(unit: Unit, steps = 22): Waveform[] {
  const { inputs, outputs, stored } = unit.behaviour;
  if (stored.length === 0) return [];
  const run = new MachineRun(unit.machine);
  const clocks = new Set(
    inputs.filter((n) => /CLK|^\d?CK|UP|LE$|^WEn$|^C\d\d$|SRCLK|RS|RCLK/.test(n) && !/INH|CLR/.test(n)),
  );
  const idle = (name: string): number => (/n$|UP|DOWN|^\d?EN$|ENP|ENT|LTn|RESET/.test(name) ? 1 : 0);
  const enabling = (name: string): boolean => /^\d?(OE|G|EN[PT]?|CE|CCKEN|RE|CS)\d?n$/.test(name);
  const waves = [...inputs, ...outputs.map((o) => o.name)].map((name, i) => ({
    name,
    input: i < inputs.length,
    levels: [] as number[],
  }));
  for (let t = 0; t < steps; t++) {
    inputs.forEach((name, i) => {
      let level = enabling(name) ? LOW : idle(name);
      if (clocks.has(name)) level = t % 2;
      else if (/CLR|^R0|^R9|RESET/.test(name) && !/^R9/.test(name)) level = t < 2 ? 1 - idle(name) : idle(name);
      else if (/^LD/.test(name)) level = t < 2 ? LOW : HIGH;
      else if (/^INH/.test(name)) level = LOW;
      else if (name === 'S0') level = HIGH;
      else if (/PRE/.test(name)) level = t === steps - 4 ? 1 - idle(name) : idle(name);
      else if (!/DU|^\d?T$|MODE|S\d$|R9/.test(name) && !enabling(name) && !/EN/.test(name))
        level = ((t + 1) >> (1 + (i % 3))) & 1;
      run.setInput(i, level === HIGH ? HIGH : LOW);
      waves[i]?.levels.push(level);
    });
    run.settle();
    outputs.forEach((_, o) => {
      waves[inputs.length + o]?.levels.push(run.outputLevel(o));
    });
  }
  return waves.filter((w) => !w.input || !/^\d?T$/.test(w.name));
}
