/** MUI made ours: square, flat, set in the shipped type, coloured by the palette that everything is drawn in. */
import { OVER_PICTURE, PAINTS, PALETTES } from '@jutbank/core/drawing';
import { createTheme, type Theme } from '@mui/material/styles';
import { createElement } from 'react';
import { Box, Downward } from './glyphs.tsx';

export type Mode = keyof typeof PALETTES;

/** The same colours as variables of the style sheets: `--ink`, `--on-held`. */
export function variablesOf(mode: Mode): Record<string, string> {
  const tones = { ...PALETTES[mode], ...prefixed('over', OVER_PICTURE), ...prefixed('paint', PAINTS[mode]) };
  return Object.fromEntries(
    Object.entries(tones).map(([tone, colour]) => [
      `--${tone.replaceAll(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`,
      colour,
    ]),
  );
}
const prefixed = (prefix: string, tones: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(tones).map(([tone, colour]) => [`${prefix}-${tone}`, colour]));

export function themeFor(mode: Mode): Theme {
  const c = PALETTES[mode];
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
          // an act beside others that need no frame: small, in the ink of its surroundings
          text: {
            padding: '4px 6px',
            minWidth: 0,
            minHeight: 26,
            color: 'inherit',
            fontSize: 'inherit',
            fontWeight: 500,
          },
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
      // the label stands above in our own frame (parts/fields): no notch is cut into the hairline
      MuiOutlinedInput: {
        defaultProps: { size: 'small', notched: false },
        styleOverrides: {
          root: {
            background: c.sheet,
            fontSize: 13.5,
            '& .MuiOutlinedInput-notchedOutline': { borderColor: c.rule, borderBottomColor: c.ink, inset: 0 },
            '& .MuiOutlinedInput-notchedOutline legend': { display: 'none' },
            '&:hover .MuiOutlinedInput-notchedOutline': { borderColor: c.ink },
            '&.Mui-focused .MuiOutlinedInput-notchedOutline': { borderColor: c.accent, borderWidth: 2 },
            '&.Mui-error .MuiOutlinedInput-notchedOutline': { borderColor: c.warn },
            '&.Mui-disabled .MuiOutlinedInput-notchedOutline': { borderColor: c.hair },
          },
          input: { padding: '6px 9px', height: 'auto', lineHeight: 1.45 },
          multiline: { padding: 0 },
        },
      },
      MuiInputBase: {
        styleOverrides: {
          root: {
            '&.cell': { fontSize: 'inherit', borderBottom: `1px solid ${c.rule}`, background: 'transparent' },
            '&.cell.Mui-focused': { borderBottomColor: c.accent, boxShadow: `0 1px 0 ${c.accent}` },
            '&.cell.Mui-error': { borderBottomColor: c.warn, color: c.warn },
            '&.cell.Mui-disabled, &.cell.MuiInputBase-readOnly': { borderBottomColor: 'transparent' },
            '&.cell .MuiOutlinedInput-notchedOutline': { display: 'none' },
            '&.cell .MuiInputBase-input': { padding: '2px 3px', height: 'auto' },
            '&.cell .MuiInputBase-input.num': { textAlign: 'right' },
          },
        },
      },
      MuiInputAdornment: { styleOverrides: { root: { '& p, &': { fontSize: 12.5, color: c.soft } } } },
      MuiSelect: {
        defaultProps: { IconComponent: Downward, MenuProps: { transitionDuration: 0 } },
        styleOverrides: {
          icon: { color: c.soft, right: 8, width: 9, top: 'calc(50% - 3px)' },
          select: { minHeight: 0 },
        },
      },
      MuiMenuItem: {
        styleOverrides: {
          root: {
            fontSize: 13.5,
            minHeight: 30,
            padding: '4px 12px',
            whiteSpace: 'normal',
            '&.Mui-selected, &.Mui-selected:hover': {
              background: 'none',
              boxShadow: `inset 3px 0 ${c.ink}`,
              fontWeight: 650,
            },
            '&:hover, &.Mui-focusVisible, &.Mui-selected.Mui-focusVisible': { background: c.plate },
          },
        },
      },
      MuiCheckbox: {
        defaultProps: { icon: createElement(Box), checkedIcon: createElement(Box, { ticked: true }) },
        styleOverrides: {
          root: {
            padding: 5,
            color: c.ink,
            '&.Mui-focusVisible': { outline: `2px solid ${c.accent}`, outlineOffset: -2 },
            '&.Mui-disabled': { opacity: 0.5 },
          },
        },
      },
      MuiFormControlLabel: {
        styleOverrides: {
          root: { marginLeft: -5, marginRight: 0, alignItems: 'flex-start' },
          label: { fontSize: 13.5, paddingTop: 3 },
        },
      },
      MuiAutocomplete: {
        defaultProps: { popupIcon: createElement(Downward), clearIcon: '×' },
        styleOverrides: {
          inputRoot: { padding: '2px 6px' },
          popupIndicator: { minWidth: 24, minHeight: 24 },
          tag: { height: 24, borderRadius: 0, background: c.plate, fontSize: 12.5, margin: 2 },
          paper: { border: `1px solid ${c.ink}` },
          option: { fontSize: 13.5 },
        },
      },
      MuiTabs: {
        styleOverrides: {
          root: { minHeight: 0, borderBottom: `1px solid ${c.rule}` },
          indicator: { backgroundColor: c.ink, height: 3, transition: 'none' },
        },
      },
      MuiTab: {
        styleOverrides: {
          root: {
            minHeight: 34,
            minWidth: 0,
            padding: '5px 12px',
            fontWeight: 500,
            fontSize: 13.5,
            textTransform: 'none',
            '&.Mui-selected': { color: c.ink, fontWeight: 650 },
            '&.Mui-focusVisible': { outline: `2px solid ${c.accent}`, outlineOffset: -2 },
          },
        },
      },
      MuiTooltip: { styleOverrides: { tooltip: { background: c.ink, color: c.sheet, fontSize: 12 } } },
      MuiMenu: { styleOverrides: { paper: { border: `1px solid ${c.ink}` } } },
    },
  });
}
