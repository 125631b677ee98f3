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
import { colours, fonts } from './colours';
import { BY_TOUCH, NARROW, TOUCHED } from './narrow';

/** The colours as the theme wants them: by day, and in the dim theme. */
const semanticColours = Object.fromEntries(
  Object.entries(colours).map(([name, [day, dim]]) => [name, { value: { base: day, _dark: dim } }]),
);

/** What holds where a person has the system choose all colours. */
const SYSTEM_COLOURS = '@media (forced-colors: active)';

const button = defineRecipe({
  base: {
    fontFamily: 'body',
    fontWeight: '400',
    borderRadius: '6px',
    cursor: 'pointer',
    flexShrink: 0,
    whiteSpace: 'nowrap',
    transitionDuration: '80ms',
    [BY_TOUCH]: { minH: TOUCHED, minW: TOUCHED },
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

/**
 * Chakra sets some thirty variables anew on every element. A board has ten thousand of them, and that doubles what a
 * change costs; set once on the page they come down to all, since nothing of ours sets one in between.
 */
const { '*': onEach, ...pageCss } = globalCss;

const config = defineConfig({
  preflight: true,
  cssVarsPrefix: 'sb',
  cssVarsRoot: ':where(html)',
  globalCss: {
    ...pageCss,
    html: { ...onEach, ...pageCss.html },
    'html, body, #root': { height: '100%' },
    body: {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '14px',
      lineHeight: '1.4',
      overflow: 'hidden',
      _print: { overflow: 'visible', bg: 'white', height: 'auto' },
      // Where letters are so large that little fits, the page is longer than the screen.
      [NARROW]: { overflow: 'auto' },
    },
    '#root': { [NARROW]: { minHeight: '560px' } },
    '.sb-tag': {
      display: 'inline-block',
      fontFamily: 'mono',
      fontWeight: '600',
      fontSize: '12px',
      lineHeight: '18px',
      height: '18px',
      paddingLeft: '10px',
      paddingRight: '6px',
      maxWidth: '120px',
      overflow: 'hidden',
      textOverflow: 'ellipsis',
      whiteSpace: 'nowrap',
      verticalAlign: 'middle',
      clipPath: 'polygon(0 50%, 7px 0, 100% 0, 100% 100%, 7px 100%)',
    },
    // Where the system has colours of its own, what is only told by colour keeps it, and what is current has an outline.
    'svg, .sb-tag, [role="img"], [role="switch"], [data-row] [title]': {
      [SYSTEM_COLOURS]: { forcedColorAdjust: 'none' },
    },
    '[aria-current], [aria-selected="true"], [aria-pressed="true"], [data-now]': {
      [SYSTEM_COLOURS]: { outline: '2px solid Highlight', outlineOffset: '-2px' },
    },
    '*:focus-visible': { outline: '2px solid {colors.focus}', outlineOffset: '1px' },
  },
  theme: {
    keyframes,
    tokens: {
      ...scales,
      colors: { transparent: black.transparent, black: black.black, white: black.white, blackAlpha: black.blackAlpha },
      fonts: {
        heading: { value: fonts.heading },
        body: { value: fonts.body },
        mono: { value: fonts.mono },
      },
    },
    semanticTokens: {
      radii: semanticTokens.radii,
      colors: semanticColours,
    },
    recipes: { button, input: inputRecipe },
    slotRecipes: { dialog: dialogSlotRecipe, nativeSelect: nativeSelectSlotRecipe, toast: toastSlotRecipe },
  },
});

/** The look of the application: tokens of docs and pictures, by day and dimmed. */
export const system = createSystem(defaultBaseConfig, config);
