import '@fontsource/atkinson-hyperlegible/400.css';
import '@fontsource/atkinson-hyperlegible/700.css';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/600.css';
import '@fontsource/zilla-slab/500.css';
import '@fontsource/zilla-slab/600.css';
import { ChakraProvider } from '@chakra-ui/react';
import createCache from '@emotion/cache';
import { CacheProvider } from '@emotion/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router/dom';
import { applySettings } from '../base/settings';
import { system } from '../base/theme';
import { whenIdle } from '../base/when-idle';
import { Notices } from '../kit/notices';
import { fetchJobPage } from './fetch-job-page';
import { router } from './router';

const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce;
const cache = createCache({ key: 'sb', ...(nonce ? { nonce } : {}) });
const queries = new QueryClient({
  defaultOptions: {
    queries: { networkMode: 'always', retry: false, staleTime: Number.POSITIVE_INFINITY, gcTime: 60_000 },
  },
});

applySettings();
const root = document.getElementById('root');
if (!root) throw new Error('no #root');
createRoot(root).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
          <Notices />
        </QueryClientProvider>
      </ChakraProvider>
    </CacheProvider>
  </StrictMode>,
);
// The page of a job is there before one is opened; what cannot be fetched now is asked for again then.
const SHELF_FIRST_MS = 2000;
/** What a person does first comes before keeping the application for later. */
const KEEP_AFTER_MS = 8000;
window.addEventListener('load', () => {
  setTimeout(() => void whenIdle().then(() => fetchJobPage().catch(() => {})), SHELF_FIRST_MS);
  // So is what keeps all of it for when the server is gone.
  setTimeout(
    () =>
      void whenIdle().then(() =>
        import('./keep-offline').then(
          (m) => m.keepOffline(),
          () => {},
        ),
      ),
    KEEP_AFTER_MS,
  );
});
