import { extractNets, labelledPlaces, type SeatedPart } from '../board';
import { type FamilyId, readPartNumber, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import { applyEdit, type Edit, type Job } from '../job';
import { type DrawerEntry, DrawerLeft, type Packing, seatedNumber } from '../packing';
import { pullDownFor } from '../planning';

/** A job taken to another family: the edits that do it, which chips change, and what does not. */
export interface FamilySwap {
  readonly edit: Edit;
  /** Chips, by reference, with what they were and what they become. */
  readonly changed: readonly { readonly ref: string; readonly from: string; readonly to: string }[];
  /** Pull-downs, by reference, that get another value, in ohms. */
  readonly pullDowns: readonly { readonly ref: string; readonly from: number; readonly to: number }[];
  /** Chips that are not made in the family, and what else stays as it was. */
  readonly findings: readonly Finding[];
}

/**
 * Takes a job to another family: each chip of its packing and its board becomes the one of the same number, or, where that is not made, of a family
 * that goes together with the one wanted; pull-downs that the plan chose get the values that the new chips need. What is on no board yet is packed anew by whoever asks.
 * With a drawer each chip becomes one that is in it, of the family or of those whose levels meet it: the drawer's own mixture.
 */
export function swapFamily(job: Job, family: FamilyId, drawer?: readonly DrawerEntry[]): FamilySwap {
  const findings: Finding[] = [];
  const swapped = numbers(family, drawer);
  const packing: Packing | null = job.packing && {
    ...job.packing,
    packages: job.packing.packages.map((pack) => (pack.own === undefined ? { ...pack, part: swapped.of(pack) } : pack)),
  };
  const edits: Edit[] = [{ kind: 'set-family', family }];
  const changed: { ref: string; from: string; to: string }[] = [];
  for (const part of Object.values(job.board.parts)) {
    if (part.own !== undefined || typeOf(part)?.kind !== 'chip') continue;
    const to = swapped.of(part);
    const [number, next] = [readPartNumber(part.part), readPartNumber(to)];
    const facts = { ref: part.ref, base: next?.base ?? '', family: familyWords(family), part: to };
    const about = [{ kind: 'part', ref: part.ref }] as const;
    if (drawer && !swapped.isInDrawer(part)) findings.push(finding('family-not-in-drawer', about, facts));
    else if (!drawer && next?.family !== family && next?.family != null)
      findings.push(finding('family-not-made', about, facts));
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
  if (packing) edits.push({ kind: 'take-packing', packing });
  const resistors = packing && job.packing ? pullDowns(job, job.packing, packing) : [];
  edits.push(...resistors.map(({ ref, to }): Edit => ({ kind: 'set-value', ref, value: to })));
  const edit: Edit = { kind: 'all', says: `family ${familyWords(family)}`, edits };
  return { edit, changed, pullDowns: resistors, findings };
}

/** What chips become, each reference once, however often it is asked. */
interface Numbers {
  of(named: Pick<SeatedPart, 'ref' | 'part'>): string;
  isInDrawer(named: Pick<SeatedPart, 'ref' | 'part'>): boolean;
}

function numbers(family: FamilyId, drawer: readonly DrawerEntry[] | undefined): Numbers {
  const left = drawer && new DrawerLeft(drawer, family);
  const known = new Map<string, { readonly part: string; readonly isInDrawer: boolean }>();
  const found = ({ ref, part }: Pick<SeatedPart, 'ref' | 'part'>) => {
    const before = known.get(ref);
    if (before) return before;
    const type = typeOf({ part });
    const isFixed = !type?.chip || !readPartNumber(part)?.family || type.chip.families.length === 0;
    const wanted = isFixed ? part : seatedNumber(type, family);
    const taken = isFixed || !left ? wanted : left.take(type.id, wanted);
    const one = { part: taken ?? wanted, isInDrawer: taken !== null };
    known.set(ref, one);
    return one;
  };
  return { of: (named) => found(named).part, isInDrawer: (named) => found(named).isInDrawer };
}

/** New values of the pull-downs of whatever gives an input, where they still have the one planned for the packing before. */
function pullDowns({ board }: Job, before: Packing, after: Packing): FamilySwap['pullDowns'] {
  const nets = extractNets(board);
  const netOf = (pin: string): number => nets.ofPin.get(pin) ?? -1;
  const given = new Map(labelledPlaces(board, 'give').map(({ signal, pin }) => [signal, netOf(pin)]));
  return before.inputs.flatMap((signal) => {
    const [was, next] = [pullDownFor(before, signal), pullDownFor(after, signal)];
    const net = given.get(signal);
    if (net === undefined || was === next) return [];
    return Object.values(board.parts).flatMap(({ ref, part, value }) => {
      const isThere = part === 'resistor' && value === was && [netOf(`${ref}.1`), netOf(`${ref}.2`)].includes(net);
      return isThere ? [{ ref, from: was, to: next }] : [];
    });
  });
}

/** A family as people write it: `LS`, `HC`; the first one, without letters, is standard TTL. */
export const familyWords = (family: FamilyId): string => (family === '74' ? 'standard TTL' : family);
