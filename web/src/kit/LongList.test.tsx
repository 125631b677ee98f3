import { ChakraProvider } from '@chakra-ui/react';
import { render, screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { system } from '../base/theme';
import { LongList } from './LongList';

const things = Array.from({ length: 1000 }, (_, i) => `w${i + 1}`);
const list = (all: readonly string[]) =>
  render(
    <ChakraProvider value={system}>
      <LongList label="jumpers" things={all} keyOf={(id) => id} row={(id) => <b>{id}</b>} />
    </ChakraProvider>,
  );

describe('a long list', () => {
  it('has only the rows near those in sight in the page, and says of how many each is one', () => {
    list(things);
    const rows = within(screen.getByRole('region', { name: 'jumpers' })).getAllByRole('listitem');
    expect(rows.length).toBeGreaterThan(20);
    expect(rows.length).toBeLessThan(200);
    expect(rows[2]?.getAttribute('aria-posinset')).toBe('3');
    expect(rows[2]?.getAttribute('aria-setsize')).toBe('1000');
    expect(rows[2]?.textContent).toBe('w3');
  });

  it('has all of a short one', () => {
    list(things.slice(0, 30));
    expect(screen.getAllByRole('listitem')).toHaveLength(30);
  });
});
