import type { Context } from './context';

/** The nets of an LED's leads. */
export interface LedNets {
  readonly ref: string;
  readonly anode: number | undefined;
  readonly cathode: number | undefined;
}

export function ledsOf(c: Context): LedNets[] {
  return c.of('led').map(({ seated: { ref } }) => ({ ref, anode: c.netOf(`${ref}.A`), cathode: c.netOf(`${ref}.K`) }));
}

/** Whether something that carries current without a limit is on a net: a rail, an output, a switch. */
export function isStiff(c: Context, net: number | undefined): boolean {
  if (net === undefined) return false;
  const { supply, ground, outputs, switches } = c.feedsOf(net);
  return supply || ground || outputs.length > 0 || switches.length > 0;
}

/** What a net leads to, directly or through one resistor. */
export function reach(c: Context, net: number | undefined): { ground: boolean; source: boolean } {
  const nets = net === undefined ? [] : [net, ...c.throughResistors(net)];
  const feeds = nets.map((n) => c.feedsOf(n));
  return {
    ground: feeds.some((f) => f.ground),
    source: feeds.some((f) => f.supply || f.outputs.length > 0 || f.switches.length > 0),
  };
}

/** Whether an LED sits the wrong way round: ground behind its anode, a source behind its cathode. */
export function isReversed(c: Context, { anode, cathode }: LedNets): boolean {
  const [a, k] = [reach(c, anode), reach(c, cathode)];
  const grounded = cathode !== undefined && c.feedsOf(cathode).ground;
  return a.ground && !a.source && k.source && !grounded;
}
