import { byName, type PartType } from '../catalogue';
import { type PinJoin, printStatement, type Statement } from '../design';
import { type Job, newJob } from '../job/job';
import { emptyTable } from '../job/own-table';

/**
 * A new job for trying a chip: its number used on the sheet, a switch for each input and an LED for each
 * output of the chosen units (their numbers, from 1; all when none are named), other inputs tied low.
 * Its truth table is for the person to fill in, where it stores nothing and is not too large for that.
 * It is packed and laid out like any job. Null for parts that are no chips, for transceivers, whose pins
 * would be switched and driven at once, and for analogue switches, which no sheet can use.
 */
export function tryPart(type: PartType, unitNumbers: readonly number[] = []): Job | null {
  if (!type.chip || !canTry(type)) return null;
  const chosen = type.units.filter((_, i) => unitNumbers.length === 0 || unitNumbers.includes(i + 1));
  if (chosen.length === 0) return null;
  const named = (ids: readonly string[], role: string): string[] =>
    [...new Set(ids)]
      .flatMap((pin) => type.pins.filter((p) => p.id === pin && p.role === role).map((p) => p.name))
      .sort(byName);
  const inputs = named(
    chosen.flatMap((u) => u.inputs),
    'input',
  );
  const outputs = named(
    chosen.flatMap((u) => u.outputs),
    'output',
  );
  const rest = named(
    type.units.flatMap((u) => u.inputs),
    'input',
  ).filter((pin) => !inputs.includes(pin));
  const same = (pin: string): PinJoin => ({ pin, expr: { kind: 'name', name: pin } });
  const pins = [
    ...inputs.map(same),
    ...rest.map((pin): PinJoin => ({ pin, expr: { kind: 'const', value: 0 } })),
    ...outputs.map(same),
  ];
  const name = type.ownName ?? type.id;
  const signals = (list: readonly string[]) => list.map((name) => ({ name }));
  const lines: Statement[] = [
    { kind: 'in', signals: signals(inputs) },
    { kind: 'out', signals: signals(outputs) },
    { kind: 'use', part: { name }, ref: { name: 'CHIP' }, pins },
  ];
  const own = type.own === undefined ? [] : ['', type.own, ''];
  const sheet = [
    `# Trying ${name}: ${type.title}.`,
    `# ${type.caveat}`,
    ...own,
    ...lines.map((s) => printStatement(s)),
    '',
  ];
  const stores = chosen.some((u) => u.behaviour.stored.length > 0);
  const table = stores ? null : emptyTable(inputs, outputs);
  const which = unitNumbers.length === 1 && type.units.length > 1 ? `, unit ${unitNumbers[0]}` : '';
  return { ...newJob(`Try ${type.id}${which}`, sheet.join('\n')), ...(table && { ownTable: table }) };
}

/** Whether a chip can be tried: its pins are inputs or outputs, save those that it pulls high itself, and it drives its outputs. */
export function canTry({ chip, pins, units }: PartType): boolean {
  if (!chip || chip.contacts || units.length === 0) return false;
  const own = chip.pulledUp?.split(' ') ?? [];
  return pins.every((p) => p.role !== 'both' || own.includes(p.name));
}
