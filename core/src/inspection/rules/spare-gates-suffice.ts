import { elementAt } from '../../element-at';
import { finding } from '../../finding';
import { type Duty, dutyOfUnit, unitServes } from '../../packing';
import { GROUND, SUPPLY } from '../../planning';
import type { Context, Known } from '../context';
import type { Rule } from '../rule';

/** A gate of a chip: what it does where its output goes anywhere, null where it is spare. */
interface Gate {
  readonly known: Known;
  readonly unit: number;
  readonly duty: Duty | null;
}

/** A chip of gates that the spare gates of other chips could replace; of several such chips the one with the fewest in use. */
export const spareGatesSuffice: Rule = {
  id: 'spare-gates-suffice',
  *check(c) {
    const gates = c.of('chip').map((known) => ({ known, gates: gatesOf(c, known) }));
    const spare = gates.flatMap((chip) => (chip.gates ?? []).filter((g) => g.duty === null));
    const replaceable = gates.flatMap(({ known, gates: own }) => {
      const used = (own ?? []).flatMap(({ duty }) => (duty ? [duty] : []));
      const others = spare.filter((g) => g.known !== known);
      const by = own && used.length > 0 && used.length <= others.length ? matching(used, others) : null;
      return by ? [{ ref: known.seated.ref, used: used.length, by }] : [];
    });
    const [least] = replaceable.sort((a, b) => a.used - b.used);
    if (!least) return;
    const { ref, used, by } = least;
    const what = used === 1 ? 'gate in use' : `${used} gates in use`;
    const as = used === 1 ? 'a spare gate' : 'spare gates';
    const facts = { ref, what, as, refs: [...new Set(by.map((g) => g.known.seated.ref))].join(' and ') };
    yield finding('spare-gates-suffice', [{ kind: 'part', ref }], facts);
  },
};

/** The gates of a chip; null for chips that are not of plain gates alone. */
function gatesOf(c: Context, known: Known): Gate[] | null {
  const { type, named } = known;
  const gates = type.units.map(({ inputs, outputs }, unit) => {
    const does = dutyOfUnit(
      type,
      unit,
      inputs.map((id) => carriedBy(c, named(id))),
    );
    const net = c.netOf(named(outputs[0] ?? ''));
    const isUsed = net !== undefined && c.pinsOn(net).length > 1;
    return does && { known, unit, duty: isUsed ? does.duty : null };
  });
  return gates.length > 0 && gates.every((g) => g !== null) ? gates : null;
}

function carriedBy(c: Context, pin: string): string {
  const net = c.netOf(pin);
  if (net === undefined) return `open ${pin}`;
  const { supply, ground } = c.feedsOf(net);
  return supply ? SUPPLY : ground ? GROUND : `n${net}`;
}

/** A gate for each duty, all different, by augmenting paths (H. W. Kuhn, 1955); null when there is none for some. */
function matching(duties: readonly Duty[], gates: readonly Gate[]): Gate[] | null {
  const takenBy = new Map<Gate, number>();
  const place = (i: number, seen: Set<Gate>): boolean =>
    gates.some((gate) => {
      if (seen.has(gate) || !unitServes(gate.known.type, gate.unit, elementAt(duties, i))) return false;
      seen.add(gate);
      const other = takenBy.get(gate);
      if (other !== undefined && !place(other, seen)) return false;
      takenBy.set(gate, i);
      return true;
    });
  return duties.every((_, i) => place(i, new Set())) ? [...takenBy.keys()] : null;
}
