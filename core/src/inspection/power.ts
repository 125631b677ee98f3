import type { Context } from './context';

type Role = 'supply' | 'ground';

/** The supply or ground pins of all chips. */
export function pinsOfRole(c: Context, role: Role): { pin: string; ref: string; id: string }[] {
  return c.of('chip').flatMap(({ seated: { ref }, type, named }) => {
    const pins = type.pins.filter((p) => p.role === role);
    return pins.map(({ id }) => ({ pin: named(id), ref, id }));
  });
}

/** Whether a pin is on the net of a supply's lead; a pin on a rail that nothing feeds passes as well, since the rail is told of. */
export function carries(c: Context, pin: string, role: Role): boolean {
  const net = c.netOf(pin);
  if (net === undefined) return false;
  const feeds = c.feedsOf(net);
  return feeds[role] || (c.isOnRail(net) && !feeds.supply && !feeds.ground);
}
