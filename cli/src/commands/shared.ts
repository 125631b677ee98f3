import {
  DIAL_END,
  type DrawerEntry,
  drawerFromCsv,
  type Finding,
  finding,
  type Job,
  type Reading,
  type Start,
} from '@saddlebag/core';
import { InvalidArgumentError } from 'commander';
import { readBounded } from '../files';
import { load } from '../load';
import { codeFor, json, type Options, type Output, plainFinding, tellFindings } from '../output';

/** Loads a file and goes on with it; when it cannot be read, tells why and gives exit code 1. */
export async function withJob(
  file: string,
  options: Options,
  output: Output,
  go: (job: Job, reading: Reading) => Promise<number> | number,
): Promise<number> {
  const loaded = load(file);
  if (loaded.job) return go(loaded.job, loaded.reading);
  return stopped(loaded.findings, options, output);
}

/** Ends a command that has only findings to tell. */
export function stopped(findings: readonly Finding[], options: Options, output: Output, text?: string): number {
  if (options.json) output.out(json({ findings: findings.map(plainFinding) }));
  else tellFindings(findings, output, text);
  return Math.max(1, codeFor(findings));
}

/** The most bytes of a drawer that are read. */
const MAX_DRAWER_BYTES = 200_000;

/** Reads what the lab has from a CSV file; no entries where it is too big. */
export function readDrawer(path: string): { entries: readonly DrawerEntry[] | null; findings: readonly Finding[] } {
  const text = readBounded(path, MAX_DRAWER_BYTES);
  if (text !== null) return drawerFromCsv(text);
  return { entries: null, findings: [finding('file/too-big', [], { limit: MAX_DRAWER_BYTES })] };
}

/** Nanoseconds of each unit of time. */
const unitsNs: Readonly<Record<string, number>> = { ns: 1, us: 1e3, µs: 1e3, ms: 1e6, s: 1e9, min: 60e9, h: 3600e9 };

/** Reads `3s`, `20ms`, `1.5us` as nanoseconds. Throws commander's error where it is written otherwise. */
export function readTime(text: string): number {
  const [, digits = '', unit = ''] = /^\s*(\d{1,15}(?:\.\d+)?)\s*(ns|us|µs|ms|s|min|h)\s*$/.exec(text) ?? [];
  if (digits === '') throw new InvalidArgumentError('Write a time such as 3s, 20ms, 10us, 150ns, 5min or 1h.');
  return Number(digits) * (unitsNs[unit] ?? 1);
}

/** Reads `unknown`, `clear` or `chance:7`. Throws commander's error where it is written otherwise. */
export function readStart(text: string): Start {
  if (text === 'unknown' || text === 'clear') return text;
  const [, seed] = /^chance(?::(\d{1,9}))?$/.exec(text) ?? [];
  if (!text.startsWith('chance') || (text !== 'chance' && seed === undefined))
    throw new InvalidArgumentError('Write unknown, clear, or chance with a seed such as chance:7.');
  return { chance: Number(seed ?? 1) };
}

/** Reads `RV1=30,RV2=100` as positions of potentiometers. Throws commander's error where it is written otherwise. */
function readTurns(text: string): ReadonlyMap<string, number> {
  return new Map(
    text.split(',').map((part) => {
      const [, ref, position] = /^\s*([^=\s]+)\s*=\s*(\d{1,3})\s*%?\s*$/.exec(part) ?? [];
      if (ref === undefined || Number(position) > DIAL_END)
        throw new InvalidArgumentError(`Write potentiometers with a number from 0 to ${DIAL_END}, such as RV1=30.`);
      return [ref, Number(position)];
    }),
  );
}

/** The option that turns potentiometers, for `.option`. */
export const turnOption: [string, string, typeof readTurns] = [
  '--turn <POT=0..100,...>',
  'where potentiometers stand, the wiper at the first end at 0; in the middle when not given',
  readTurns,
];
