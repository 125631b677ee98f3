/// <reference types="vite/client" />
import body from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff2?inline';
import mono from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff2?inline';
import monoBold from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-600-normal.woff2?inline';
import heading from '@fontsource/zilla-slab/files/zilla-slab-latin-600-normal.woff2?inline';

const faces = [
  ['IBM Plex Mono', 400, mono],
  ['IBM Plex Mono', 600, monoBold],
  ['Zilla Slab', 600, heading],
  ['Atkinson Hyperlegible', 400, body],
] as const;

/** The typefaces of a drawing as a style sheet with the fonts in it, so that it looks the same where they are not installed. */
export const typefaces = faces
  .map(
    ([family, weight, data]) =>
      `@font-face{font-family:'${family}';font-weight:${weight};src:url(${data}) format('woff2')}`,
  )
  .join('');
