import { applyEdit, type Job } from '@saddlebag/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { useShortcuts } from '../base/shortcuts';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import { FootLine } from './FootLine';
import type { StepId } from './steps';

beforeEach(() => localStages.reset());

const job = interlock();
const firstWire = Object.keys(job.board.jumpers)[8] ?? '';
const broken = (): Job => {
  const applied = applyEdit(job, { kind: 'pull-jumper', id: firstWire });
  return applied.ok ? applied.job : expect.fail(firstWire);
};

function Screen({ step }: { readonly step: StepId }) {
  useShortcuts('here', [
    { cap: 'K', does: 'what is used most', keys: ['k'], take: () => true, isFirst: true },
    { cap: 'L', does: 'what is used rarely', keys: ['l'], take: () => true },
  ]);
  return <FootLine step={step} />;
}

describe('the line at the foot', () => {
  it('shows the keys that are used most, and the others on demand', async () => {
    renderInJob(<Screen step="board" />, job);
    expect(screen.getByText('what is used most')).toBeDefined();
    expect(screen.queryByText('what is used rarely')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: /all keys/ }));
    expect(await screen.findByText('what is used rarely')).toBeDefined();
  });

  it('tells the worst finding with a way to it, but not where all are listed', async () => {
    const { unmount } = renderInJob(<Screen step="board" />, broken());
    expect(await screen.findByRole('button', { name: 'Show me' })).toBeDefined();
    unmount();
    renderInJob(<Screen step="inspect" />, broken());
    expect(screen.queryByRole('button', { name: 'Show me' })).toBeNull();
  });

  it('is silent about a board without problems', () => {
    renderInJob(<Screen step="board" />, job);
    expect(screen.queryByRole('button', { name: 'Show me' })).toBeNull();
  });
});
