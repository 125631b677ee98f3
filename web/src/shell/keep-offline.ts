import { Workbox } from 'workbox-window';
import { whenIdle } from '../base/when-idle';
import { tell } from '../kit/notices';

/** What a person does first comes before keeping the application for later. */
const FIRST_MS = 8000;
/** How often a page that stays open asks whether there is something new. */
const ASK_MS = 60 * 60 * 1000;

/**
 * Keeps the application in this browser once nothing else goes on, so that it opens without the server; tells when there is a new version, which is taken
 * when the person says so. Nothing in a browser that cannot, or while it is developed.
 */
export function keepOffline(): void {
  if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return;
  setTimeout(() => void whenIdle().then(register), FIRST_MS);
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
