import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { type FamilyId, familyIds, partNumber, partType, readDesign, readPartNumber } from '../catalogue';
import { says } from '../finding';
import { applyEdit, type Job, newJob } from '../job';
import { readJobFile } from '../job/file';
import { writeJobFile } from '../job/write';
import { tableOf, wantedAt } from '../logic';
import { levelsMeet, mixtureOf } from '../packing/drawer';
import { walkTable } from '../simulation';
import { arbitraryFittedSheet } from '../testing/fitted';
import { laidOut, solve } from '../testing/interlock';
import { inspectJob, layOutJob, packJob } from './index';
import { swapFamily } from './swap-family';

const samples = `${import.meta.dirname}/../../../samples`;
const sheets = ['lock-interlock', 'boat-tally', 'towpath-lamp', 'level-dial'];

/** A sample's sheet packed in a family and laid out. */
async function built(name: string, family: FamilyId): Promise<Job> {
  const job: Job = { ...newJob(name, readFileSync(`${samples}/${name}.sheet`, 'utf8')), family };
  const { packing } = await packJob(job, solve);
  const { edit } = layOutJob(job, packing ?? expect.fail(name), null);
  const applied = edit && applyEdit(job, edit);
  return applied?.ok ? applied.job : expect.fail(`${name} is not laid out`);
}
/** Whether a job has nothing to mend, and its board does what its sheet says. */
function isRight(job: Job, name: string): void {
  expect(
    inspectJob(job, job.packing).filter((f) => f.severity !== 'note'),
    name,
  ).toEqual([]);
  const { board } = job;
  const behaviour = readDesign(job.sheet).design.behaviour ?? expect.fail(name);
  const outputs = behaviour.outputs.map((o) => o.name);
  const rows = [...walkTable(board, extractNets(board), { inputs: behaviour.inputs, outputs })];
  const table = tableOf(behaviour);
  expect(rows).toHaveLength(2 ** behaviour.inputs.length);
  for (const { row, seen } of rows)
    outputs.forEach((_, o) => {
      const wanted = wantedAt(table, o, row);
      if (wanted !== null) expect(seen[o], `${name}, row ${row}`).toBe(wanted);
    });
}

describe('a job in any family', () => {
  it.each(familyIds)(
    '%s: is packed in it, laid out with nothing to mend, and does what its sheet says',
    async (family) => {
      for (const name of sheets) {
        const job = await built(name, family);
        for (const { part } of job.packing?.packages ?? []) {
          // Of the family, or, where that number is not made in it, of one that goes together with it.
          const [number, type] = [readPartNumber(part), partType(part)];
          const own = number?.family ?? expect.fail(part);
          expect(type?.chip?.families, part).toContain(own);
          if (type?.chip?.families.includes(family)) expect(own).toBe(family);
          else expect(levelsMeet(own, family), `${part} in ${family}`).toBe(true);
        }
        isRight(job, `${name} in ${family}`);
        const read = readJobFile(writeJobFile(job));
        expect(read.ok && read.job).toEqual(job);
      }
    },
  );

  it('is taken to any other with one edit, which changes its chips and pull-downs, and back again', async () => {
    for (const name of ['lock-interlock', 'level-dial']) {
      const job = await built(name, 'HC');
      for (const family of familyIds) {
        const { edit, changed, findings } = swapFamily(job, family);
        const applied = applyEdit(job, edit);
        if (!applied.ok) return expect.fail(family);
        isRight(applied.job, `${name} from HC to ${family}`);
        const kept = (job.packing?.packages ?? []).filter((p) => !partType(p.part)?.chip?.families.includes(family));
        expect(findings.map((f) => f.facts.ref)).toEqual(kept.map((p) => p.ref));
        if (family === 'HC') expect(changed).toEqual([]);
        // Some are the nearest to the family already.
        else
          for (const p of job.packing?.packages ?? [])
            if (!kept.includes(p)) expect(changed.map((c) => c.ref)).toContain(p.ref);
        const back = applyEdit(applied.job, swapFamily(applied.job, 'HC').edit);
        expect(back.ok && back.job).toEqual(job);
        const undone = applyEdit(applied.job, applied.inverse);
        expect(undone.ok && undone.job).toEqual(job);
      }
    }
  });

  it('has nothing to mend in any other either, whatever its signals come from and are shown on', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryFittedSheet, fc.constantFrom(...familyIds), async (sheet, family) => {
        const { job } = await laidOut(sheet);
        const applied = applyEdit(job, swapFamily(job, family).edit);
        const after = applied.ok ? applied.job : expect.fail(sheet);
        const found = inspectJob(after, after.packing).filter((f) => f.severity !== 'note');
        expect(found.map(says), `${family}\n${sheet}`).toEqual([]);
      }),
      { numRuns: 12 },
    );
  });

  it('says which chips are not made in it, and has gates go together with parts used by number', async () => {
    const sheet =
      'in C R\nout QD Y\nuse 7490 as U (CKA = C, CKB = QA, R01 = R, R02 = R, R91 = 0, R92 = 0, QA = QA, QD = QD)\nY = ~QD\n';
    const { job } = await laidOut(sheet);
    const families = (job.packing?.packages ?? []).map(({ part }) => part).sort();
    // No 7490 is made in HC, and LS gives no high that HC is sure of: the gates are HCT.
    expect(families).toEqual(['74HCT04', '74LS90']);
    expect(inspectJob(job, job.packing).filter((f) => f.severity === 'error')).toEqual([]);
    const { findings } = swapFamily(job, 'ALS');
    expect(findings.map((f) => [f.code, f.facts.base])).toEqual([['family-not-made', '7490']]);
  });

  it('is taken to the drawer’s own mixture: what is there, levels met both ways, and told where it has no such chip', async () => {
    const drawer = fc.uniqueArray(
      fc.record({
        base: fc.constantFrom('7400', '7404', '7408', '7411', '7420', '7421', '7432', '7486'),
        family: fc.constantFrom<FamilyId>('LS', 'HC', 'HCT', 'ALS', 'ACT'),
        count: fc.integer({ min: 0, max: 3 }),
      }),
      { selector: ({ base, family }) => base + family, minLength: 1, maxLength: 25 },
    );
    const jobs = [await built('lock-interlock', 'HC'), await built('boat-tally', 'LS')];
    fc.assert(
      fc.property(drawer, fc.constantFrom(...jobs), (entries, job) => {
        const lab = entries.map(({ base, family, count }) => ({ part: partNumber(base, family), count }));
        const mixture = mixtureOf(lab);
        if (!mixture) {
          expect(entries.filter(({ count }) => count > 0)).toEqual([]);
          return;
        }
        for (const a of [mixture.family, ...mixture.others])
          for (const b of mixture.others) expect(levelsMeet(a, b), `${a} ${b}`).toBe(true);
        const { edit, findings } = swapFamily(job, mixture.family, lab);
        const applied = applyEdit(job, edit);
        if (!applied.ok) return expect.fail('not applied');
        expect(applied.job.family).toBe(mixture.family);
        const lacking = new Set(findings.map((f) => f.facts.ref));
        const used = new Map<string, number>();
        for (const { ref, part } of applied.job.packing?.packages ?? []) {
          expect(applied.job.board.parts[ref]?.part).toBe(part);
          if (lacking.has(ref)) expect(readPartNumber(part)?.family).toBe(mixture.family);
          else used.set(part, (used.get(part) ?? 0) + 1);
        }
        for (const [part, n] of used) expect(n).toBeLessThanOrEqual(lab.find((e) => e.part === part)?.count ?? 0);
        isRight(applied.job, [...used.keys()].join());
      }),
      { numRuns: 25 },
    );
  });
});
