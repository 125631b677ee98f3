import { ChakraProvider } from '@chakra-ui/react';
import { render, screen } from '@testing-library/react';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { system } from '../base/theme';
import { renderPage } from '../testing/render';
import { CrashPage, LostPage } from './CrashPage';

afterEach(() => void vi.restoreAllMocks());

describe('when all else fails', () => {
  it('an address that leads nowhere says so, with the way to the shelf', () => {
    renderPage(<LostPage />);
    expect(screen.getByRole('heading', { name: 'There is nothing at this address' })).toBeDefined();
    expect(screen.getByRole('link', { name: 'To the shelf' }).getAttribute('href')).toBe('/');
  });

  it.each([
    ['an error', new Error('the weir is open'), 'the weir is open'],
    ['anything else', 'no words', 'no words'],
  ])('a screen that throws %s says what happened, that the jobs are kept, and the way back', (_, thrown, said) => {
    vi.spyOn(console, 'error').mockImplementation(() => {});
    function Broken(): never {
      throw thrown;
    }
    const router = createMemoryRouter([{ path: '*', element: <Broken />, errorElement: <CrashPage /> }]);
    render(
      <ChakraProvider value={system}>
        <RouterProvider router={router} />
      </ChakraProvider>,
    );
    expect(screen.getByText(said)).toBeDefined();
    expect(screen.getByText(/Your jobs are kept in this browser as they were/)).toBeDefined();
    expect(screen.getByRole('link', { name: 'To the shelf' })).toBeDefined();
  });
});
