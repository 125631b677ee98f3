import { type DeviceKind, innerOf } from '../catalogue';
import type { Context } from './context';

/** A leg of a transistor: its pin as it is named on the board, and its net. */
export interface Leg {
  readonly pin: string;
  readonly net: number | undefined;
}

/** A seated transistor by its legs; of a MOSFET they are gate, source and drain. */
export interface Transistor {
  readonly ref: string;
  readonly kind: Exclude<DeviceKind, 'diode' | 'analogue-switch'>;
  readonly base: Leg;
  readonly emitter: Leg;
  readonly collector: Leg;
  /** The rail its emitter or source is meant for, and the one that its load hangs on. */
  readonly home: 'ground' | 'supply';
  readonly far: 'ground' | 'supply';
}

/** All transistors of a board. */
export function transistorsOf(c: Context): Transistor[] {
  return c.of('transistor').flatMap(({ seated: { ref }, type, named }) =>
    innerOf(type).devices.flatMap(({ kind, a, b, control }): Transistor[] => {
      if (kind === 'diode' || kind === 'analogue-switch' || control === null) return [];
      const leg = (id: string): Leg => ({ pin: named(id), net: c.netOf(named(id)) });
      const [home, far] = kind === 'pnp' ? (['supply', 'ground'] as const) : (['ground', 'supply'] as const);
      return [{ ref, kind, base: leg(control), emitter: leg(b), collector: leg(a), home, far }];
    }),
  );
}

/** Whether a net is a rail that is fed with supply or ground. */
export const isAt = (c: Context, net: number | undefined, rail: 'ground' | 'supply'): boolean =>
  net !== undefined && c.feedsOf(net)[rail];

/** Whether something that no resistor limits can bring a net to a rail: the rail, an output, a switch from that rail. */
export function isStifflyAt(c: Context, net: number, rail: 'ground' | 'supply'): boolean {
  const { outputs, switches, ...feeds } = c.feedsOf(net);
  if (feeds[rail] || outputs.length > 0) return true;
  if (switches.length === 0) return false;
  const contacts = c.actuators().flatMap((actuator) => actuator.contacts);
  const across = contacts.flatMap(({ a, b }) => [
    [a, b],
    [b, a],
  ]);
  return across.some(([near = '', other = '']) => c.netOf(near) === net && isAt(c, c.netOf(other), rail));
}
