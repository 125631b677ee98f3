import 'fake-indexeddb/auto';
import { StyleSheet } from '@emotion/sheet';
import { cleanup, configure } from '@testing-library/react';
import * as React from 'react';
import { afterEach, beforeAll, vi } from 'vitest';
import { pin, pointAt } from '../kit/follow';
import { db } from '../store/db';

// jsdom has no workers: what they answer is answered here.
vi.mock('../workers/stages', async () => (await import('./stages')).localStages);
vi.mock('chart.js', async () => (await import('./chart')).localChart);

// jsdom draws nothing: what styles would say is parsed, and gone through for every element that is looked for, in vain. Browser tests look at them.
StyleSheet.prototype.insert = () => {};

// React notes for each element where in the code it was made, in development; nobody reads that here.
const { __CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE: internals } = React as unknown as {
  __CLIENT_INTERNALS_DO_NOT_USE_OR_WARN_USERS_THEY_CANNOT_UPGRADE: object;
};
Object.defineProperty(internals, 'recentlyCreatedOwnerStacks', { get: () => Number.MAX_SAFE_INTEGER, set: () => {} });

// Screens are loaded when they are first shown, which takes its time on a busy machine.
configure({ asyncUtilTimeout: 10_000 });

// Files share their modules, and with them the database.
beforeAll(() => Promise.all([db.jobs.clear(), db.drawer.clear()]));

afterEach(() => {
  cleanup();
  pointAt(null);
  pin(null);
});

// What jsdom lacks and the screens ask for; sizes are those of a list in sight.
window.matchMedia ??= (query: string) =>
  ({ matches: false, media: query, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList;
const inSight = { inlineSize: 800, blockSize: 600 };
globalThis.ResizeObserver ??= class {
  constructor(private readonly tell: ResizeObserverCallback) {}
  observe(target: Element): void {
    const contentRect = new DOMRect(0, 0, inSight.inlineSize, inSight.blockSize);
    const [borderBoxSize, contentBoxSize, devicePixelContentBoxSize] = [[inSight], [inSight], [inSight]];
    this.tell([{ target, contentRect, borderBoxSize, contentBoxSize, devicePixelContentBoxSize }], this);
  }
  unobserve(): void {}
  disconnect(): void {}
};
globalThis.CSS ??= { escape: (name: string) => name.replace(/[^\w-]/g, '\\$&') } as typeof CSS;
Element.prototype.scrollIntoView ??= () => {};
Element.prototype.scrollTo ??= () => {};
Element.prototype.setPointerCapture ??= () => {};
(SVGElement.prototype as unknown as { getScreenCTM: () => null }).getScreenCTM ??= () => null;
Object.defineProperty(Element.prototype, 'clientHeight', { value: inSight.blockSize });
Object.defineProperty(Element.prototype, 'clientWidth', { value: inSight.inlineSize });
Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { value: inSight.blockSize });
Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { value: inSight.inlineSize });
