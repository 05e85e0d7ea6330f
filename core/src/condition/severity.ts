/** What a severity means for a defect: in words for the clerk, and as a small drawing to hold the piece against. */
import { SEVERITIES, type Defect, type Severity } from './finding.ts';

/** Defects that look alike share words and drawings. */
export type DefectLook = 'line' | 'notch' | 'spots' | 'area' | 'shift' | 'degree';

const LOOKS: Record<Exclude<DefectLook, 'degree'>, readonly Defect[]> = {
  line: ['scratch', 'crack'],
  notch: ['chip', 'nick', 'blade-loss', 'reground', 'dull', 'sharpened'],
  spots: ['rust', 'pitting', 'stain', 'patina', 'residue', 'dent'],
  area: ['finish-loss', 'wear', 'polished', 'refinished'],
  shift: [
    'gap',
    'shrinkage',
    'swelling',
    'play-side',
    'play-vertical',
    'off-centre',
    'rubbing',
    'bend',
    'loose',
    'lock-rock',
  ],
};
const LOOK_OF = new Map(
  Object.entries(LOOKS).flatMap(([look, defects]) => defects.map((d) => [d, look as DefectLook] as const)),
);
export const lookOf = (defect: Defect): DefectLook => LOOK_OF.get(defect) ?? 'degree';

const WORDS: Record<DefectLook, readonly [string, string, string, string, string]> = {
  line: [
    'seen only in slanting light',
    'seen when turned to the light',
    'seen at arm’s length',
    'felt with a nail',
    'runs right through',
  ],
  notch: [
    'seen only under the loupe',
    'catches a fingernail',
    'seen at arm’s length',
    'several, or a millimetre deep',
    'the line of the edge is broken',
  ],
  spots: ['one or two small ones', 'a few', 'over a third of it', 'over most of it', 'everywhere'],
  area: ['at the very edges', 'along the edges', 'about a quarter', 'about half', 'most of it'],
  shift: ['felt, not seen', 'just seen', 'plainly seen', 'disturbs its use', 'cannot be used so'],
  degree: ['hardly', 'slightly', 'clearly', 'strongly', 'as bad as it gets'],
};
export const severityInWords = (defect: Defect, severity: Severity): string =>
  WORDS[lookOf(defect)][SEVERITIES.indexOf(severity)] ?? severity;
