import type { TestProject } from 'vitest/node';
import { launch } from './browser';
import { serve } from './server';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where the application is served, and where the browser listens. */
    readonly bench: { readonly base: string; readonly browser: string };
  }
}

/** Serves the application and opens one browser for all files of browser tests. */
export default async function open({ provide }: TestProject): Promise<() => Promise<void>> {
  const { base, child } = await serve();
  const { browser, stop } = await launch();
  provide('bench', { base, browser: browser.wsEndpoint() });
  return async () => {
    await stop();
    child.kill();
  };
}
