/** The colours of the application: by day, and in the dim theme for dark labs. */
export const colours = {
  paper: ['#F4EFE4', '#171C1A'],
  card: ['#FBF8F1', '#212826'],
  wash: ['#EFE3C9', '#323B36'],
  ink: ['#20302B', '#E9E1CD'],
  soft: ['#5D6B62', '#A5B0A6'],
  line: ['#D9CFBA', '#3B4641'],
  canvas: ['#DFD6C1', '#121715'],
  leather: ['#7A4A2B', '#4A2D1B'],
  leatherLight: ['#935C38', '#5E3A23'],
  onLeather: ['#FBF1DF', '#F2E4CB'],
  thread: ['#F0D9A8', '#B99C66'],
  moss: ['#3F5C4A', '#6F9A80'],
  mossDeep: ['#334B3C', '#7FAA90'],
  onMoss: ['#FFFFFF', '#0E1512'],
  bad: ['#B4372A', '#F4988A'],
  onBad: ['#FFFFFF', '#1B0C09'],
  ok: ['#2A7246', '#6FC08C'],
  brass: ['#C99A2E', '#D9AE4A'],
  warn: ['#8A5D00', '#E0B24E'],
  focus: ['#1F6F8B', '#7CC6E0'],
  mat: ['#24352F', '#1A2723'],
  matDeep: ['#1C2A25', '#121C19'],
  strip: ['#566A61', '#51645B'],
  hole: ['#0A100E', '#060A08'],
  matText: ['#B9C7BD', '#A9B8AE'],
  bone: ['#F0E7CF', '#DDD2B6'],
  boneLine: ['#20302B', '#0E1512'],
  railPlus: ['#8A5B54', '#88584F'],
  railMinus: ['#566D78', '#4F6570'],
  supplyWire: ['#EB2846', '#EB2846'],
  groundWire: ['#0B0F0D', '#000000'],
  /** What lies around wires, so that each keeps 3:1 against all that it lies on: around dark ones the light one. */
  wireEdge: ['#0A100E', '#060A08'],
  wireEdgeLight: ['#C9D6CE', '#C9D6CE'],
  lit: ['#F7C64A', '#F7C64A'],
  flag: ['#FF7A66', '#FF7A66'],
} as const satisfies Record<string, readonly [day: string, dim: string]>;

/** The typefaces, self-hosted, each with what stands in for it. */
export const fonts = {
  heading: "'Zilla Slab', Georgia, serif",
  body: "'Atkinson Hyperlegible', system-ui, sans-serif",
  mono: "'IBM Plex Mono', ui-monospace, monospace",
} as const;

/** A colour of the theme by its name; each has a value for day and one for dim light. */
export type ColourName = keyof typeof colours;

const dashed = (name: string): string => name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/** A theme colour for SVG attributes and inline styles. */
export const colour = (name: ColourName): string => `var(--sb-colors-${dashed(name)})`;

/** A typeface of the theme for inline styles. */
export const font = (name: keyof typeof fonts): string => `var(--sb-fonts-${name})`;

const valuesOf = (theme: 'day' | 'dim'): ReadonlyMap<string, string> =>
  new Map([
    ...Object.entries(colours).map(
      ([name, [day, dim]]) => [`colors-${dashed(name)}`, theme === 'day' ? day : dim] as const,
    ),
    ...Object.entries(fonts).map(([name, value]) => [`fonts-${name}`, value] as const),
  ]);

/** Markup with the theme's colours and typefaces written out, so that it stands without the page's style sheet. */
export function writtenOut(markup: string, theme: 'day' | 'dim'): string {
  const values = valuesOf(theme);
  return markup.replace(/var\(--sb-([\w-]+)\)/g, (_, name: string) => values.get(name) ?? 'currentColor');
}
