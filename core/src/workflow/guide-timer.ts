import { isRailStrip, pinOf, type SeatedPart } from '../board';
import { typeOf } from '../catalogue';
import { GROUND, SUPPLY, timerLeads, timerPinsOf } from '../planning';
import type { GuideSite, Want } from './guide-site';

/**
 * What a timer on the board needs, beside its supply, to run by itself: reset at supply, trigger at the threshold, a resistor from supply to the
 * discharge, one from there to the capacitor, and the capacitor to ground. Parts that stand there serve, whatever their values.
 */
export class TimerBuild {
  constructor(
    private readonly site: GuideSite,
    private readonly seated: SeatedPart,
    private readonly planned: SeatedPart,
  ) {}

  wants(): Want[] {
    const { site, seated } = this;
    const pins = timerPinsOf(seated);
    const leads = timerPinsOf(this.planned);
    if (!pins || !leads) return [];
    const { toSupply, toCapacitor, capacitor } = timerLeads(leads);
    const { ref } = seated;
    const above = this.found('resistor', pins.empties, (pin) => this.netOf(pin) !== this.netOf(pins.ends));
    const below = this.found('resistor', pins.ends, () => true);
    const charged = this.found('capacitor', pins.ends, () => true);
    const kept = (found: SeatedPart | undefined, pin: string, next: (lead: string) => Want): Want => {
      return () => (found ? next(this.otherLead(found, pin))() : null);
    };
    return [
      site.carries(pins.clears, SUPPLY),
      this.joined(pins.begins, pins.ends, `the threshold of ${ref}`),
      this.placed(above, {
        pin: pins.empties,
        nets: [toSupply[1], toSupply[0]],
        what: `the resistor of ${ref} to supply`,
      }),
      kept(above, pins.empties, (lead) => site.carries(lead, SUPPLY)),
      this.placed(below, {
        pin: pins.ends,
        nets: [toCapacitor[1], toCapacitor[0]],
        what: `the resistor of ${ref} to its capacitor`,
      }),
      kept(below, pins.ends, (lead) => this.joined(lead, pins.empties, `the discharge of ${ref}`)),
      this.placed(charged, { pin: pins.ends, nets: capacitor, what: `the capacitor of ${ref}` }),
      kept(charged, pins.ends, (lead) => site.carries(lead, GROUND)),
    ];
  }

  private netOf(pin: string): number {
    return this.site.nets.ofPin.get(pin) ?? -1;
  }

  /** The lead that is not on the net of a pin; the second where both are. */
  private otherLead(part: SeatedPart, pin: string): string {
    const [first, second] = leadsOf(part);
    return this.netOf(first) === this.netOf(pin) ? second : first;
  }

  /** A part of a kind with one lead on the net of a pin, and the other where it may be. */
  private found(kind: string, pin: string, isOther: (lead: string) => boolean): SeatedPart | undefined {
    return Object.values(this.site.board.parts).find((part) => {
      if (typeOf(part)?.kind !== kind) return false;
      const isOn = leadsOf(part).some((lead) => this.netOf(lead) === this.netOf(pin));
      return isOn && isOther(this.otherLead(part, pin));
    });
  }

  /** Unless it is there, joins a loose part like the plan's with its leads on two nets to a pin, or else seats that of the plan. */
  private placed(
    there: SeatedPart | undefined,
    {
      pin,
      nets: [on, other],
      what,
    }: { readonly pin: string; readonly nets: readonly [string, string]; readonly what: string },
  ): Want {
    return () => {
      const planned = there ? null : this.site.plannedBetween(on, other);
      if (!planned) return null;
      const loose = Object.values(this.site.board.parts).flatMap((part) => {
        if (part.part !== planned.part.part || part.value !== planned.part.value) return [];
        const leads = leadsOf(part);
        // Only of an electrolytic capacitor does it matter which lead is which.
        const ends = part.part === 'electrolytic' ? [planned.lead] : [planned.lead, 1 - planned.lead];
        return ends.flatMap((k) => {
          const [own = '', far = ''] = [leads[k], leads[1 - k]];
          return this.isFree(own) && (this.isFree(far) || this.site.names.get(this.netOf(far)) === other) ? [own] : [];
        });
      })[0];
      return loose === undefined
        ? this.site.seatedNext(planned.part.ref, what)
        : this.site.joined(loose, this.netOf(pin), what);
    };
  }

  /** Whether a lead is joined to nothing. */
  private isFree(pin: string): boolean {
    const net = this.site.nets.nets[this.netOf(pin)];
    return (net?.pins.length ?? 0) < 2 && !net?.strips.some(isRailStrip);
  }

  private joined(pin: string, to: string, what: string): Want {
    return () => (this.netOf(pin) === this.netOf(to) ? null : this.site.joined(pin, this.netOf(to), what));
  }
}

const leadsOf = ({ ref }: SeatedPart): [string, string] => [pinOf(ref, '1'), pinOf(ref, '2')];
