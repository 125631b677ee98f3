import 'fake-indexeddb/auto';
import { cleanup } from '@testing-library/react';
import { afterEach } from 'vitest';
import { pin, pointAt } from '../kit/follow';

afterEach(() => {
  cleanup();
  pointAt(null);
  pin(null);
});

// What jsdom lacks and the screens ask for; sizes are those of a list in sight.
window.matchMedia ??= (query: string) =>
  ({ matches: false, media: query, addEventListener() {}, removeEventListener() {} }) as unknown as MediaQueryList;
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
Element.prototype.scrollIntoView ??= () => {};
Element.prototype.scrollTo ??= () => {};
Object.defineProperty(Element.prototype, 'clientHeight', { value: 600 });
Object.defineProperty(Element.prototype, 'clientWidth', { value: 800 });
