import { ChakraProvider } from '@chakra-ui/react';
import type { LedState } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { act, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import text from '../../../samples/boat-counter.saddlebag.json?raw';
import { system } from '../base/theme';
import { renderInJob } from '../testing/render';
import { localStages } from '../testing/stages';
import { busesOf, Digit } from './LargeReadings';
import PowerStep from './PowerStep';

beforeEach(() => localStages.reset());

const press = (key: string) => act(() => fireEvent.keyDown(document.body, { key, code: key === ' ' ? 'Space' : key }));

describe('lamps that belong together', () => {
  it('are wires of one bus when they differ in their last number, none left out', () => {
    expect(busesOf(['Q3', 'Q2', 'Q1', 'Q0', 'ANY'])).toEqual([['Q3', 'Q2', 'Q1', 'Q0']]);
    expect(busesOf(['A0', 'B1', 'A1', 'B0'])).toEqual([
      ['A1', 'A0'],
      ['B1', 'B0'],
    ]);
    expect(busesOf(['Q3', 'Q1', 'Q0'])).toEqual([]);
    expect(busesOf(['Q0', '7', '8', 'Y'])).toEqual([]);
  });

  it('are a number beside them: unknown without power, then what is counted', async () => {
    const read = readJobFile(text);
    renderInJob(<PowerStep />, read.ok ? read.job : expect.fail('the sample cannot be read'));
    const number = () => screen.getByRole('img', { name: /^Q3 to Q0/ }).getAttribute('aria-label');
    expect(number()).toBe('Q3 to Q0: unknown');
    await userEvent.selectOptions(screen.getByLabelText('what is stored at power up'), 'memory clear');
    press(' ');
    expect(number()).toBe('Q3 to Q0: 0');
    for (let i = 0; i < 6; i++) press('b');
    expect(number()).toBe('Q3 to Q0: 3');
  });
});

describe('a display, large', () => {
  it('says which digit it shows, or which segments are lit', () => {
    const shows = (lit: string): string | null => {
      const stateOf = (segment: string): LedState => (lit.includes(segment) ? 'lit' : 'dark');
      const { container, unmount } = render(
        <ChakraProvider value={system}>
          <Digit called="H1" stateOf={stateOf} />
        </ChakraProvider>,
      );
      const label = container.querySelector('svg')?.getAttribute('aria-label') ?? null;
      unmount();
      return label;
    };
    const segments = ['abcdef', 'bc', 'abged', 'abgcd', 'fgbc', 'afgcd', 'afgedc', 'abc', 'abcdefg', 'abcfgd'];
    expect(segments.map(shows)).toEqual(segments.map((_, digit) => `H1 shows ${digit}`));
    expect(shows('')).toBe('H1 shows nothing');
    expect(shows('ad')).toBe('H1 shows segments a d');
  });
});
