/** MUI made ours: square, flat, set in the shipped type, coloured by the same values as look.css. */
import { createTheme, type Theme } from '@mui/material/styles';

export type Mode = 'light' | 'dark';
const PALETTE = {
  light: {
    paper: '#f4efe5',
    sheet: '#fbf8f1',
    ink: '#22262a',
    soft: '#5a5f63',
    rule: '#a79f8d',
    accent: '#2b5a8c',
    warn: '#9c3d1f',
  },
  dark: {
    paper: '#17191b',
    sheet: '#1f2224',
    ink: '#ece6d9',
    soft: '#a9a599',
    rule: '#6a675e',
    accent: '#7fb0e0',
    warn: '#e58c6b',
  },
} as const;

export function themeFor(mode: Mode): Theme {
  const c = PALETTE[mode];
  return createTheme({
    palette: {
      mode,
      primary: { main: c.ink, contrastText: c.sheet },
      secondary: { main: c.accent },
      error: { main: c.warn },
      background: { default: c.paper, paper: c.sheet },
      text: { primary: c.ink, secondary: c.soft },
      divider: c.rule,
    },
    shape: { borderRadius: 0 },
    typography: {
      fontFamily: "'Archivo Variable', sans-serif",
      fontSize: 13.5,
      button: { textTransform: 'none', fontWeight: 650 },
    },
    transitions: { create: () => 'none' },
    components: {
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiButton: {
        defaultProps: { disableElevation: true, size: 'small', variant: 'outlined' },
        styleOverrides: {
          root: {
            padding: '6px 12px',
            borderWidth: 1.5,
            minHeight: 34,
            lineHeight: 1.3,
            '&:focus-visible': { outline: `2px solid ${c.accent}`, outlineOffset: 2 },
          },
        },
      },
      MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
      MuiDialog: { styleOverrides: { paper: { border: `2px solid ${c.ink}` } } },
      MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
      MuiOutlinedInput: {
        styleOverrides: {
          root: { background: c.sheet, fontSize: 13.5 },
          notchedOutline: { borderColor: c.rule },
          input: { padding: '8px 10px' },
          multiline: { padding: 0 },
        },
      },
      MuiInputLabel: { styleOverrides: { root: { fontSize: 13.5 } } },
      MuiFormHelperText: { styleOverrides: { root: { marginLeft: 0, fontSize: 12 } } },
      MuiTooltip: { styleOverrides: { tooltip: { background: c.ink, color: c.sheet, fontSize: 12 } } },
      MuiMenu: { styleOverrides: { paper: { border: `1px solid ${c.ink}` } } },
    },
  });
}
