import { definePreset } from '@primeuix/themes';
import base from '@primeuix/themes/aura/base';
import button from '@primeuix/themes/aura/button';
import dialog from '@primeuix/themes/aura/dialog';
import inputtext from '@primeuix/themes/aura/inputtext';
import select from '@primeuix/themes/aura/select';
import textarea from '@primeuix/themes/aura/textarea';

// The tokens live in app.css as custom properties that follow the light or dark scheme; the components read them.
const field = {
  background: 'var(--sheet)',
  borderColor: 'var(--edge)',
  hoverBorderColor: 'var(--ink-soft)',
  focusBorderColor: 'var(--dusk)',
  color: 'var(--ink)',
  placeholderColor: 'var(--ink-soft)',
  invalidBorderColor: 'var(--fail)',
  invalidPlaceholderColor: 'var(--ink-soft)',
  disabledBackground: 'var(--well)',
  disabledColor: 'var(--ink-soft)',
  filledBackground: 'var(--sheet)',
  shadow: 'none',
  paddingX: '0.75rem',
  paddingY: '0.5rem',
};
const scheme = {
  surface: { 0: 'var(--sheet)' },
  primary: {
    color: 'var(--dusk)',
    contrastColor: 'var(--on-dusk)',
    hoverColor: 'color-mix(in srgb, var(--dusk) 88%, var(--ink))',
    activeColor: 'color-mix(in srgb, var(--dusk) 78%, var(--ink))',
  },
  highlight: {
    background: 'var(--well)',
    focusBackground: 'var(--well)',
    color: 'var(--ink)',
    focusColor: 'var(--ink)',
  },
  formField: field,
  text: {
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
    mutedColor: 'var(--ink-soft)',
    hoverMutedColor: 'var(--ink)',
  },
  content: {
    background: 'var(--sheet)',
    hoverBackground: 'var(--well)',
    borderColor: 'var(--rule)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  overlay: {
    select: { background: 'var(--sheet)', borderColor: 'var(--edge)', color: 'var(--ink)' },
    modal: { background: 'var(--sheet)', borderColor: 'var(--rule)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--well)',
      selectedBackground: 'var(--well)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--ink)',
      selectedFocusBackground: 'var(--well)',
      selectedFocusColor: 'var(--ink)',
    },
  },
  mask: { background: 'rgb(20 27 38 / 45%)', color: 'var(--rule)' },
};

const well = { hoverBackground: 'var(--well)', activeBackground: 'var(--well)' };
const buttons = {
  outlined: {
    secondary: { borderColor: 'var(--edge)', color: 'var(--ink)', ...well },
    primary: { borderColor: 'var(--dusk)', color: 'var(--dusk)', ...well },
  },
  text: { secondary: { color: 'var(--ink-soft)', ...well } },
};

/** The one preset of every component, made from the tokens. */
export const theme = definePreset(
  { ...base, components: { button, dialog, inputtext, select, textarea } },
  {
    semantic: {
      focusRing: { width: '2px', style: 'solid', color: 'var(--dusk)', offset: '2px' },
      transitionDuration: '0.1s',
      formField: {
        borderRadius: '6px',
        focusRing: { width: '2px', style: 'solid', color: 'var(--dusk)', offset: '1px', shadow: 'none' },
      },
      content: { borderRadius: '6px' },
      colorScheme: { light: scheme, dark: scheme },
    },
    components: {
      button: {
        root: {
          borderRadius: '6px',
          paddingX: '0.95rem',
          paddingY: '0.5rem',
          gap: '0.5rem',
          label: { fontWeight: '600' },
          focusRing: { width: '2px', offset: '2px' },
        },
        colorScheme: { light: buttons, dark: buttons },
      },
      dialog: {
        root: { borderRadius: '8px', shadow: 'var(--float)' },
        title: { fontSize: '1.07rem', fontWeight: '700' },
      },
    },
  },
);
