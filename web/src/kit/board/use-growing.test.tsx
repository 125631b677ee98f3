import { anySupplies, newJob, plan, readDesign } from '@saddlebag/core';
import { act } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readBoard } from '../../base/job-context';
import { Colours } from '../../base/palette';
import { renderInJob } from '../../testing/render';
import { localStages } from '../../testing/stages';
import { BoardDrawing } from './BoardDrawing';
import { boardScene } from './scene';

beforeEach(
  () =>
    void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'requestAnimationFrame', 'cancelAnimationFrame'] }),
);
afterEach(() => void vi.useRealTimers());

/** The scene of a board of many chips. */
async function large() {
  const gates = Array.from(
    { length: 164 },
    (_, i) => `n${i} = and(${i === 0 ? 'A' : `n${i - 1}`}, ${i % 2 ? 'A' : 'B'})`,
  );
  const { netlist } = readDesign(`in A B\nout Y\n${gates.join('\n')}\nY = ~n163`).design;
  const { packing } = await localStages
    .stages()
    .packByStrategy(netlist ?? expect.fail(), { family: 'HC', strategy: 'own', supplies: anySupplies }, () => {});
  return boardScene(readBoard(plan(packing ?? expect.fail()).board ?? expect.fail(), packing));
}

describe('a board that is larger than the mat', () => {
  it('stands there with what is in sight, then grows to the whole, and stays whole when it changes', async () => {
    const scene = await large();
    expect(scene.boards.length).toBeGreaterThan(4);
    const drawing = (shown: typeof scene) => <BoardDrawing scene={shown} colours={new Colours([])} title="board" />;
    const { container } = renderInJob(drawing(scene), newJob('large'));
    const drawn = () => ({
      busy: container.querySelector('[role=img]')?.getAttribute('aria-busy'),
      parts: container.querySelectorAll('[data-ref]').length,
      wires: container.querySelectorAll('[data-wire]').length,
    });
    const first = drawn();
    expect(first.busy).toBe('true');
    expect(first.parts).toBeGreaterThan(0);
    expect(first.parts).toBeLessThan(scene.parts.length);
    // All that begins in sight is there: nothing of the boards drawn is missing.
    const line = Math.max(...scene.boards.map((b) => b.y));
    expect(first.wires).toBeLessThan(scene.wires.filter((w) => w.path.some((p) => p.y < line)).length);
    let before = first;
    for (let frame = 0; frame < scene.boards.length && drawn().busy === 'true'; frame++) {
      act(() => void vi.advanceTimersByTime(40));
      const now = drawn();
      expect(now.parts).toBeGreaterThanOrEqual(before.parts);
      expect(now.wires).toBeGreaterThanOrEqual(before.wires);
      before = now;
    }
    expect(before).toEqual({ busy: 'false', parts: scene.parts.length, wires: scene.wires.length });
  });
});
