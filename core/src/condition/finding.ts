/** Findings: part, defect, severity or measure, where (formats.md, "Grade"). */
import type { Construction } from '../reference/index.ts';

export const PARTS = [
  'blade',
  'edge',
  'tip',
  'tang',
  'scales',
  'bolster',
  'liner',
  'pin',
  'shield',
  'spring',
  'lock',
  'pivot',
  'clip',
  'opener',
  'guard',
  'pommel',
  'grip',
  'finish',
  'sheath',
  'scabbard',
  'frog',
  'box',
  'papers',
  'tool',
] as const;
export type Part = (typeof PARTS)[number];

export const DEFECTS = [
  'sharpened',
  'reground',
  'chip',
  'nick',
  'bend',
  'blade-loss',
  'pitting',
  'rust',
  'stain',
  'patina',
  'residue',
  'scratch',
  'dent',
  'wear',
  'finish-loss',
  'crack',
  'shrinkage',
  'swelling',
  'gap',
  'loose',
  'missing',
  'replaced',
  'refinished',
  'polished',
  'repaired',
  'engraved',
  'named',
  'play-side',
  'play-vertical',
  'lock-rock',
  'lock-travel',
  'weak-snap',
  'lazy-snap',
  'stiff',
  'off-centre',
  'rubbing',
  'dull',
  'rolled',
  'burr',
] as const;
export type Defect = (typeof DEFECTS)[number];

export const SEVERITIES = ['trace', 'light', 'moderate', 'heavy', 'severe'] as const;
export type Severity = (typeof SEVERITIES)[number];

type Maybe<T> = T | null | undefined;
export interface Finding {
  /** a part, with a number where there are several: `blade:2` */
  part: string;
  defect: Defect;
  severity?: Maybe<Severity>;
  /** millimetres or percent, as the defect says */
  measure?: Maybe<number>;
  count?: Maybe<number>;
  side?: Maybe<string>;
  note?: Maybe<string>;
  /** done by the maker, under warranty or in its own workshop: apart from aftermarket work */
  byMaker?: Maybe<boolean>;
  /** where it is: on a picture, or on the drawn outline when no picture is named */
  pin?: Maybe<Pin>;
}
export interface Pin {
  picture?: Maybe<string>;
  /** 0–1 from the left and from the top */
  x: number;
  y: number;
}

export type Completeness = Record<string, string | null | undefined>;

export interface GradeQuestion {
  construction: Construction;
  findings: readonly Finding[];
  completeness?: Maybe<Completeness>;
  /** age in years, where known; scales that forgive age use it */
  age?: Maybe<number>;
}

/** `blade` of `blade:2`. */
export const basePart = (part: string): string => part.split(':')[0] ?? part;

const MEASURED: Partial<Record<Defect, 'mm' | 'percent'>> = {
  'blade-loss': 'percent',
  'finish-loss': 'percent',
  wear: 'percent',
  'lock-travel': 'percent',
  crack: 'mm',
  chip: 'mm',
  nick: 'mm',
  bend: 'mm',
  gap: 'mm',
  shrinkage: 'mm',
  'play-side': 'mm',
  'play-vertical': 'mm',
  'lock-rock': 'mm',
  'off-centre': 'mm',
};
/** What a finding's measure is in; undefined where the defect is not measured. */
export const measureUnit = (defect: Defect): 'mm' | 'percent' | undefined => MEASURED[defect];

const DEFECT_WORDS: Partial<Record<Defect, string>> = {
  'blade-loss': 'blade lost to sharpening',
  'finish-loss': 'loss of finish',
  'play-side': 'side play',
  'play-vertical': 'vertical play',
  'lock-rock': 'lock rock',
  'lock-travel': 'lock travel',
  'weak-snap': 'weak snap',
  'lazy-snap': 'lazy snap',
  'off-centre': 'off centre',
  named: 'owner’s name',
  rolled: 'rolled edge',
};
export const defectInWords = (defect: Defect): string => DEFECT_WORDS[defect] ?? defect;

export function partInWords(part: string): string {
  const [name = part, number] = part.split(':');
  return number === undefined ? name : `${name} ${number}`;
}

/** One finding as a buyer should read it: `Scales: crack, light, 4 mm, rear side – at the front pin`. */
export function findingInWords(f: Finding): string {
  const unit = measureUnit(f.defect);
  const details = [
    f.count != null && f.count > 1 ? `${f.count} places` : undefined,
    f.severity ?? undefined,
    f.measure == null ? undefined : unit === 'percent' ? `${f.measure} %` : `${f.measure} mm`,
    f.side ?? undefined,
    f.byMaker ? 'by the maker' : undefined,
  ].filter((d): d is string => d !== undefined && d !== '');
  const part = partInWords(f.part);
  const head = `${part.charAt(0).toUpperCase()}${part.slice(1)}: ${[defectInWords(f.defect), ...details].join(', ')}`;
  return f.note ? `${head} – ${f.note}` : head;
}
