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
