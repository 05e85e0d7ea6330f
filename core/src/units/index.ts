/**
 * Lengths and masses as people type them: fractions of an inch, decimals, millimetres, ounces, grams.
 * 1 in = 25.4 mm and 1 oz = 28.349523125 g exactly (International yard and pound, 1959).
 */
import { fail, succeed, type Result } from '../result/index.ts';

export const MM_PER_INCH = 25.4;
export const GRAMS_PER_OUNCE = 28.349523125;
const OUNCES_PER_POUND = 16;

export type Dimension = 'length' | 'mass' | 'angle';
export type UnitSystem = 'metric' | 'imperial';

export interface Quantity {
  readonly dimension: Dimension;
  /** millimetres, grams or degrees */
  readonly value: number;
  /** the smallest step the text could express, in the same unit; a fraction's is one over its denominator */
  readonly resolution: number;
  /** as it was typed */
  readonly text: string;
}

export interface UnitProblem {
  readonly kind: 'not-a-measure';
  readonly text: string;
  readonly message: string;
}

const VULGAR: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅕': '1/5',
  '⅖': '2/5',
  '⅗': '3/5',
  '⅘': '4/5',
  '⅙': '1/6',
  '⅚': '5/6',
};

interface Unit {
  readonly dimension: Dimension;
  readonly factor: number;
}
const UNITS: Record<string, Unit> = {
  mm: { dimension: 'length', factor: 1 },
  cm: { dimension: 'length', factor: 10 },
  in: { dimension: 'length', factor: MM_PER_INCH },
  inch: { dimension: 'length', factor: MM_PER_INCH },
  inches: { dimension: 'length', factor: MM_PER_INCH },
  '"': { dimension: 'length', factor: MM_PER_INCH },
  '″': { dimension: 'length', factor: MM_PER_INCH },
  '”': { dimension: 'length', factor: MM_PER_INCH },
  g: { dimension: 'mass', factor: 1 },
  kg: { dimension: 'mass', factor: 1000 },
  oz: { dimension: 'mass', factor: GRAMS_PER_OUNCE },
  lb: { dimension: 'mass', factor: GRAMS_PER_OUNCE * OUNCES_PER_POUND },
  lbs: { dimension: 'mass', factor: GRAMS_PER_OUNCE * OUNCES_PER_POUND },
  '°': { dimension: 'angle', factor: 1 },
  deg: { dimension: 'angle', factor: 1 },
};

interface Amount {
  readonly value: number;
  readonly resolution: number;
  readonly isFraction: boolean;
}

function parseAmount(text: string): Amount | undefined {
  const fraction = /^(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (fraction) {
    const denominator = Number(fraction[3]);
    if (denominator === 0) return undefined;
    return {
      value: Number(fraction[1] ?? 0) + Number(fraction[2]) / denominator,
      resolution: 1 / denominator,
      isFraction: true,
    };
  }
  const decimal = /^(\d+)(?:[.,](\d+))?$/.exec(text) ?? /^()[.,](\d+)$/.exec(text);
  if (!decimal) return undefined;
  const digits = decimal[2] ?? '';
  return {
    value: Number(`${decimal[1] || '0'}.${digits || '0'}`),
    resolution: 10 ** -digits.length,
    isFraction: false,
  };
}

/** What a field knows of what is measured in it. */
export interface MeasureHabits {
  /** below this a whole number without a unit is asked about: 3 of a blade’s length is inches or a slip */
  readonly bareFrom?: number;
}
/** A size as it is kept: to a ten-thousandth of its unit, so that 4 1/8 in is 104.775 mm. */
export const roundSize = (value: number): number => Number(value.toFixed(4));

/** Nothing that has a length of its own is shorter than this, in mm: a bare 3 is inches, or a slip. */
const SHORTEST_BARE = 15;
/** @param label what the field is called */
export const habitsOf = (label: string): MeasureHabits =>
  /length/i.test(label) ? { bareFrom: SHORTEST_BARE } : {};

/** How far words before a measure move it and widen it, in steps of what it was read to. */
const WORDS: readonly (readonly [pattern: RegExp, moved: number, widened: number])[] = [
  [/^(?:just|a (?:little|bit|hair)|slightly|barely) (?:under|below|less than|short of|shy of)\s+/, -0.25, 1],
  [/^(?:just|a (?:little|bit|hair)|slightly) (?:over|above|more than)\s+/, 0.25, 1],
  [/^(?:about|around|circa|ca\.?|c\.|approx\.?|roughly)\s*/, 0, 2],
];
const RANGE = /^(?:between\s+|from\s+)?(.+?)\s*(?:\band\b|\bto\b|–|—|\s-\s)\s*(.+)$/;

/**
 * Reads a measure: `4 3/16`, `10,6 cm`, `1 lb 2 oz`, `between 3 1/4 and 3 1/2`, `just under 6 oz`. Without a unit a
 * fraction means inches, anything else the dimension's metric unit.
 * @throws never; what cannot be read comes back as a `not-a-measure` problem
 */
export function parseQuantity(
  text: string,
  dimension: Dimension,
  habits: MeasureHabits = {},
): Result<Quantity, UnitProblem> {
  const typed = text.trim();
  const plain = typed.toLowerCase();
  const qualified = WORDS.find(([pattern]) => pattern.test(plain));
  if (qualified) {
    const [pattern, moved, widened] = qualified;
    const bare = plain.replace(pattern, '');
    // one word before a measure, not a heap of them
    if (WORDS.some(([other]) => other.test(bare))) return oneQuantity(typed, dimension, habits);
    const read = oneQuantity(bare, dimension, habits);
    return read.ok
      ? succeed({
          ...read.value,
          value: read.value.value + moved * read.value.resolution,
          resolution: read.value.resolution * widened,
          text: typed,
        })
      : read;
  }
  const range = RANGE.exec(plain);
  if (!range?.[1] || !range[2]) return oneQuantity(typed, dimension, habits);
  const to = oneQuantity(range[2], dimension, habits);
  // the unit of the end is the unit of both: “3 1/4 to 3 1/2 in”, “100 to 105 mm”
  const unit = /[a-z"″”°]+\.?\s*$/.exec(range[2])?.[0] ?? '';
  const bare = /[a-z"″”°]\s*$/.test(range[1]);
  const from = oneQuantity(bare ? range[1] : range[1] + unit, dimension, habits);
  if (!from.ok) return from;
  if (!to.ok) return to;
  if (to.value.value <= from.value.value)
    return fail({ kind: 'not-a-measure', text, message: `“${typed}” ends before it begins.` });
  return succeed({
    dimension,
    value: (from.value.value + to.value.value) / 2,
    resolution: Math.max(to.value.value - from.value.value, from.value.resolution),
    text: typed,
  });
}

function oneQuantity(
  text: string,
  dimension: Dimension,
  { bareFrom }: MeasureHabits,
): Result<Quantity, UnitProblem> {
  const wrong = (message: string) => fail<UnitProblem>({ kind: 'not-a-measure', text, message });
  let rest = text.trim().toLowerCase();
  for (const [sign, plain] of Object.entries(VULGAR)) rest = rest.replaceAll(sign, ` ${plain}`);
  rest = rest.replace(/(\d)\s+(\d+\/)/g, '$1 $2').trim();
  const parts = [
    ...rest.matchAll(/([\d.,/\s-]*\d)\s*(mm|cm|inches|inch|in|kg|g|oz|lbs|lb|deg|°|"|″|”)?\.?\s*/gy),
  ];
  const consumed = parts.reduce((n, part) => n + part[0].length, 0);
  if (parts.length === 0 || consumed !== rest.length)
    return wrong(
      dimension === 'mass'
        ? `“${text}” is not a weight. Try 62, 62 g, 6.2 oz, 1 lb 2 oz.`
        : dimension === 'length'
          ? `“${text}” is not a length. Try 106, 10.6 cm, 4 3/16, 4.19 in.`
          : `“${text}” is not an angle. Try 22 or 22.5°.`,
    );
  let value = 0;
  let resolution = Infinity;
  for (const [, number = '', unitName] of parts) {
    const amount = parseAmount(number.trim());
    if (!amount) return wrong(`“${number.trim()}” is not a number or a fraction.`);
    if (unitName === undefined && !amount.isFraction && bareFrom !== undefined && amount.value < bareFrom)
      return wrong(`“${text}”: inches or millimetres? Write ${number.trim()} in or ${number.trim()} mm.`);
    const assumed =
      dimension === 'mass' ? 'g' : dimension === 'angle' ? 'deg' : amount.isFraction ? 'in' : 'mm';
    const unit = UNITS[unitName ?? assumed];
    if (!unit || unit.dimension !== dimension)
      return wrong(`“${unitName ?? ''}” is not a unit of ${dimension === 'mass' ? 'weight' : dimension}.`);
    value += amount.value * unit.factor;
    resolution = amount.resolution * unit.factor;
  }
  return succeed({ dimension, value, resolution, text: text.trim() });
}

const decimalsFor = (resolution: number): number =>
  Math.max(0, Math.min(2, Math.ceil(-Math.log10(resolution) - 1e-9)));

/** Inches as a mixed fraction of at most 1/32, never finer than the resolution allows. */
function inchFraction(mm: number, resolution: number): string {
  const inches = mm / MM_PER_INCH;
  const finest = Math.max(resolution / MM_PER_INCH, 1 / 32);
  const denominator = [32, 16, 8, 4, 2, 1].find((d) => 1 / d >= finest - 1e-9) ?? 1;
  const whole = Math.floor(inches);
  let numerator = Math.round((inches - whole) * denominator);
  let under = denominator;
  while (numerator > 0 && numerator % 2 === 0 && under > 1) {
    numerator /= 2;
    under /= 2;
  }
  if (numerator === 0) return `${whole}`;
  if (under === 1) return `${whole + numerator}`;
  return whole === 0 ? `${numerator}/${under}` : `${whole} ${numerator}/${under}`;
}

/** Resolutions are kept rounded: so near to a step of a unit they are that step. */
const ROUNDED = 1e-4;

/** Places after the point with which a resolution was read in a unit; undefined where it was not read in it. */
function placesIn(resolution: number, unit: number): number | undefined {
  const steps = resolution / unit;
  return [0, 1, 2, 3].find((n) => Math.abs(steps * 10 ** n - 1) < ROUNDED);
}

/** The system that a measure was read in, by its resolution: a tenth of an ounce and an eighth of an inch tell themselves. */
export function systemOf(dimension: Dimension, resolution: number): UnitSystem {
  if (dimension === 'angle') return 'metric';
  const unit = dimension === 'length' ? MM_PER_INCH : GRAMS_PER_OUNCE;
  const fraction =
    dimension === 'length' &&
    [2, 4, 8, 16, 32, 64].some((d) => Math.abs((resolution / unit) * d - 1) < ROUNDED);
  return placesIn(resolution, unit) !== undefined || fraction ? 'imperial' : 'metric';
}

/**
 * Both systems, each rounded to what the resolution supports, the one it was read in first: `104.8 mm · 4 1/8 in`,
 * `1.9 oz · 54 g`. Inches that were read in decimals stay in decimals.
 */
export function formatQuantity(
  value: number,
  dimension: Dimension,
  resolution = 0.1,
  first: UnitSystem = systemOf(dimension, resolution),
): string {
  if (dimension === 'angle') return `${value.toFixed(decimalsFor(resolution))}°`;
  const metric = `${value.toFixed(decimalsFor(resolution))} ${dimension === 'length' ? 'mm' : 'g'}`;
  const inches = placesIn(resolution, MM_PER_INCH);
  const ounces = placesIn(resolution, GRAMS_PER_OUNCE) ?? (resolution > GRAMS_PER_OUNCE / 10 ? 0 : 1);
  const imperial =
    dimension === 'mass'
      ? `${(value / GRAMS_PER_OUNCE).toFixed(ounces)} oz`
      : inches !== undefined && inches > 0
        ? `${(value / MM_PER_INCH).toFixed(inches)} in`
        : `${inchFraction(value, resolution)} in`;
  return first === 'metric' ? `${metric} · ${imperial}` : `${imperial} · ${metric}`;
}

/** The dimension that a feature's unit (formats.md: `mm | g | deg`) measures. */
export const dimensionOfUnit = (unit: 'mm' | 'g' | 'deg' | null | undefined): Dimension =>
  unit === 'g' ? 'mass' : unit === 'deg' ? 'angle' : 'length';
