import { delaysOf, families, readDesign, readPartNumber, typeOf } from '../catalogue';
import type { Design } from '../design';
import { type Finding, finding } from '../finding';
import type { Job } from '../job';
import { findHazards, type Hazard, type Hazards, type HazardTarget } from '../logic';
import { remembered } from '../memo';
import { drivenBy, type Packing } from '../packing';

/** The hazards of a design, each gate as slow as the chip that it is packed in may be, or as a gate of `family` where it is not packed. */
export function hazardsOf(
  { behaviour }: Pick<Design, 'behaviour'>,
  family: Job['family'],
  packing: Packing | null,
): Hazards | null {
  if (!behaviour) return null;
  const most = new Map<string, number>();
  for (const { units, ...named } of packing?.packages ?? []) {
    const [type, own] = [typeOf(named), readPartNumber(named.part)?.family ?? family];
    for (const [u, use] of units.entries()) {
      const outputs = type?.units[u]?.behaviour.outputs;
      if (!use || !type || !outputs) continue;
      for (const [o, net] of drivenBy(use).entries()) {
        const { rise, fall } = delaysOf(type, own, outputs[o]?.name);
        most.set(net, Math.max(rise.most, fall.most));
      }
    }
  }
  const usual = families[family].delayNs.most;
  return findHazards(behaviour, (gate) => most.get(gate) ?? usual);
}

/** What a hazard does to what is stored, in words. */
export const targetWords = ({ stored, at }: HazardTarget): string => `the ${at} of ${stored}`;

/** Pulses that may reach a clock, an enable, a clear or a preset: one finding for each of them, the widest. */
export function steeringFindings(job: Job): readonly Finding[] {
  return steeringIn(JSON.stringify([job.family, job.sheet]));
}

const steeringIn = remembered((key): readonly Finding[] => {
  const [family, sheet] = JSON.parse(key) as [Job['family'], string];
  const { design } = readDesign(sheet);
  if ((design.behaviour?.stored.length ?? 0) === 0) return [];
  const worst = new Map<string, Hazard>();
  for (const h of hazardsOf(design, family, null)?.hazards ?? []) {
    if (!h.target) continue;
    const what = targetWords(h.target);
    if (h.widthNs > (worst.get(what)?.widthNs ?? -1)) worst.set(what, h);
  }
  return [...worst].map(([what, { input, widthNs }]) =>
    finding('hazard-steers', [{ kind: 'signal', name: input }], { input, what, ns: widthNs.toFixed(0) }),
  );
}, 50);
