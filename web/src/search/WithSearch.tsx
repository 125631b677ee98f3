import { Suspense } from 'react';
import { Outlet } from 'react-router';
import { fetched } from '../base/fetched';
import { openSearch, useSearchOpen } from '../base/searchable';

const { Shown: SearchSheet } = fetched(async () => (await import('./SearchSheet')).SearchSheet);

/** A page, and over it the search while it is open. */
export function WithSearch() {
  const isOpen = useSearchOpen();
  return (
    <>
      <Outlet />
      {isOpen && (
        <Suspense fallback={null}>
          <SearchSheet onClose={() => openSearch(false)} />
        </Suspense>
      )}
    </>
  );
}
