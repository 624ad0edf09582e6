import { definePreset } from '@primeuix/themes';
import button from '@primeuix/themes/aura/button';
import dialog from '@primeuix/themes/aura/dialog';
import inputtext from '@primeuix/themes/aura/inputtext';
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
  iconColor: 'var(--ink-soft)',
  paddingX: '10px',
  paddingY: '6px',
};
const icon = { color: 'var(--ink-soft)', focusColor: 'var(--ink)', activeColor: 'var(--ink)' };
const surface = { background: 'var(--sheet)', borderColor: 'var(--edge)', color: 'var(--ink)' };
const option = {
  focusBackground: 'var(--well)',
  selectedBackground: 'var(--well)',
  selectedFocusBackground: 'var(--well)',
  color: 'var(--ink)',
  focusColor: 'var(--ink)',
  selectedColor: 'var(--ink)',
  selectedFocusColor: 'var(--ink)',
  icon,
};
const scheme = {
  surface: {
    0: 'var(--sheet)',
    50: 'var(--well)',
    100: 'var(--well)',
    200: 'var(--rule)',
    300: 'var(--edge)',
    400: 'var(--ink-soft)',
    500: 'var(--ink-soft)',
    600: 'var(--ink)',
    700: 'var(--ink)',
    800: 'var(--ink)',
    900: 'var(--ink)',
    950: 'var(--ink)',
  },
  primary: {
    50: 'var(--well)',
    100: 'var(--well)',
    200: 'var(--dusk)',
    700: 'var(--dusk)',
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
  overlay: { select: surface, popover: surface, modal: { ...surface, borderColor: 'var(--rule)' } },
  list: { option, optionGroup: { background: 'transparent', color: 'var(--ink-soft)' } },
  navigation: { item: { ...option, activeBackground: 'var(--well)', activeColor: 'var(--ink)' } },
  mask: { background: 'rgb(20 27 38 / 45%)', color: 'var(--rule)' },
};
const floating = { borderRadius: '6px', shadow: 'var(--float)' };
const row = { padding: '0.45rem 0.67rem', borderRadius: '4px' };
/** What every component builds on. */
const semantic = {
  transitionDuration: '0.1s',
  disabledOpacity: '0.6',
  iconSize: '1rem',
  anchorGutter: '2px',
  focusRing: { width: '2px', style: 'solid', color: 'var(--dusk)', offset: '2px', shadow: 'none' },
  formField: {
    paddingX: '10px',
    paddingY: '6px',
    sm: { fontSize: '0.87rem', paddingX: '9px', paddingY: '5px' },
    lg: { fontSize: '1.13rem', paddingX: '13px', paddingY: '9px' },
    borderRadius: '6px',
    focusRing: { width: '2px', style: 'solid', color: 'var(--dusk)', offset: '1px', shadow: 'none' },
    transitionDuration: '0.1s',
  },
  list: { padding: '4px', gap: '2px', header: { padding: '8px 10px 4px' }, option: row, optionGroup: row },
  content: { borderRadius: '6px' },
  mask: { transitionDuration: '0.2s' },
  navigation: { list: { padding: '4px', gap: '2px' }, item: { ...row, gap: '8px' } },
  overlay: {
    select: floating,
    popover: { ...floating, padding: '12px' },
    modal: { borderRadius: '8px', padding: '1.25rem', shadow: 'var(--float)' },
    navigation: { shadow: 'var(--float)' },
  },
  colorScheme: { light: scheme, dark: scheme },
};

const well = { hoverBackground: 'var(--well)', activeBackground: 'var(--well)' };
const graver = 'color-mix(in srgb, var(--fail) 82%, var(--ink))';
/** What cannot be undone: without these it would have no colour of its own, and nobody would see it. */
const danger = {
  background: 'var(--fail)',
  hoverBackground: graver,
  activeBackground: graver,
  borderColor: 'var(--fail)',
  hoverBorderColor: graver,
  activeBorderColor: graver,
  color: 'var(--on-dusk)',
  hoverColor: 'var(--on-dusk)',
  activeColor: 'var(--on-dusk)',
  focusRing: { color: 'var(--fail)', shadow: 'none' },
};
const buttons = {
  root: { danger },
  outlined: {
    secondary: { borderColor: 'var(--edge)', color: 'var(--ink)', ...well },
    primary: { borderColor: 'var(--dusk)', color: 'var(--dusk)', ...well },
    danger: { borderColor: 'var(--fail)', color: 'var(--fail)', ...well },
  },
  text: { secondary: { color: 'var(--ink-soft)', ...well } },
};

/** The one preset of every component, made from the tokens. */
export const theme = definePreset(
  {
    primitive: { borderRadius: { none: '0', xs: '2px', sm: '4px', md: '6px', lg: '8px', xl: '8px' } },
    semantic,
    components: { button, dialog, inputtext, textarea },
  },
  {
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
