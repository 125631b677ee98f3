import { Workbox } from 'workbox-window';
import { tell } from '../kit/notices';

/** How often a page that stays open asks whether there is something new. */
const ASK_MS = 60 * 60 * 1000;

/**
 * Keeps the application in this browser, so that it opens without the server; tells when there is a new version, which is taken
 * when the person says so. Nothing in a browser that cannot, or while it is developed.
 */
export function keepOffline(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  register();
}

function register(): void {
  const keeper = new Workbox('/sw.js');
  keeper.addEventListener('waiting', () => {
    tell('There is a new version of Saddlebag.', {
      label: 'Take it',
      onClick: () => {
        keeper.addEventListener('controlling', () => window.location.reload());
        keeper.messageSkipWaiting();
      },
    });
  });
  keeper
    .register()
    // Without the server there is nothing new; what is kept goes on.
    .catch(() => {});
  setInterval(() => void keeper.update().catch(() => {}), ASK_MS);
}
