import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import {
  animationStyles,
  breakpoints,
  comboboxSlotRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  datePickerSlotRecipe,
  dialogSlotRecipe,
  globalCss,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  numberInputSlotRecipe,
  popoverSlotRecipe,
  semanticTokens,
  textStyles,
  toastSlotRecipe,
  tokens,
  tooltipSlotRecipe,
} from '@chakra-ui/react/theme';

/* Tokens of the interface: flat, fine lines, radius 4; every colour in both themes, text AA on paper and raised. */

const both = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } });

/**
 * What of Chakra's own look our interface stands on. Its whole look is ten palettes and ninety parts, which every page would make
 * anew before it can be used; a part that is used for the first time gets its recipe here.
 */
const { black, blackAlpha, blue, current, gray, green, orange, red, transparent, white } = tokens.colors;
const { bg, border, fg } = semanticTokens.colors;
const base = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens: { ...tokens, colors: { black, blackAlpha, blue, current, gray, green, orange, red, transparent, white } },
    semanticTokens: { ...semanticTokens, colors: { bg, border, fg } },
    slotRecipes: {
      combobox: comboboxSlotRecipe,
      datePicker: datePickerSlotRecipe,
      dialog: dialogSlotRecipe,
      menu: menuSlotRecipe,
      numberInput: numberInputSlotRecipe,
      popover: popoverSlotRecipe,
      toast: toastSlotRecipe,
      tooltip: tooltipSlotRecipe,
    },
    textStyles,
    layerStyles,
    animationStyles,
  },
});

const config = defineConfig({
  globalCss: {
    'html, body': {
      bg: 'paper',
      color: 'ink',
      fontFamily: 'body',
      fontSize: '14px',
      lineHeight: '20px',
      fontVariantNumeric: 'tabular-nums',
      colorPalette: 'plum',
    },
    // What is printed is the page itself, whole.
    'header, nav, aside, footer, [data-testid=ribbon]': { _print: { display: 'none !important' } },
    'html, body, body *': { _print: { overflow: 'visible !important' } },
    'html, body, main, main *, body > *': { _print: { height: 'auto !important', maxHeight: 'none !important' } },
    '*::placeholder': { color: 'quiet', opacity: 1 },
    ':focus-visible': { outline: '2px solid', outlineColor: 'plum', outlineOffset: '1px' },
    '::selection': { bg: 'plumTint' },
    a: { color: 'plum' },
    '::file-selector-button': {
      bg: 'raised',
      color: 'ink',
      border: '1px solid',
      borderColor: 'line',
      rounded: '4px',
      h: '28px',
      px: '12px',
      mr: '10px',
      fontWeight: 500,
      cursor: 'pointer',
    },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif' },
        heading: { value: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif' },
        mono: { value: '"Atkinson Hyperlegible Mono Variable", ui-monospace, monospace' },
      },
    },
    semanticTokens: {
      colors: {
        paper: both('#F7F7FA', '#131219'),
        raised: both('#FFFFFF', '#1C1B24'),
        line: both('#DCDCE6', '#353340'),
        fieldLine: both('#85859A', '#77758A'),
        ink: both('#16151D', '#EDECF3'),
        quiet: both('#5B5A6A', '#ABA9BA'),
        plum: {
          DEFAULT: both('#6A2C70', '#D9A8DF'),
          solid: both('#6A2C70', '#8C4A93'),
          contrast: both('#FFFFFF', '#FFFFFF'),
          fg: both('#6A2C70', '#D9A8DF'),
          muted: both('#F2E6F3', '#3A2640'),
          subtle: both('#F2E6F3', '#3A2640'),
          emphasized: both('#E2C9E4', '#553A5C'),
          focusRing: both('#6A2C70', '#D9A8DF'),
        },
        plumTint: both('#F2E6F3', '#38253D'),
        saffron: both('#F5B82E', '#F5B82E'),
        saffronInk: both('#4A3500', '#4A3500'),
        saffronTint: both('#FEF6E0', '#322709'),
        saffronText: both('#6B4E00', '#F5CB6B'),
        onSaffronBrick: both('#7A1010', '#7A1010'),
        pine: both('#0F766E', '#55C7BA'),
        lake: both('#1D5FA8', '#7DB1EA'),
        ochre: both('#8A5A00', '#DCAA4B'),
        iris: both('#4B3FBF', '#ABA1F7'),
        slate: both('#4B5563', '#AAB2BF'),
        grey: both('#656573', '#A09FAE'),
        brick: both('#A61B1B', '#FF9189'),
        brickTint: both('#FDF1F1', '#3A1A1A'),
      },
      radii: { l1: { value: '3px' }, l2: { value: '4px' }, l3: { value: '4px' } },
    },
  },
});

export const system = createSystem(defaultBaseConfig, base, config);
