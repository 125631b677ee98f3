import 'fake-indexeddb/auto';
import { cleanup, configure } from '@testing-library/react';
import { afterEach } from 'vitest';
import { pin, pointAt } from '../kit/follow';

// Screens are loaded when they are first shown, which takes its time on a busy machine.
configure({ asyncUtilTimeout: 10_000 });

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
Element.prototype.setPointerCapture ??= () => {};
(SVGElement.prototype as unknown as { getScreenCTM: () => null }).getScreenCTM ??= () => null;
Object.defineProperty(Element.prototype, 'clientHeight', { value: 600 });
Object.defineProperty(Element.prototype, 'clientWidth', { value: 800 });
Object.defineProperty(HTMLElement.prototype, 'offsetHeight', { value: 600 });
Object.defineProperty(HTMLElement.prototype, 'offsetWidth', { value: 800 });
