import { newJob, startHistory } from '@saddlebag/core';
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { JobSession } from '../store/session';
import { nowhere } from '../testing/view';
import { useShownJob } from './use-shown-job';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('the job that is shown', () => {
  const open = () => {
    const session = new JobSession({ id: 'job-1', history: startHistory(newJob('lock', 'in A\n')), rev: 1 }, nowhere);
    let times = 0;
    const { result, unmount } = renderHook(() => {
      times++;
      return useShownJob(session);
    });
    const writes = (text: string) => act(() => void session.dispatch({ kind: 'write-sheet', text }));
    const waits = (ms: number) => act(() => void vi.advanceTimersByTime(ms));
    return { session, result, unmount, writes, waits, times: () => times };
  };

  it('follows what is typed once nobody types, and draws nothing at a key', () => {
    const { session, result, writes, waits, times } = open();
    const before = times();
    for (const text of ['in A\no', 'in A\nou', 'in A\nout Y']) {
      writes(text);
      waits(60);
    }
    expect(times()).toBe(before);
    expect(result.current.sheet).toBe('in A\n');
    // It is only the screens that wait.
    expect(session.job.sheet).toBe('in A\nout Y');
    waits(500);
    expect(result.current).toBe(session.job);
    expect(times()).toBe(before + 1);
  });

  it('follows all else at once, with what was typed before it', () => {
    const { session, result, writes } = open();
    writes('in A B\n');
    act(() => void session.dispatch({ kind: 'rename', name: 'weir' }));
    expect(result.current).toBe(session.job);
    expect([result.current.name, result.current.sheet]).toEqual(['weir', 'in A B\n']);
  });

  it('follows undo, and forgets a job that was left', () => {
    const { session, result, writes, waits, unmount } = open();
    writes('in A B\n');
    waits(500);
    act(() => session.undo());
    waits(500);
    expect(result.current.sheet).toBe('in A\n');
    writes('in C\n');
    unmount();
    waits(500);
    expect(result.current.sheet).toBe('in A\n');
  });
});
