/** Without `requestIdleCallback` (Safari) so long is waited for it. */
const APART_MS = 200;

/** Until nothing else goes on. */
export const whenIdle = (): Promise<void> =>
  new Promise((done) => {
    if ('requestIdleCallback' in window) window.requestIdleCallback(() => done());
    else setTimeout(done, APART_MS);
  });
