import { countPacking, type Packing, partsOfPacking, typeOf } from '@saddlebag/core';
import { prepare } from '../load';
import { type CliCommand, codeFor, json, many, type Output, plainFinding, tellFindings } from '../output';
import { stopped, withJob } from './shared';

/** Assigns the gates to packages. */
export const pack: CliCommand = {
  name: 'pack',
  describe: 'assign the gates to units of real chips, in the fewest packages',
  act: (file, options, output) =>
    withJob(file, options, output, async (job) => {
      const { packing, findings } = await prepare(job, { layOut: 'never' });
      if (!packing) return stopped(findings, options, output, job.sheet);
      const count = countPacking(packing);
      if (options.json)
        output.out(
          json({
            ...count,
            proved: packing.proved,
            parts: partsOfPacking(packing),
            packing,
            findings: findings.map(plainFinding),
          }),
        );
      else {
        tell(packing, output);
        const proof = packing.proved
          ? 'the fewest that the integer program finds for these gates, proved'
          : 'not proved';
        output.out(
          `${many(count.packages, 'package')}, ${many(count.unitsUsed, 'unit')} used, ${count.unitsSpare} spare; ${proof}.\n`,
        );
        tellFindings(findings, output, job.sheet);
      }
      return codeFor(findings);
    }),
};

function tell({ packages }: Packing, output: Output): void {
  for (const { units, ...named } of packages) {
    const { ref, part } = named;
    const type = typeOf(named);
    output.out(`${ref} ${part}, ${type?.title}\n`);
    units.forEach((use, i) => {
      const unit = type?.units[i];
      const pins = unit ? `pins ${unit.inputs.join(' ')} > ${unit.outputs.join(' ')}` : '';
      output.out(use ? `  ${pins}: ${use.inputs.join(' ')} > ${use.output}\n` : `  ${pins}: spare\n`);
    });
  }
}
