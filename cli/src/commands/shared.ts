import type { Finding, Job, Reading } from '@saddlebag/core';
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
