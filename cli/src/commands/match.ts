import {
  extractNets,
  finding,
  inspectJob,
  isBuiltOtherwise,
  isError,
  matched,
  placeOf,
  printPlace,
} from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, codeFor, json, many, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Rules that tell where the wiring is not the design's. */
const wiring = /^(wiring-|floating-input|signals-joined|outputs-joined|output-on-rail|part-|signal-has-no)/;

/** Finds each gate of the design on the board, on whichever unit it was wired, and what differs. */
export const match: CliCommand = {
  name: 'match',
  describe: 'find each gate of the design on the board, on whichever unit it was wired, and what differs',
  act: (file, options, output) =>
    withJob(file, options, output, async (given) => {
      const { job, packing, findings } = await prepare(given, { layOut: 'if-bare' });
      if (!packing || findings.some(isError)) return stopped(findings, options, output, job.sheet);
      if (isBuiltOtherwise(job.board, packing))
        return stopped([finding('built-otherwise', [], {})], options, output, job.sheet);
      const found = matched(packing, job.board, extractNets(job.board));
      const gates = found.packages.flatMap(({ ref, units }) =>
        units.flatMap((use, unit) => {
          if (!use) return [];
          const meant = placeOf(packing, use.output);
          const at = printPlace({ ref, unit });
          return [{ net: use.output, at, meant: meant && printPlace(meant), inputs: use.inputs }];
        }),
      );
      const differs = inspectJob(job, packing).filter((f) => wiring.test(f.code));
      const moved = gates.filter((g) => g.at !== g.meant).length;
      if (options.json) output.out(json({ gates, moved, findings: differs.map(plainFinding) }));
      else {
        for (const { net, at, meant, inputs } of gates)
          output.out(`${net} on ${at}${at === meant ? '' : `, planned on ${meant}`}: ${inputs.join(' ')}\n`);
        output.out(
          `${many(gates.length, 'gate')} found, ${moved} on another unit than planned; ${many(differs.length, 'difference')}.\n`,
        );
        tellFindings(differs, output, job.sheet);
      }
      return codeFor(differs, 'warning');
    }),
};
