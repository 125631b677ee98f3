import { writeFileSync } from 'node:fs';
import { isBare, isError, writeJobFile } from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, codeFor, json, many, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Lays the job out on boards. */
export const plan: CliCommand = {
  name: 'plan',
  describe: 'lay the chips, parts and jumpers out on breadboards',
  writes: 'the job, laid out,',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, findings } = await prepare(given, { layOut: 'afresh' });
      if (findings.some(isError) || isBare(job.board)) return stopped(findings, options, output, job.sheet);
      const { breadboards, parts, jumpers } = job.board;
      if (options.to !== undefined) {
        try {
          writeFileSync(options.to, writeJobFile(job));
        } catch (e) {
          output.err(`saddlebag: ${options.to} cannot be written: ${e instanceof Error ? e.message : e}\n`);
          return 2;
        }
      }
      if (options.json) {
        output.out(
          json({
            breadboards,
            parts: Object.values(parts),
            jumpers: Object.values(jumpers),
            findings: findings.map(plainFinding),
          }),
        );
        return codeFor(findings);
      }
      for (const { ref, part, at, turn, signal } of Object.values(parts))
        output.out(
          `${ref.padEnd(4)} ${part.padEnd(10)} ${at}${turn === 0 ? '' : `, turned ${turn}°`}${signal ? `  ${signal}` : ''}\n`,
        );
      for (const { id, from, to } of Object.values(jumpers)) output.out(`${id.padEnd(4)} ${from} > ${to}\n`);
      output.out(
        `${many(Object.keys(parts).length, 'part')} and ${many(Object.keys(jumpers).length, 'jumper')} on ${many(breadboards.length, 'board')}.
`,
      );
      tellFindings(findings, output, job.sheet);
      return codeFor(findings);
    }),
};
