import { BoardVolts } from '../electrical';
import { elementAt } from '../element-at';
import type { Circuit } from './circuit';

/** Contacts that bounce do so a few times within these ticks. Source: data sheets of slide switches and buttons, 1 to 5 ms. */
const BOUNCE = { leastTicks: 10_000_000, mostTicks: 50_000_000, mostTimes: 6 } as const;

/** A small generator of pseudo-random numbers (xorshift32): the same seed, the same sequence. From 0 up to 1. */
export function randomFrom(seed: number): () => number {
  let x = seed * 2_654_435_761 || 1;
  return () => {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    return (x >>> 0) / 2 ** 32;
  };
}

interface Place {
  readonly island: number;
  readonly slot: number;
}

/** How actuators are moved: clocks by themselves, and whether contacts bounce, by a seed. */
interface Manner {
  readonly clocksRun: boolean;
  readonly bounce: number | null;
  /** Ticks in half a period of so many hertz. */
  readonly halfPeriodOf: (hertz: number) => number;
}

/**
 * The switches, buttons and clocks of a board, by their index in the circuit, with the contacts that each moves; and its lamps, which are contacts
 * that open for good. Tells `soil` of each island on which a contact has moved.
 */
export class Actuators {
  private readonly stands: Uint8Array;
  /** Whether a contact that bounces is in the air, and whether an actuator has contacts on either side. */
  private readonly isFlying: Uint8Array;
  private readonly isChangeOver: Uint8Array;
  private readonly contactsOf: readonly (Place & { readonly on: boolean })[][];
  private readonly lampAt = new Map<string, Place>();
  private readonly halfPeriod: Float64Array;
  private readonly bouncesLeft: number[][];
  private readonly random: () => number;

  constructor(
    private readonly board: BoardVolts,
    { switches }: Circuit,
    private readonly manner: Manner,
    private readonly soil: (island: number) => void,
  ) {
    this.random = randomFrom((manner.bounce ?? 0) + 1);
    const indexOf = new Map(switches.map(({ ref }, a) => [ref, a]));
    this.contactsOf = switches.map(() => []);
    board.islands.forEach((model, island) => {
      model.parts.contacts.forEach(({ actuator, on }, slot) => {
        if (actuator.startsWith(BoardVolts.lampActuator)) {
          model.setContact(slot, true);
          this.lampAt.set(actuator.slice(BoardVolts.lampActuator.length), { island, slot });
        }
        this.contactsOf[indexOf.get(actuator) ?? -1]?.push({ island, slot, on });
      });
    });
    this.stands = new Uint8Array(switches.length);
    this.isFlying = new Uint8Array(switches.length);
    this.isChangeOver = Uint8Array.from(this.contactsOf, (contacts) =>
      contacts.some(({ on }) => on) && contacts.some(({ on }) => !on) ? 1 : 0,
    );
    this.halfPeriod = Float64Array.from(switches, ({ hertz }) =>
      hertz === null ? Infinity : manner.halfPeriodOf(hertz),
    );
    this.bouncesLeft = switches.map(() => []);
    switches.forEach((_, a) => {
      this.putContacts(a);
    });
  }

  isOn(a: number): boolean {
    return this.stands[a] === 1;
  }

  /** The ticks between two moves of a clock that runs; Infinity for anything else. */
  periodOf(a: number): number {
    return this.manner.clocksRun ? elementAt(this.halfPeriod, a) : Infinity;
  }

  /** For each island the actuators with contacts on it. */
  onIsland(island: number): number[] {
    return [...this.contactsOf.keys()].filter((a) => this.contactsOf[a]?.some((c) => c.island === island) === true);
  }

  /** Contacts as the actuator stands. In flight a change-over touches neither side, and a plain contact does the other thing. */
  private putContacts(a: number): void {
    const isFlying = this.isFlying[a] === 1;
    for (const { island, slot, on } of this.contactsOf[a] ?? []) {
      const rests = on === this.isOn(a);
      const isClosed = isFlying ? this.isChangeOver[a] !== 1 && !rests : rests;
      if (this.board.islands[island]?.setContact(slot, isClosed)) this.soil(island);
    }
  }

  /** Puts an actuator on or off; with a seed for it, its contacts bounce from now on. Gives the time of the next bounce, Infinity for none. */
  put(a: number, isOn: boolean, now: number): number {
    this.isFlying[a] = 0;
    this.stands[a] = isOn ? 1 : 0;
    this.putContacts(a);
    this.bouncesLeft[a] = this.manner.bounce === null || this.periodOf(a) < Infinity ? [] : this.bounces(now);
    return this.bouncesLeft[a]?.[0] ?? Infinity;
  }

  /** The times of an even number of moves to and fro, so that it ends as it began. */
  private bounces(now: number): number[] {
    const length = BOUNCE.leastTicks + this.random() * (BOUNCE.mostTicks - BOUNCE.leastTicks);
    const count = 2 * (1 + Math.floor((this.random() * BOUNCE.mostTimes) / 2));
    const times = Array.from({ length: count }, () => now + 1 + Math.floor(this.random() * length));
    const left = [...new Set(times)].sort((x, y) => x - y);
    if (left.length % 2 === 1) left.pop();
    return left;
  }

  /** What an actuator does by itself at its time: a clock turns over, a contact bounces. Gives when it does so next, Infinity for never. */
  moveByItself(a: number, now: number): number {
    if (this.periodOf(a) < Infinity) {
      this.stands[a] = 1 - elementAt(this.stands, a);
      this.putContacts(a);
      return now + this.periodOf(a);
    }
    this.isFlying[a] = 1 - elementAt(this.isFlying, a);
    this.putContacts(a);
    const left = elementAt(this.bouncesLeft, a);
    left.shift();
    return left[0] ?? Infinity;
  }

  /** Opens a lamp for good, by its name. */
  burn(lamp: string): void {
    const at = this.lampAt.get(lamp);
    if (at && this.board.islands[at.island]?.setContact(at.slot, false)) this.soil(at.island);
  }
}
