import { describe, expect, it } from 'vitest';
import { extractNets, leadsOf, type SeatedPart } from '../board';
import { benchParts, typeOf } from '../catalogue';
import { readJobFile } from '../job-reader';
import { applyEdit } from './edit';
import { type Job, newJob } from './job';
import { writeJobFile } from './write';

const bending = benchParts.filter((type) => type.spans);
const lying = (part: string, ref: string, at: string): SeatedPart => {
  const second = typeOf({ part })?.pins[1];
  return { ref, part, at, rotation: (second?.dx ?? 0) > 0 ? 0 : 90 };
};
const seatedOn = (job: Job, part: SeatedPart): Job => {
  const applied = applyEdit(job, { kind: 'seat', part });
  return applied.ok ? applied.job : expect.fail(part.ref);
};

describe('leads that are bent apart', () => {
  it.each(bending.map((type) => [type.id, type] as const))(
    'of a %s reach as far as they are long, and no farther',
    (id, type) => {
      const [least, most] = type.spans ?? expect.fail();
      const usual = type.pins[1] ?? expect.fail();
      expect(Math.max(usual.dx, usual.dy)).toBeGreaterThanOrEqual(least);
      const laid = seatedOn(newJob('bench'), lying(id, 'X1', 'b1.h20'));
      for (let span = 0; span <= 12; span++) {
        const bent = applyEdit(laid, { kind: 'set-span', ref: 'X1', span });
        expect(bent.ok, `${span}`).toBe(span >= least && span <= most);
        if (!bent.ok) continue;
        const part = bent.job.board.parts.X1 ?? expect.fail();
        const [a, b] = leadsOf(part).map((lead) => lead.hole ?? expect.fail());
        expect(Math.abs((a?.column ?? 0) - (b?.column ?? 0))).toBe(span);
        // Two strips apart, and the body between them over none of its own leads.
        const nets = extractNets(bent.job.board);
        expect(nets.ofPin.size).toBe(2);
        const { body, pins } = typeOf(part) ?? expect.fail();
        const middle = (pins[1]?.dx ?? 0) / 2 + (pins[1]?.dy ?? 0) / 2;
        const usualMiddle = (usual.dx + usual.dy) / 2;
        const along = usual.dx > 0 ? body.x - type.body.x : body.y - type.body.y;
        expect(along).toBeCloseTo(middle - usualMiddle, 9);
        const back = readJobFile(writeJobFile(bent.job));
        expect(back.ok && back.job.board.parts.X1).toEqual(part);
      }
    },
  );

  it('of other parts are stiff, and a hole that is taken is refused', () => {
    const chip = seatedOn(newJob('bench'), { ref: 'U1', part: '74HC00', at: 'b1.e20', rotation: 0 });
    const stiff = applyEdit(chip, { kind: 'set-span', ref: 'U1', span: 4 });
    expect(stiff.ok ? [] : stiff.findings.map((f) => f.code)).toEqual(['hand/stiff-leads']);
    // The second lead goes to the left: in two holes it meets the LED's.
    const both = seatedOn(seatedOn(newJob('bench'), lying('led', 'D1', 'b1.a33')), lying('capacitor', 'C1', 'b1.a36'));
    for (const [span, ok] of [
      [1, true],
      [2, false],
      [3, false],
    ] as const)
      expect(applyEdit(both, { kind: 'set-span', ref: 'C1', span }).ok, `${span}`).toBe(ok);
  });
});
