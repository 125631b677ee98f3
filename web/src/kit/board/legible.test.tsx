import { readJobFile } from '@saddlebag/core/job-reader';
import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import bench from '../../../../samples/apprentice-bench.saddlebag.json?raw';
import flood from '../../../../samples/flood-watch.saddlebag.json?raw';
import paddles from '../../../../samples/paddle-panel.saddlebag.json?raw';
import bell from '../../../../samples/transistor-bell.saddlebag.json?raw';
import { readBoard } from '../../base/job-context';
import { Colours } from '../../base/palette';
import { LEAST_PX, PointsPerUnit, scaleBelow } from '../legible';
import { BoardPicture } from './BoardDrawing';
import { type BoardScene, boardScene } from './scene';
import { gatesByPin } from './use-scene';

const jobs = [flood, paddles, bench, bell].map((text) => {
  const read = readJobFile(text);
  return read.ok ? read.job : expect.fail('the sample cannot be read');
});

/** All letters of a board drawn at so many points to a tenth of an inch: what they say, and how high they are on the screen. */
function letters(job: (typeof jobs)[number], points: number | null) {
  const read = readBoard(job.board, job.packing);
  const scene: BoardScene = boardScene(read);
  const names = [...read.names.values()];
  const { container, unmount } = render(
    <PointsPerUnit value={points}>
      <BoardPicture
        scene={scene}
        colours={new Colours(names)}
        title="board"
        overlay={{ gateAt: gatesByPin(job.packing) }}
      />
    </PointsPerUnit>,
  );
  const found = [...container.querySelectorAll('text')].map((text) => {
    const scale = Number(
      /scale\((-?[\d.]+)/.exec(text.closest('g[transform*=scale]')?.getAttribute('transform') ?? '')?.[1] ?? 1,
    );
    return {
      says: text.textContent ?? '',
      high: Number.parseFloat(text.style.fontSize) * Math.abs(scale) * (points ?? 1),
    };
  });
  unmount();
  return found;
}

describe('letters on a board', () => {
  it.each([9.5, 12.3, 15, 19, 30])(
    'are never smaller than can be read, at %d points to a tenth of an inch',
    (points) => {
      for (const job of jobs)
        for (const { says, high } of letters(job, scaleBelow(points)))
          expect([says, high >= LEAST_PX - 0.01], `${job.name}: ${says} is ${high}`).toEqual([says, true]);
    },
  );

  it('are fewer where there is less room, and what tells things apart stays', () => {
    const [job] = jobs;
    if (!job) return expect.fail();
    const [few, most] = [12, 32].map((points) => letters(job, points).map((l) => l.says)) as [string[], string[]];
    expect(few.length).toBeLessThan(most.length);
    for (const name of ['U1 74HC32', 'DRY']) expect(few).toContain(name);
    // On paper all are as large as they are drawn.
    expect(letters(job, null).length).toBeGreaterThanOrEqual(most.length);
  });
});
