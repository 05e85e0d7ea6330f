/** What can be seen in two minutes, in the findings it stands for. */
import type { Construction } from '../reference/index.ts';
import type { Finding } from './finding.ts';

export interface Quick {
  readonly id: string;
  readonly label: string;
  readonly for?: readonly Construction[];
  /** one finding for each further tap, worse each time */
  readonly findings: readonly Finding[];
}
const FOLDERS: readonly Construction[] = [
  'slipjoint',
  'locking-folder',
  'multi-tool',
  'automatic',
  'balisong',
];
export const CONDITION_STEPS = ['a little', 'plainly', 'badly'] as const;
const worse = (part: Finding['part'], defect: Finding['defect']): Finding[] =>
  (['light', 'moderate', 'heavy'] as const).map((severity) => ({ part, defect, severity }));

export const QUICK_LOOK: readonly Quick[] = [
  { id: 'sharpened', label: 'Sharpened', findings: [{ part: 'blade', defect: 'sharpened' }] },
  {
    id: 'short',
    label: 'Blade worn short',
    findings: [4, 10, 22].map((measure) => ({ part: 'blade', defect: 'blade-loss', measure })),
  },
  { id: 'chips', label: 'Chips in the edge', findings: worse('edge', 'chip') },
  { id: 'rust', label: 'Rust, pits', findings: worse('blade', 'pitting') },
  { id: 'polished', label: 'Polished up', findings: [{ part: 'blade', defect: 'polished' }] },
  { id: 'crack', label: 'Cracked handle', findings: worse('scales', 'crack') },
  { id: 'play', label: 'Blade play', for: FOLDERS, findings: worse('pivot', 'play-side') },
  { id: 'snap', label: 'Weak snap', for: ['slipjoint'], findings: worse('spring', 'weak-snap') },
  { id: 'replaced', label: 'Part replaced', findings: [{ part: 'scales', defect: 'replaced' }] },
  { id: 'engraved', label: 'Name on it', findings: [{ part: 'shield', defect: 'named' }] },
  {
    id: 'finish',
    label: 'Finish gone',
    for: ['bayonet', 'fixed'],
    findings: [15, 40, 70].map((measure) => ({ part: 'finish', defect: 'finish-loss', measure })),
  },
];

/** How often each was tapped. */
export type QuickLook = Readonly<Record<string, number>>;

export const findingsOf = (look: QuickLook): Finding[] =>
  QUICK_LOOK.flatMap((q) => {
    const found = q.findings[(look[q.id] ?? 0) - 1];
    return found ? [found] : [];
  });
