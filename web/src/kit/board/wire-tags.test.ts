import { readJobFile } from '@saddlebag/core/job-reader';
import { describe, expect, it } from 'vitest';
import lamp from '../../../../samples/flood-watch.saddlebag.json?raw';
import clock from '../../../../samples/keepers-clock.saddlebag.json?raw';
import { readBoard } from '../../base/job-context';
import { type BoardScene, boardScene } from './scene';
import { boxOf, overlap, type WireTag } from './wire-tags';

function sceneOf(text: string): BoardScene {
  const read = readJobFile(text);
  if (!read.ok) return expect.fail('the sample cannot be read');
  return boardScene(readBoard(read.job.board, read.job.packing));
}
const large = sceneOf(clock);

describe('names on wires that leave sight', () => {
  it('stand at both ends of each signal wire that reaches to another board or far along one, and on no other', () => {
    const ofWire = new Map<string, WireTag[]>();
    for (const tag of large.tags) ofWire.set(tag.wire, [...(ofWire.get(tag.wire) ?? []), tag]);
    let far = 0;
    for (const { id, path, signal } of large.wires) {
      const [a, b] = [path[0], path.at(-1)];
      if (!a || !b) return expect.fail(id);
      const isFar =
        Math.abs(a.x - b.x) + Math.abs(a.y - b.y) > 24 || Math.floor((a.y + 1) / 20) !== Math.floor((b.y + 1) / 20);
      const isSignal = signal !== undefined && signal !== '0' && signal !== '1';
      expect([id, ofWire.get(id)?.length ?? 0]).toEqual([id, isFar && isSignal ? 2 : 0]);
      if (isFar && isSignal) far++;
    }
    expect(far).toBeGreaterThan(10);
    expect(sceneOf(lamp).tags.length).toBeLessThan(sceneOf(lamp).wires.length);
  });

  it('lie on their own wire with its signal, nearer to their end than to the other, and hardly ever on each other', () => {
    const wires = new Map(large.wires.map((w) => [w.id, w]));
    for (const tag of large.tags) {
      const wire = wires.get(tag.wire) ?? expect.fail(tag.wire);
      const on = wire.path.slice(1).some((q, i) => {
        const p = wire.path[i] ?? q;
        return tag.isUpright
          ? p.x === q.x && p.x === tag.x && Math.abs(2 * tag.y - p.y - q.y) <= Math.abs(p.y - q.y) - tag.length
          : p.y === q.y && p.y === tag.y && Math.abs(2 * tag.x - p.x - q.x) <= Math.abs(p.x - q.x) - tag.length;
      });
      expect([tag.wire, on, tag.signal]).toEqual([tag.wire, true, wire.signal]);
    }
    const pairs = large.tags.flatMap((a, i) => large.tags.slice(0, i).filter((b) => overlap(boxOf(a), boxOf(b))));
    expect(pairs.length).toBeLessThanOrEqual(large.tags.length / 50);
  });
});
