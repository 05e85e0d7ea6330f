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

/**
 * Reads a measure. Without a unit a fraction means inches, anything else the dimension's metric unit.
 * @throws never; what cannot be read comes back as a `not-a-measure` problem
 */
export function parseQuantity(text: string, dimension: Dimension): Result<Quantity, UnitProblem> {
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

/** Both systems, each rounded to what the resolution supports: `104.8 mm · 4 1/8 in`. */
export function formatQuantity(
  value: number,
  dimension: Dimension,
  resolution = 0.1,
  first: UnitSystem = 'metric',
): string {
  if (dimension === 'angle') return `${value.toFixed(decimalsFor(resolution))}°`;
  const metric =
    dimension === 'length'
      ? `${value.toFixed(decimalsFor(resolution))} mm`
      : `${value.toFixed(decimalsFor(resolution))} g`;
  const imperial =
    dimension === 'length'
      ? `${inchFraction(value, resolution)} in`
      : `${(value / GRAMS_PER_OUNCE).toFixed(resolution > GRAMS_PER_OUNCE / 10 ? 0 : 1)} oz`;
  return first === 'metric' ? `${metric} · ${imperial}` : `${imperial} · ${metric}`;
}

/** The dimension that a feature's unit (formats.md: `mm | g | deg`) measures. */
export const dimensionOfUnit = (unit: 'mm' | 'g' | 'deg' | null | undefined): Dimension =>
  unit === 'g' ? 'mass' : unit === 'deg' ? 'angle' : 'length';
