import { type Board, cutPin, isBare, type Nets } from '../board';
import type { FamilyId } from '../catalogue';
import type { Finding, Place } from '../finding';
import { onceFor } from '../memo';
import type { Packing } from '../packing';
import { Context } from './context';
import { matched } from './matched';
import { isBuiltOtherwise } from './otherwise';
import type { Rule } from './rule';
import { rules } from './rules';

/**
 * Inspects a board: every rule in turn, errors first. With a packing the wiring is held to it, on whichever equal
 * units and inputs it was laid; without one, and
 * on a board of transistors that does without its chips, the rules on supply, seating, inputs, LEDs and switches still work. A bare board has no findings.
 */
export function inspect(board: Board, nets: Nets, packing: Packing | null, family: FamilyId): Finding[] {
  if (isBare(board)) return [];
  const isOtherwise = isBuiltOtherwise(board, packing);
  const locks = isOtherwise ? null : packing;
  const context = new Context(board, nets, { packing: locks && matched(locks, board, nets), family, isOtherwise });
  const findings: Finding[] = [];
  for (const rule of rules) {
    const causes = findings.filter((f) => rule.coveredBy?.includes(f.code));
    const there = findings.filter((f) => rule.coveredAtPlace?.includes(f.code));
    for (const f of foundBy(rule, context))
      if (!causes.some((cause) => covers(cause, f)) && !isThere(there, f)) findings.push(f);
  }
  const rank = { error: 0, warning: 1, note: 2 };
  return findings.sort((a, b) => rank[a.severity] - rank[b.severity]);
}

/** What a rule finds; of one that looks at parts alone it is kept while they stay. */
function foundBy(rule: Rule, context: Context): Iterable<Finding> {
  if (!rule.partsAlone) return rule.check(context);
  const known = ofParts(context.board.parts);
  const found = known.get(rule) ?? [...rule.check(context)];
  known.set(rule, found);
  return found;
}

/** What rules of parts alone have found among some parts. */
const ofParts: (parts: Board['parts']) => Map<Rule, readonly Finding[]> = onceFor(() => new Map());

/** A cause at a part or pin covers what is found at that part; one without a part covers everything. */
function covers(cause: Finding, f: Finding): boolean {
  const refs = new Set(cause.places.flatMap((p) => partAt(p) ?? []));
  if (refs.size === 0 || cause.code === 'supply-shorted') return true;
  return f.places.some((p) => refs.has(partAt(p) ?? ''));
}

/** Whether all that a finding is at is among the places of causes, be it one or several. */
function isThere(causes: readonly Finding[], f: Finding): boolean {
  const places = new Set(causes.flatMap((cause) => cause.places.map((p) => JSON.stringify(p))));
  return f.places.length > 0 && f.places.every((p) => places.has(JSON.stringify(p)));
}

/** The reference of the part that a place is on. */
function partAt(place: Place): string | undefined {
  if (place.kind === 'part') return place.ref;
  return place.kind === 'pin' ? cutPin(place.pin).ref : undefined;
}
