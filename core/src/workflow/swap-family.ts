import { extractNets, type SeatedPart } from '../board';
import { type FamilyId, readPartNumber, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import { applyEdit, type Edit, type Job } from '../job';
import { type Packing, seatedNumber } from '../packing';
import { pullDownFor } from '../planning';

/** A job taken to another family: the edits that do it, which chips change, and what does not. */
export interface FamilySwap {
  readonly edit: Edit;
  /** Chips, by reference, with what they were and what they become. */
  readonly changed: readonly { readonly ref: string; readonly from: string; readonly to: string }[];
  /** Chips that are not made in the family, and what else stays as it was. */
  readonly findings: readonly Finding[];
}

/**
 * Takes a job to another family: each chip of its packing and its board becomes the one of the same number, or, where that is not made, of a family
 * that goes together with the one wanted; pull-downs that the plan chose get the values that the new chips need. What is on no board yet is packed anew by whoever asks.
 */
export function swapFamily(job: Job, family: FamilyId): FamilySwap {
  const findings: Finding[] = [];
  const swapped = (named: Pick<SeatedPart, 'ref' | 'part'>): string => {
    const type = typeOf(named);
    const number = readPartNumber(named.part);
    if (!type?.chip || !number?.family || type.chip.families.length === 0) return named.part;
    return seatedNumber(type, family);
  };
  const packing: Packing | null = job.packing && {
    ...job.packing,
    packages: job.packing.packages.map((pack) => (pack.own === undefined ? { ...pack, part: swapped(pack) } : pack)),
  };
  const edits: Edit[] = [{ kind: 'set-family', family }];
  const changed: { ref: string; from: string; to: string }[] = [];
  for (const part of Object.values(job.board.parts)) {
    if (part.own !== undefined || typeOf(part)?.kind !== 'chip') continue;
    const to = swapped(part);
    const [number, next] = [readPartNumber(part.part), readPartNumber(to)];
    if (next?.family !== family && next?.family != null)
      findings.push(
        finding('family-not-made', [{ kind: 'part', ref: part.ref }], {
          ref: part.ref,
          base: next.base,
          family: familyWords(family),
          part: to,
        }),
      );
    if (to === part.part || number?.base !== next?.base) continue;
    const edit: Edit = { kind: 'replace', ref: part.ref, by: { part: to } };
    const tried = applyEdit(job, edit);
    if (!tried.ok) {
      findings.push(...tried.findings);
      continue;
    }
    edits.push(edit);
    changed.push({ ref: part.ref, from: part.part, to });
  }
  if (packing && job.packing) {
    edits.push({ kind: 'take-packing', packing });
    edits.push(...pullDowns(job, job.packing, packing));
  }
  return { edit: { kind: 'all', says: `family ${familyWords(family)}`, edits }, changed, findings };
}

/** New values of the pull-downs of switches that still have the one planned for the packing before. */
function pullDowns({ board }: Job, before: Packing, after: Packing): Edit[] {
  const nets = extractNets(board);
  const netOf = (pin: string): number => nets.ofPin.get(pin) ?? -1;
  return before.inputs.flatMap((signal): Edit[] => {
    const [was, next] = [pullDownFor(before, signal), pullDownFor(after, signal)];
    const stimulus = Object.values(board.parts).find((p) => p.signal === signal && typeOf(p)?.kind === 'switch');
    if (!stimulus || was === next) return [];
    const net = netOf(`${stimulus.ref}.2`);
    return Object.values(board.parts).flatMap(({ ref, part, value }): Edit[] => {
      const isThere = part === 'resistor' && value === was && [netOf(`${ref}.1`), netOf(`${ref}.2`)].includes(net);
      return isThere ? [{ kind: 'set-value', ref, value: next }] : [];
    });
  });
}

/** A family as people write it: `LS`, `HC`; the first one, without letters, is standard TTL. */
export const familyWords = (family: FamilyId): string => (family === '74' ? 'standard TTL' : family);
