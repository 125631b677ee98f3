import { describe, expect, it } from 'vitest';
import { contrast } from '../testing/contrast';
import { type ColourName, colour, colours, font, writtenOut } from './colours';
import { system } from './theme';

/** The hexadecimal value of a colour token, by day or dim. */
function hex(token: string, theme: 'base' | '_dark'): string {
  const { value, extensions } = system.tokens.getByName(`colors.${token}`) ?? expect.fail(token);
  const conditions = extensions.conditions as Record<string, string> | undefined;
  return (theme === '_dark' ? conditions?._dark : (conditions?.base ?? value)) ?? String(value);
}

const pairs: readonly (readonly [text: string, ground: string])[] = [
  ['ink', 'paper'],
  ['ink', 'card'],
  ['ink', 'wash'],
  ['soft', 'paper'],
  ['soft', 'card'],
  ['onLeather', 'leather'],
  ['onLeather', 'leatherLight'],
  ['onMoss', 'moss'],
  ['onBad', 'bad'],
  ['bad', 'card'],
  ['bad', 'wash'],
  ['ok', 'card'],
  ['warn', 'card'],
  ['matText', 'mat'],
];

describe.each(['base', '_dark'] as const)('the theme, %s', (theme) => {
  it.each(pairs)('%s can be read on %s: 4.5:1', (text, ground) => {
    expect(contrast(hex(text, theme), hex(ground, theme))).toBeGreaterThanOrEqual(4.5);
  });
});

describe('colours for drawings', () => {
  it('name the variables that the theme makes', () => {
    expect(colour('boneLine')).toBe('var(--sb-colors-bone-line)');
    expect(JSON.stringify(system.getTokenCss())).toContain('--sb-colors-bone-line');
  });

  it('are written out by day or dim, typefaces too, and nothing is left to a style sheet', () => {
    for (const [name, [day, dim]] of Object.entries(colours)) {
      expect(writtenOut(colour(name as ColourName), 'day')).toBe(day);
      expect(writtenOut(colour(name as ColourName), 'dim')).toBe(dim);
    }
    const markup = writtenOut(`<text fill="${colour('boneLine')}" style="font-family:${font('mono')}">W</text>`, 'day');
    expect(markup).toBe(`<text fill="#20302B" style="font-family:'IBM Plex Mono', ui-monospace, monospace">W</text>`);
    expect(writtenOut('var(--sb-colors-nothing)', 'day')).toBe('currentColor');
  });
});
