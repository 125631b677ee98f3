import { styleText } from 'node:util';
import { elementAt, type Finding, isError, type Place, remedy, says } from '@saddlebag/core';
import type { Command } from 'commander';

/** Where a command writes: standard output, and standard error for findings beside a result. */
export interface Output {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** Whether a terminal reads along that shows colours. */
  readonly hasColours?: boolean;
}

/** What every command is told: whether its result is wanted as JSON, and the file for `--output`. */
export interface Options {
  readonly json: boolean;
  readonly to?: string | undefined;
}

/** A command: its name, one line on it, and what it does; `act` returns the exit code. */
export interface CliCommand {
  readonly name: string;
  readonly describe: string;
  /** What `--output` writes, for commands that can. */
  readonly writes?: { readonly what: string; readonly endings: readonly string[] };
  readonly act: (file: string, options: Options, output: Output) => Promise<number>;
}

/** A command with arguments of its own; it adds itself to the program and tells its exit code. */
export interface OwnCommand {
  readonly add: (program: Command, output: Output, done: (code: number) => void) => Command;
}

/** A finding as JSON: code, severity, sentence, what to do, and places. */
export function plainFinding(f: Finding): object {
  return {
    code: f.code,
    severity: f.severity,
    says: says(f),
    todo: remedy(f),
    places: f.places,
    ...(f.fix && { fix: f.fix }),
  };
}

/** How the word for a severity looks on a terminal. */
const looks: Readonly<Record<Finding['severity'], ('bold' | 'red' | 'yellow' | 'blue')[]>> = {
  error: ['bold', 'red'],
  warning: ['bold', 'yellow'],
  note: ['bold', 'blue'],
};

/** Writes findings for people, each with its place; lines of `text` are counted from 1. */
export function tellFindings(findings: readonly Finding[], output: Output, text = ''): void {
  for (const f of findings) {
    const where = f.places[0] ? `${placeText(f.places[0], text)}: ` : '';
    const severity = output.hasColours
      ? styleText(looks[f.severity], f.severity, { validateStream: false })
      : f.severity;
    output.err(`${severity}: ${where}${says(f)} ${remedy(f)}\n`);
  }
}

function placeText(place: Place, text: string): string {
  if (place.kind !== 'text') return elementAt(Object.values(place), 1);
  const before = text.slice(0, place.span.from);
  return `line ${before.split('\n').length}, column ${place.span.from - before.lastIndexOf('\n')}`;
}

/** The exit code that findings ask for: 1 from a warning up, or from an error up. */
export function codeFor(findings: readonly Finding[], least: 'error' | 'warning' = 'error'): number {
  return findings.some((f) => isError(f) || (least === 'warning' && f.severity === 'warning')) ? 1 : 0;
}

/** A number with its noun: `1 jumper`, `28 jumpers`. */
export function many(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? '' : 's'}`;
}

/** A value as the JSON that `--json` prints: indented, ended by a line break. */
export function json(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}
