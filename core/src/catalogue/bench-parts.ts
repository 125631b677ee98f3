import { type Contact, type LampColour, noInner } from './inner';
import type { PartType, Pin } from './part';

const lead = (id: string, name: string, dx: number, dy: number): Pin => ({ id, name, role: 'lead', dx, dy });
const simple = { units: [], behaviour: '', chip: null } as const;

/** A body around its leads, `margin` tenths of an inch beyond them. */
const around = (pins: readonly Pin[], margin = 0.45): PartType['body'] => {
  const [xs, ys] = [pins.map((p) => p.dx), pins.map((p) => p.dy)];
  const [x, y] = [Math.min(...xs) - margin, Math.min(...ys) - margin];
  return { x, y, width: Math.max(...xs) + margin - x, height: Math.max(...ys) + margin - y };
};

/** Leads in one row, named in order. */
const row = (names: string): Pin[] => names.split(' ').map((name, i) => lead(String(i + 1), name, i, 0));

/** Leads of a dual-in-line part, counted as on a chip. */
const dual = (names: string, rows = 3): Pin[] => {
  const list = names.split(' ');
  return list.map((name, i) =>
    i < list.length / 2 ? lead(String(i + 1), name, i, 0) : lead(String(i + 1), name, list.length - 1 - i, -rows),
  );
};

/** A display's ten pins, five below and five above; 3 and 8 are common. */
const displayPins = dual('e d COM c DP b a COM f g', 6);
/** Segments of a display by name and pin. */
const segments = displayPins.flatMap(({ name, id }) => (/^[a-g]$|^DP$/.test(name) ? [[name, id] as const] : []));
const eight = [1, 2, 3, 4, 5, 6, 7, 8];
const ten = [...eight, 9, 10];
const contact = (actuator: string, a: string, b: string, on = true): Contact => ({ actuator, a, b, on });

const threeLegs = (names: string): Pin[] => row(names);

/** The rate of a clock module whose value nobody set, in hertz. */
const CLOCK_HZ = 1;

/** The rate of a seated clock module in hertz; null for any other part. */
export function clockHertz({
  part,
  value = CLOCK_HZ,
}: {
  readonly part: string;
  readonly value?: number;
}): number | null {
  return part === 'clock' ? value : null;
}

/** An LED of another colour than red. */
const colouredLed = (colour: LampColour): PartType => ({
  ...simple,
  id: `led-${colour}`,
  kind: 'led',
  title: `LED, 5 mm, ${colour}`,
  prefix: 'D',
  pins: [lead('A', 'anode', 0, 0), lead('K', 'cathode', 1, 0)],
  body: { x: -0.45, y: -0.95, width: 1.9, height: 1.9 },
  inner: { ...noInner, lamps: [{ name: '', anode: 'A', cathode: 'K', colour }], signalPin: 'A' },
  spans: [1, 3],
  caveat:
    colour === 'blue' || colour === 'white'
      ? 'It drops some 3 V: at 5 V its resistor has 2 V left, at 3.3 V hardly any.'
      : 'The longer lead is the anode; the flat of the rim marks the cathode.',
});

/**
 * The things on a bench that are no chips. Source: the usual data sheets of each kind; pins of three-leg
 * parts as in TO-92 and TO-220, flat side or marking towards the reader, from left to right.
 */
export const benchParts: readonly PartType[] = [
  {
    ...simple,
    id: 'switch',
    kind: 'switch',
    title: 'slide switch, one pole',
    prefix: 'S',
    pins: [lead('1', 'feed', 0, 0), lead('2', 'signal', 0, 3)],
    body: { x: -0.45, y: 0.5, width: 0.9, height: 2 },
    inner: { ...noInner, contacts: [contact('', '1', '2')], signalPin: '2' },
    caveat: 'Open, it drives nothing: its signal needs a pull-down resistor.',
  },
  {
    ...simple,
    id: 'led',
    kind: 'led',
    title: 'LED, 5 mm, red',
    prefix: 'D',
    pins: [lead('A', 'anode', 0, 0), lead('K', 'cathode', 1, 0)],
    body: { x: -0.45, y: -0.95, width: 1.9, height: 1.9 },
    inner: { ...noInner, lamps: [{ name: '', anode: 'A', cathode: 'K' }], signalPin: 'A' },
    spans: [1, 3],
    caveat: 'The longer lead is the anode; the flat of the rim marks the cathode.',
  },
  ...(['yellow', 'green', 'blue', 'white'] as const).map(colouredLed),
  {
    ...simple,
    id: 'resistor',
    kind: 'resistor',
    title: 'resistor, axial',
    prefix: 'R',
    pins: [lead('1', 'one end', 0, 0), lead('2', 'other end', 0, 3)],
    body: { x: -0.28, y: 0.6, width: 0.56, height: 1.8 },
    inner: { ...noInner, resistors: [{ a: '1', b: '2', share: 1 }] },
    spans: [3, 8],
    caveat: 'Either way round. 1 kΩ reads brown black red, 10 kΩ brown black orange.',
  },
  {
    ...simple,
    id: 'capacitor',
    kind: 'capacitor',
    title: 'capacitor, ceramic',
    prefix: 'C',
    pins: [lead('1', 'one end', 0, 0), lead('2', 'other end', 0, 1)],
    body: { x: -0.4, y: 0.1, width: 0.8, height: 0.8 },
    spans: [1, 5],
    caveat: 'As close to the chip as it goes; 100 nF is marked 104.',
  },
  {
    ...simple,
    id: 'electrolytic',
    kind: 'capacitor',
    title: 'capacitor, electrolytic',
    prefix: 'C',
    pins: [lead('1', 'plus', 0, 0), lead('2', 'minus', 1, 0)],
    body: { x: -0.6, y: -1.1, width: 2.2, height: 2.2 },
    spans: [1, 5],
    caveat: 'The stripe and the shorter lead mark minus. The wrong way round it heats, and may burst.',
  },
  {
    ...simple,
    id: 'supply',
    kind: 'supply',
    title: 'bench supply, 5 V',
    prefix: 'P',
    pins: [lead('+', 'positive', 0, 0), lead('-', 'negative', 0, 1)],
    body: { x: -0.9, y: -0.35, width: 1.3, height: 1.7 },
    caveat: 'Red lead to the + rail, black to the − rail; switch on last.',
  },
  {
    ...simple,
    id: 'battery',
    kind: 'supply',
    title: 'battery, of so many volts',
    prefix: 'P',
    pins: [lead('+', 'positive', 0, 0), lead('-', 'negative', 0, 1)],
    body: { x: -0.9, y: -0.35, width: 1.3, height: 1.7 },
    caveat: 'Four cells of 1.5 V give 6 V when they are fresh: too much for TTL, and for HC the very most.',
  },
  {
    ...simple,
    id: 'dip-switch',
    kind: 'dip-switch',
    title: 'DIP switch, eight contacts',
    prefix: 'S',
    pins: dual('1a 2a 3a 4a 5a 6a 7a 8a 8b 7b 6b 5b 4b 3b 2b 1b'),
    body: around(dual('1a 2a 3a 4a 5a 6a 7a 8a 8b 7b 6b 5b 4b 3b 2b 1b')),
    inner: { ...noInner, contacts: eight.map((n) => contact(String(n), String(n), String(17 - n))) },
    caveat: 'Each contact joins the two pins that face each other; open, it drives nothing. ON is printed at one side.',
  },
  {
    ...simple,
    id: 'change-over',
    kind: 'change-over',
    title: 'change-over switch',
    prefix: 'S',
    pins: row('one common other'),
    body: around(row('one common other')),
    inner: { ...noInner, contacts: [contact('', '2', '1'), contact('', '2', '3', false)], signalPin: '2' },
    caveat: 'The middle pin is common. To supply and ground at its ends it needs no resistor, but it bounces.',
  },
  {
    ...simple,
    id: 'push-button',
    kind: 'push-button',
    title: 'push-button, four pins',
    prefix: 'S',
    pins: [
      lead('1', 'one side', 0, 0),
      lead('2', 'other side', 2, 0),
      lead('3', 'other side', 2, -3),
      lead('4', 'one side', 0, -3),
    ],
    body: { x: -0.2, y: -2.7, width: 2.4, height: 2.4 },
    inner: {
      ...noInner,
      joined: [
        ['1', '4'],
        ['2', '3'],
      ],
      contacts: [contact('', '1', '2')],
      signalPin: '2',
    },
    caveat: 'Pins 1 and 4 are always joined, and so are 2 and 3: seated a quarter turn wrong it is always closed.',
  },
  {
    ...simple,
    id: 'buzzer',
    kind: 'buzzer',
    title: 'buzzer, 5 V, with its own oscillator',
    prefix: 'Z',
    pins: [lead('1', 'plus', 0, 0), lead('2', 'minus', 3, 0)],
    body: { x: -0.7, y: -2.2, width: 4.4, height: 4.4 },
    inner: { ...noInner, lamps: [{ name: '', anode: '1', cathode: '2', colour: 'sound' }], signalPin: '1' },
    caveat: 'It takes some 25 mA at 5 V and no resistor: more than a gate gives, so let a transistor switch it.',
  },
  {
    ...simple,
    id: 'led-bar',
    kind: 'led-bar',
    title: 'LED bar, ten',
    prefix: 'D',
    pins: dual('A1 A2 A3 A4 A5 A6 A7 A8 A9 A10 K10 K9 K8 K7 K6 K5 K4 K3 K2 K1'),
    body: around(dual('A1 A2 A3 A4 A5 A6 A7 A8 A9 A10 K10 K9 K8 K7 K6 K5 K4 K3 K2 K1')),
    inner: { ...noInner, lamps: ten.map((n) => ({ name: String(n), anode: String(n), cathode: String(21 - n) })) },
    caveat: 'Ten LEDs, each wants a resistor of its own; a cut corner marks the first anode.',
  },
  {
    ...simple,
    id: 'display-anode',
    kind: 'display',
    title: 'seven-segment display, common anode',
    prefix: 'H',
    pins: displayPins,
    body: around(displayPins, 0.7),
    inner: {
      ...noInner,
      joined: [['3', '8']],
      lamps: segments.map(([name, id]) => ({ name, anode: '3', cathode: id })),
    },
    caveat:
      'Common pins 3 and 8 to supply, segments pulled low, as by a 7447. A resistor in each segment, not one in common.',
  },
  {
    ...simple,
    id: 'display-cathode',
    kind: 'display',
    title: 'seven-segment display, common cathode',
    prefix: 'H',
    pins: displayPins,
    body: around(displayPins, 0.7),
    inner: {
      ...noInner,
      joined: [['3', '8']],
      lamps: segments.map(([name, id]) => ({ name, anode: id, cathode: '3' })),
    },
    caveat:
      'Common pins 3 and 8 to ground, segments driven high, as by a 4511. A resistor in each segment, not one in common.',
  },
  {
    ...simple,
    id: 'network-common',
    kind: 'resistor-network',
    title: 'resistor network, eight with one common end',
    prefix: 'RN',
    pins: row('common R1 R2 R3 R4 R5 R6 R7 R8'),
    body: around(row('common R1 R2 R3 R4 R5 R6 R7 R8'), 0.4),
    inner: { ...noInner, resistors: eight.map((n) => ({ a: '1', b: String(n + 1), share: 1 })) },
    caveat: 'A dot marks pin 1, the common end: turned round, two of the values come out doubled.',
  },
  {
    ...simple,
    id: 'network-separate',
    kind: 'resistor-network',
    title: 'resistor network, four separate',
    prefix: 'RN',
    pins: row('R1a R1b R2a R2b R3a R3b R4a R4b'),
    body: around(row('R1a R1b R2a R2b R3a R3b R4a R4b'), 0.4),
    inner: { ...noInner, resistors: [1, 3, 5, 7].map((n) => ({ a: String(n), b: String(n + 1), share: 1 })) },
    caveat: 'Neighbouring pins are the two ends of one resistor: 1 and 2, 3 and 4.',
  },
  {
    ...simple,
    id: 'diode',
    kind: 'diode',
    title: 'diode, 1N4148',
    prefix: 'D',
    pins: [lead('A', 'anode', 0, 0), lead('K', 'cathode', 0, 3)],
    body: { x: -0.25, y: 0.8, width: 0.5, height: 1.4 },
    inner: { ...noInner, devices: [{ kind: 'diode', a: 'A', b: 'K', control: null }] },
    spans: [3, 8],
    caveat: 'The ring marks the cathode. It drops some 0.7 V, so a low through it is not 0 V.',
  },
  {
    ...simple,
    id: 'zener',
    kind: 'diode',
    title: 'Zener diode, 5.1 V, BZX79C5V1',
    prefix: 'D',
    pins: [lead('A', 'anode', 0, 0), lead('K', 'cathode', 0, 3)],
    body: { x: -0.25, y: 0.8, width: 0.5, height: 1.4 },
    inner: { ...noInner, devices: [{ kind: 'zener', a: 'A', b: 'K', control: null }] },
    spans: [3, 8],
    caveat:
      'Used with its ring towards supply, behind a resistor: it holds 5.1 V there. The other way round it is a diode.',
  },
  {
    ...simple,
    id: 'npn',
    kind: 'transistor',
    title: 'NPN transistor, 2N3904',
    prefix: 'Q',
    pins: threeLegs('emitter base collector'),
    body: around(threeLegs('emitter base collector')),
    inner: { ...noInner, devices: [{ kind: 'npn', a: '3', b: '1', control: '2' }] },
    caveat:
      'Flat side to you: emitter, base, collector. The base wants a resistor. The BC547 has them the other way round.',
  },
  {
    ...simple,
    id: 'pnp',
    kind: 'transistor',
    title: 'PNP transistor, 2N3906',
    prefix: 'Q',
    pins: threeLegs('emitter base collector'),
    body: around(threeLegs('emitter base collector')),
    inner: { ...noInner, devices: [{ kind: 'pnp', a: '3', b: '1', control: '2' }] },
    caveat: 'Emitter to supply; it conducts when its base is pulled low. The BC557 has its legs the other way round.',
  },
  {
    ...simple,
    id: 'nmos',
    kind: 'transistor',
    title: 'N-channel MOSFET, 2N7000',
    prefix: 'Q',
    pins: threeLegs('source gate drain'),
    body: around(threeLegs('source gate drain')),
    inner: {
      ...noInner,
      // The body diode lets current through from source to drain whatever the gate says.
      devices: [
        { kind: 'nmos', a: '3', b: '1', control: '2' },
        { kind: 'diode', a: '1', b: '3', control: null },
      ],
    },
    caveat: 'Flat side to you: source, gate, drain. A gate left open keeps its last charge: pull it down.',
  },
  {
    ...simple,
    id: 'pmos',
    kind: 'transistor',
    title: 'P-channel MOSFET, BS250P',
    prefix: 'Q',
    pins: threeLegs('drain gate source'),
    body: around(threeLegs('drain gate source')),
    inner: {
      ...noInner,
      // The body diode lets current through from drain to source whatever the gate says.
      devices: [
        { kind: 'pmos', a: '1', b: '3', control: '2' },
        { kind: 'diode', a: '1', b: '3', control: null },
      ],
    },
    caveat: 'Flat side to you: drain, gate, source. Source to supply; it conducts when its gate is pulled low.',
  },
  {
    ...simple,
    id: 'potentiometer',
    kind: 'potentiometer',
    title: 'potentiometer',
    prefix: 'RV',
    pins: row('end wiper end'),
    body: around(row('end wiper end'), 0.7),
    inner: {
      ...noInner,
      resistors: [
        { a: '1', b: '2', share: 0.5 },
        { a: '2', b: '3', share: 0.5 },
      ],
    },
    caveat: 'The middle pin is the wiper. Turned fully with an end at supply, nothing limits the current but the load.',
  },
  {
    ...simple,
    id: 'clock',
    kind: 'clock',
    title: 'clock module, 5 V',
    prefix: 'X',
    pins: row('supply ground out'),
    body: around(row('supply ground out'), 0.7),
    inner: { ...noInner, contacts: [contact('', '3', '1'), contact('', '3', '2', false)], signalPin: '3' },
    caveat: 'A square wave at the rate set on it; it needs supply and ground of its own.',
  },
];
