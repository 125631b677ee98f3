import { applyEdit, type Board, routeJumpers } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { interlock } from '../../testing/interlock';
import { learnRoutes, routesOf } from './routes';

const job = interlock();
const { board } = job;
const pulled = (id: string): Board => {
  const applied = applyEdit(job, { kind: 'pull-jumper', id });
  return applied.ok ? applied.job.board : expect.fail(id);
};
/** A board with so many jumpers that nobody has routed. */
const crowded = (count: number): Board => ({
  ...board,
  parts: {},
  jumpers: Object.fromEntries(
    Array.from({ length: count }, (_, i) => {
      const id = `w${i + 1}`;
      return [id, { id, from: `b1.${'abcde'[i % 5]}${2 + (i % 25)}`, to: `b1.${'fghij'[i % 5]}${30 + (i % 25)}` }];
    }),
  ),
});

describe('the ways of wires', () => {
  it('of a small board are there at once, and the same for the same board', () => {
    const ways = routesOf(board) ?? expect.fail('none');
    expect([...ways.keys()].sort()).toEqual(Object.keys(board.jumpers).sort());
    expect(routesOf(board)).toBe(ways);
  });

  it('stay as they are when a wire is pulled, and come back as they were when that is undone', () => {
    const before = routesOf(board) ?? expect.fail('none');
    const after = routesOf(pulled('w10')) ?? expect.fail('none');
    expect(after.has('w10')).toBe(false);
    for (const [id, path] of after) expect(path).toBe(before.get(id));
    expect(routesOf(board)).toBe(before);
  });

  it('of many new wires are left to the worker, and kept once they are learned', () => {
    const many = crowded(120);
    expect(routesOf(many)).toBeNull();
    const paths = routeJumpers(many);
    learnRoutes(many, paths);
    expect(routesOf(many)).toBe(paths);
    // One wire more is routed at once, and leaves the others where they are.
    const more = { ...many, jumpers: { ...many.jumpers, w500: { id: 'w500', from: 'b1.a60', to: 'b1.j60' } } };
    const next = routesOf(more) ?? expect.fail('not at once');
    expect(next.size).toBe(121);
    for (const [id, path] of paths) expect(next.get(id)).toBe(path);
  });
});
