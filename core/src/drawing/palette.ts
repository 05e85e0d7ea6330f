/**
 * The colours of everything that is drawn: screens, charts, drawings and paper take them from here and nowhere else.
 * The tempers are the colours steel takes on when it is heated, in their order; they never stand without a word.
 */
const LIGHT = {
  paper: '#f4efe5',
  sheet: '#fbf8f1',
  plate: '#e6e0d3',
  ink: '#22262a',
  soft: '#5a5f63',
  rule: '#a79f8d',
  hair: '#d8d0c0',
  accent: '#2b5a8c',
  warn: '#9c3d1f',
  straw: '#8a600a',
  bronze: '#8f5224',
  purple: '#6d3f73',
  blue: '#2b5a8c',
  greyblue: '#55656e',
  /** what is in hand, and what is written on it */
  held: '#22262a',
  onHeld: '#fbf8f1',
} as const;
export type Tone = keyof typeof LIGHT;
export type Palette = Readonly<Record<Tone, string>>;

export const PALETTES: Readonly<Record<'light' | 'dark', Palette>> = {
  light: LIGHT,
  dark: {
    paper: '#17191b',
    sheet: '#1f2224',
    plate: '#2c3033',
    ink: '#ece6d9',
    soft: '#a9a599',
    rule: '#6a675e',
    hair: '#363a3d',
    accent: '#7fb0e0',
    warn: '#e58c6b',
    straw: '#d9a94a',
    bronze: '#cf8e5a',
    purple: '#c59acb',
    blue: '#7fb0e0',
    greyblue: '#9fb0ba',
    held: '#ece6d9',
    onHeld: '#17191b',
  },
};

/** Of marks laid over a photograph, which is neither light nor dark. */
export const OVER_PICTURE = { measure: '#1f5fbf', finding: '#a3321f', line: '#22262a' } as const;
