import { createSystem, defaultBaseConfig, defineConfig, defineRecipe } from '@chakra-ui/react';
import {
  dialogSlotRecipe,
  globalCss,
  inputRecipe,
  keyframes,
  nativeSelectSlotRecipe,
  semanticTokens,
  toastSlotRecipe,
  tokens,
} from '@chakra-ui/react/theme';

/** A colour by day and in the dim theme for dark labs. */
const pair = (day: string, dim: string) => ({ value: { base: day, _dark: dim } });

const button = defineRecipe({
  base: {
    fontFamily: 'body',
    fontWeight: '400',
    borderRadius: '6px',
    cursor: 'pointer',
    transitionDuration: '80ms',
    _disabled: { opacity: 0.45, cursor: 'default' },
  },
  variants: {
    variant: {
      outline: {
        bg: 'card',
        color: 'ink',
        borderWidth: '1px',
        borderColor: 'line',
        _hover: { bg: 'wash' },
        _pressed: { bg: 'moss', color: 'onMoss', borderColor: 'moss' },
      },
      solid: { bg: 'moss', color: 'onMoss', borderWidth: '1px', borderColor: 'moss', _hover: { bg: 'mossDeep' } },
      ghost: { bg: 'transparent', color: 'ink', _hover: { bg: 'wash' } },
    },
    size: {
      sm: { h: '26px', minW: '26px', px: '10px', textStyle: 'none', fontSize: '13px' },
      md: { h: '32px', minW: '32px', px: '14px', textStyle: 'none', fontSize: '14px' },
    },
  },
  defaultVariants: { variant: 'outline', size: 'sm' },
});

/** Chakra's scales without its colours: our own stand below, and building the rest takes half a second at every start. */
const { colors: black, fonts: _fonts, ...scales } = tokens;

const config = defineConfig({
  preflight: true,
  cssVarsPrefix: 'sb',
  cssVarsRoot: ':where(html)',
  globalCss: {
    ...globalCss,
    'html, body, #root': { height: '100%' },
    body: {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '14px',
      lineHeight: '1.4',
      overflow: 'hidden',
      _print: { overflow: 'visible', bg: 'white', height: 'auto' },
    },
    '*:focus-visible': { outline: '2px solid {colors.focus}', outlineOffset: '1px' },
  },
  theme: {
    keyframes,
    tokens: {
      ...scales,
      colors: { transparent: black.transparent, black: black.black, white: black.white, blackAlpha: black.blackAlpha },
      fonts: {
        heading: { value: "'Zilla Slab', Georgia, serif" },
        body: { value: "'Atkinson Hyperlegible', system-ui, sans-serif" },
        mono: { value: "'IBM Plex Mono', ui-monospace, monospace" },
      },
    },
    semanticTokens: {
      radii: semanticTokens.radii,
      colors: {
        paper: pair('#F4EFE4', '#171C1A'),
        card: pair('#FBF8F1', '#212826'),
        wash: pair('#EFE3C9', '#323B36'),
        ink: pair('#20302B', '#E9E1CD'),
        soft: pair('#5D6B62', '#A5B0A6'),
        line: pair('#D9CFBA', '#3B4641'),
        canvas: pair('#DFD6C1', '#121715'),
        leather: pair('#7A4A2B', '#4A2D1B'),
        leatherLight: pair('#935C38', '#5E3A23'),
        onLeather: pair('#FBF1DF', '#F2E4CB'),
        thread: pair('#F0D9A8', '#B99C66'),
        moss: pair('#3F5C4A', '#6F9A80'),
        mossDeep: pair('#334B3C', '#7FAA90'),
        onMoss: pair('#FFFFFF', '#0E1512'),
        bad: pair('#B4372A', '#F4988A'),
        onBad: pair('#FFFFFF', '#1B0C09'),
        ok: pair('#2A7246', '#6FC08C'),
        brass: pair('#C99A2E', '#D9AE4A'),
        warn: pair('#8A5D00', '#E0B24E'),
        focus: pair('#1F6F8B', '#7CC6E0'),
        mat: pair('#24352F', '#1A2723'),
        matDeep: pair('#1C2A25', '#121C19'),
        strip: pair('#3B4C45', '#2E3D37'),
        hole: pair('#131C19', '#0C1210'),
        matText: pair('#B9C7BD', '#A9B8AE'),
        bone: pair('#F0E7CF', '#DDD2B6'),
        boneLine: pair('#20302B', '#0E1512'),
        railPlus: pair('#6B4540', '#5A3833'),
        railMinus: pair('#4A5B63', '#3C4C54'),
        supplyWire: pair('#D8203A', '#D8203A'),
        groundWire: pair('#0B0F0D', '#000000'),
        lit: pair('#F7C64A', '#F7C64A'),
        flag: pair('#FF7A66', '#FF7A66'),
      },
    },
    recipes: { button, input: inputRecipe },
    slotRecipes: { dialog: dialogSlotRecipe, nativeSelect: nativeSelectSlotRecipe, toast: toastSlotRecipe },
  },
});

/** The look of the application: tokens of docs and pictures, by day and dimmed. */
export const system = createSystem(defaultBaseConfig, config);

/** A theme colour for SVG attributes and inline styles. */
export const colour = (token: string): string =>
  `var(--sb-colors-${token.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)})`;
