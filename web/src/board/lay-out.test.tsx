import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import { BoardTools } from './BoardTools';

/** A worker that never ends laying out, and goes on telling how far it is even when it has been stopped. */
const worker = { tell: (_share: number): void => {} };
beforeEach(() => {
  localStages.instead = (signal, run) =>
    new Promise((_, reject) => {
      signal.addEventListener('abort', () => reject(signal.reason));
      run({
        layOut: (_job: object, _packing: object, _netlist: object, tell: (share: number) => void) => {
          worker.tell = tell;
          tell(0.62);
        },
      });
    });
});
afterEach(() => localStages.reset());

describe('laying out', () => {
  it('that is stopped is over at once, whatever the worker still tells', async () => {
    const line = { current: null };
    const none = () => true;
    renderInJob(
      <BoardTools work={{ dispatch: none, refusal: null }} onSay={none} line={line} guided={false} onGuide={none} />,
      interlock(),
    );
    await userEvent.click(screen.getByRole('button', { name: 'Lay out afresh' }));
    expect(screen.getByText('laying out 62 %')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
    act(() => worker.tell(0.7));
    expect(screen.queryByText(/laying out/)).toBeNull();
    // And it can be begun again.
    await userEvent.click(screen.getByRole('button', { name: 'Lay out afresh' }));
    act(() => worker.tell(0.1));
    expect(screen.getByText('laying out 10 %')).toBeDefined();
  });
});
