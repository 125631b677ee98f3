import type { LiveSettings, LiveState } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import beacon from '../../../samples/fog-beacon.saddlebag.json?raw';
import { interlock } from '../testing/interlock';
import { LocalRunner } from './bench-runner';

const FRAME_MS = 16;
const boardOf = (text: string) => {
  const read = readJobFile(text);
  return read.ok ? read.job.board : expect.fail('the sample cannot be read');
};
const settings: LiveSettings = {
  subject: null,
  on: [],
  dials: new Map(),
  start: 'clear',
  bounce: null,
  speed: 1,
  isPaused: false,
  scope: null,
  traced: [],
  sheet: null,
  destroyed: new Map(),
};

beforeEach(() => void vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] }));
afterEach(() => void vi.useRealTimers());

/** A runner with all that it has told. */
function runner(isWanted: () => boolean = () => true) {
  const told: LiveState[] = [];
  const made = new LocalRunner((state) => void told.push(state), isWanted);
  return { made, told, last: () => told.at(-1) ?? expect.fail('nothing was told') };
}

describe('a board that runs in the worker', () => {
  it('tells what is seen after every command, and no more while it rests', () => {
    const { made, told } = runner();
    made.start(interlock().board, settings);
    expect(told).toHaveLength(1);
    made.setSwitches(new Map([['S1', true]]));
    expect(told).toHaveLength(2);
    vi.advanceTimersByTime(5000);
    expect(told).toHaveLength(2);
  });

  it('tells once a frame while it moves, with the time that has gone by', () => {
    const { made, told, last } = runner();
    made.start(boardOf(beacon), settings);
    vi.advanceTimersByTime(50 * FRAME_MS);
    expect(told.length).toBeGreaterThan(40);
    expect(told.length).toBeLessThanOrEqual(52);
    expect(Math.abs(last().timeNs / 1e6 - 50 * FRAME_MS)).toBeLessThan(2 * FRAME_MS);
  });

  it('goes on while nobody looks, and tells nothing then', () => {
    let isLooking = true;
    const { made, told, last } = runner(() => isLooking);
    made.start(boardOf(beacon), settings);
    vi.advanceTimersByTime(10 * FRAME_MS);
    isLooking = false;
    const before = told.length;
    vi.advanceTimersByTime(20 * FRAME_MS);
    expect(told).toHaveLength(before);
    isLooking = true;
    vi.advanceTimersByTime(2 * FRAME_MS);
    expect(last().timeNs / 1e6).toBeGreaterThan(28 * FRAME_MS);
  });

  it('of a tab that slept does not catch up: a tenth of a second at the most', () => {
    const { made, last } = runner();
    made.start(boardOf(beacon), settings);
    vi.advanceTimersByTime(2 * FRAME_MS);
    const before = last().timeNs;
    // The clock jumps, and the timer comes late.
    const now = performance.now();
    const clock = vi.spyOn(performance, 'now').mockImplementation(() => now + 60_000);
    vi.advanceTimersByTime(FRAME_MS);
    clock.mockRestore();
    expect(last().timeNs - before).toBeLessThanOrEqual(100e6 + 1);
  });

  it('stands while it is paused, and goes at its speed', () => {
    const { made, last } = runner();
    made.start(boardOf(beacon), settings);
    made.setPace(1, true);
    const stood = last().timeNs;
    vi.advanceTimersByTime(1000);
    expect(last().timeNs).toBe(stood);
    made.setPace(0.1, false);
    vi.advanceTimersByTime(100 * FRAME_MS);
    const slow = last().timeNs - stood;
    expect(slow / 1e6 / (100 * FRAME_MS)).toBeCloseTo(0.1, 1);
  });

  it('is quiet once it is stopped', () => {
    const { made, told } = runner();
    made.start(boardOf(beacon), settings);
    vi.advanceTimersByTime(3 * FRAME_MS);
    made.stop();
    const before = told.length;
    vi.advanceTimersByTime(1000);
    made.setSwitches(new Map());
    expect(told).toHaveLength(before);
  });
});
