import { ChakraProvider } from '@chakra-ui/react';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { describe, expect, it, vi } from 'vitest';
import { EVERYWHERE, type Shortcut, useShortcuts } from '../base/shortcuts';
import { system } from '../base/theme';
import { KeysButton } from './KeysButton';

function Place({ place, shortcuts }: { readonly place: string; readonly shortcuts: readonly Shortcut[] }) {
  useShortcuts(place, shortcuts);
  return <input aria-label="field" />;
}

const shown = (ui: React.ReactNode) => render(<ChakraProvider value={system}>{ui}</ChakraProvider>);
const press = (key: string, more: object = {}) => fireEvent.keyDown(document.body, { key, ...more });

describe('keys of a screen', () => {
  it('are listed on ?, by place, with what works everywhere last, and closed by Esc', async () => {
    shown(
      <>
        <KeysButton />
        <Place place="On the mat" shortcuts={[{ cap: '+', does: 'larger', keys: ['+'], take: () => true }]} />
        <Place place="In the sheet" shortcuts={[{ cap: 'Tab', does: 'complete a name' }]} />
      </>,
    );
    expect(screen.queryByRole('dialog')).toBeNull();
    press('?', { shiftKey: true });
    const dialog = await screen.findByRole('dialog');
    expect(
      within(dialog)
        .getAllByRole('heading', { level: 3 })
        .map((h) => h.textContent),
    ).toEqual(['In the sheet', 'On the mat', EVERYWHERE]);
    expect(dialog.textContent).toContain('complete a name');
    fireEvent.keyDown(dialog, { key: 'Escape' });
    await vi.waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('do what they did last, leave fields alone, and pass on what they have no use for', () => {
    const taken: string[] = [];
    function Counter() {
      const [n, setN] = useState(0);
      useShortcuts('here', [
        { cap: 'N', does: 'next', keys: ['n'], take: () => setN(n + 1) },
        { cap: 'Ctrl Z', does: 'undo', keys: ['$mod+z'], take: () => void taken.push('undo'), whileWriting: true },
        { cap: 'X', does: 'nothing', keys: ['x'], take: () => false },
      ]);
      return (
        <>
          <output>{n}</output>
          <input aria-label="field" />
        </>
      );
    }
    shown(<Counter />);
    press('n');
    press('n');
    expect(screen.getByRole('status').textContent).toBe('2');
    const field = screen.getByLabelText('field');
    expect(fireEvent.keyDown(field, { key: 'n' })).toBe(true);
    expect(screen.getByRole('status').textContent).toBe('2');
    expect(fireEvent.keyDown(field, { key: 'z', ctrlKey: true })).toBe(false);
    expect(taken).toEqual(['undo']);
    expect(press('x')).toBe(true);
    expect(press('n', { shiftKey: true })).toBe(true);
  });

  it('are gone with their place', () => {
    const take = vi.fn();
    const { unmount } = shown(<Place place="here" shortcuts={[{ cap: 'K', does: 'it', keys: ['k'], take }]} />);
    press('k');
    unmount();
    press('k');
    expect(take).toHaveBeenCalledTimes(1);
  });
});
