import { lazy, Suspense } from 'react';
import { Outlet } from 'react-router';
import { openSearch, useSearchOpen } from '../base/searchable';

const SearchSheet = lazy(() => import('./SearchSheet').then((m) => ({ default: m.SearchSheet })));

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
