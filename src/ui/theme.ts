import { createTheme, type ThemeOptions } from '@mui/material/styles';
import { dark, fonts, light, type Tokens } from './tokens';

declare module '@mui/material/styles' {
  interface Palette {
    zf: Tokens;
  }
  interface PaletteOptions {
    zf?: Tokens;
  }
}

const palette = (t: Tokens) => ({
  primary: { main: t.zircon, contrastText: t.onZircon },
  warning: { main: t.amber },
  error: { main: t.clay },
  text: { primary: t.ink, secondary: t.ink2 },
  background: { default: t.paper, paper: t.panel },
  divider: t.line,
  zf: t,
});

const options: ThemeOptions = {
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes: { light: { palette: palette(light) }, dark: { palette: palette(dark) } },
  shape: { borderRadius: 5 },
  typography: {
    fontFamily: fonts.text,
    fontSize: 13,
    button: { textTransform: 'none', fontWeight: 600 },
    h1: { fontSize: 19, fontWeight: 700, lineHeight: 1.3 },
    h2: { fontSize: 13, fontWeight: 700, lineHeight: 1.5 },
    body1: { fontSize: 13 },
    body2: { fontSize: 13 },
    caption: { fontSize: 11.5 },
  },
  components: {
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: {
          fontFamily: 'inherit',
          '&.Mui-focusVisible': { outline: '2px solid var(--mui-palette-primary-main)', outlineOffset: 2 },
        },
      },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, size: 'small' },
      styleOverrides: {
        root: { minHeight: 30, paddingInline: 12, lineHeight: 1.3 },
        outlined: { borderColor: 'var(--mui-palette-divider)', color: 'var(--mui-palette-text-primary)' },
        text: { color: 'var(--mui-palette-text-secondary)' },
      },
    },
    MuiIconButton: {
      styleOverrides: { root: { borderRadius: 5, color: 'var(--mui-palette-text-primary)', width: 32, height: 32 } },
    },
    MuiTooltip: {
      defaultProps: { enterDelay: 500 },
      styleOverrides: {
        tooltip: { fontSize: 12, background: 'var(--mui-palette-zf-ink)', color: 'var(--mui-palette-zf-board)' },
      },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { fontSize: 13 },
        input: { paddingBlock: 6 },
        notchedOutline: { borderColor: 'var(--mui-palette-divider)' },
      },
    },
    // A switch is a rail with a small cut stone on it.
    MuiSwitch: {
      styleOverrides: {
        root: {
          width: 34,
          height: 20,
          padding: '7px 6px',
          '& .MuiSwitch-switchBase': {
            padding: 5,
            color: 'var(--mui-palette-zf-panel)',
            '&.Mui-checked': { transform: 'translateX(14px)', color: 'var(--mui-palette-primary-main)' },
            '&.Mui-checked + .MuiSwitch-track': { opacity: 1, backgroundColor: 'var(--mui-palette-zf-zirconSoft)' },
          },
          '& .MuiSwitch-thumb': {
            width: 9,
            height: 9,
            borderRadius: 1,
            transform: 'rotate(45deg)',
            boxShadow: 'none',
            backgroundColor: 'currentColor',
            border: '1px solid var(--mui-palette-zf-ink2)',
            boxSizing: 'border-box',
          },
          '& .MuiSwitch-track': { opacity: 1, borderRadius: 3, backgroundColor: 'var(--mui-palette-divider)' },
        },
      },
    },
    MuiSlider: {
      styleOverrides: {
        thumb: { width: 11, height: 11, borderRadius: 1, '&::before': { boxShadow: 'none' } },
        rail: { opacity: 1, backgroundColor: 'var(--mui-palette-divider)' },
        track: { border: 0 },
      },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDialog: { styleOverrides: { paper: { border: '1px solid var(--mui-palette-divider)' } } },
    MuiMenuItem: { styleOverrides: { root: { fontSize: 13, minHeight: 30 } } },
    MuiLinearProgress: {
      styleOverrides: { root: { height: 6, borderRadius: 3, background: 'var(--mui-palette-divider)' } },
    },
  },
};

export const theme = createTheme(options);
