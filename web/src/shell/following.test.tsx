import { act, fireEvent, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import { letGo, pin } from '../kit/follow';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { FootLine } from './FootLine';

afterEach(() => act(letGo));

describe('a signal that is followed', () => {
  it('is named in the foot line, and Esc ends it whatever else has the focus', () => {
    renderInJob(<FootLine step="board" />, interlock());
    expect(screen.queryByText(/following/)).toBeNull();
    act(() => pin('K'));
    expect(screen.getByText(/following K/)).toBeDefined();
    fireEvent.keyDown(document.body, { key: 'Escape' });
    expect(screen.queryByText(/following/)).toBeNull();
  });

  it('is let go when the job does not have it, and when the job is left', () => {
    const { unmount } = renderInJob(<FootLine step="board" />, interlock());
    act(() => pin('of another job'));
    expect(screen.queryByText(/following/)).toBeNull();
    act(() => pin('E'));
    expect(screen.getByText(/following E/)).toBeDefined();
    unmount();
    renderInJob(<FootLine step="board" />, interlock());
    expect(screen.queryByText(/following/)).toBeNull();
  });
});
