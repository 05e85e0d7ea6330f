/** The rule documents shipped with Jutbank: data, versioned, to be copied and changed by a shop. */
import { DEFECTS, PARTS, type Defect, type Part, type Severity } from './finding.ts';

export type BySeverity = Readonly<Record<Severity, number>>;

export interface DeductionRule {
  readonly defect: Defect;
  /** absent: on any part not named by another rule of this defect */
  readonly parts?: readonly Part[];
  /** share of the condition lost, 0–1 */
  readonly bySeverity: BySeverity;
  /** piecewise linear in the measure: [measure, share lost] in rising order */
  readonly byMeasure?: readonly (readonly [number, number])[];
}

export interface IndexRules {
  readonly format: 'jutbank.condition-index/1';
  readonly id: 'condition-index';
  readonly version: string;
  readonly title: string;
  /** share counted of every further finding of the same part and defect */
  readonly repeats: number;
  /** wear of honest use and time, forgiven by age; damage and alteration never are */
  readonly wear: readonly Defect[];
  readonly deductions: readonly DeductionRule[];
}

export interface Cap {
  readonly id: string;
  /** only for work that was not the maker’s own; absent: whoever did it */
  readonly aftermarketOnly?: boolean;
  readonly defects: readonly Defect[];
  readonly parts?: readonly Part[];
  /** from this severity on; absent: any */
  readonly from?: Severity;
  readonly to: string;
  readonly says: string;
}
export interface CompletenessCap {
  readonly id: string;
  readonly item: string;
  readonly states: readonly string[];
  readonly to: string;
  readonly says: string;
}

export const SCALE_IDS = ['collector', 'user', 'finish'] as const;
export type ScaleId = (typeof SCALE_IDS)[number];

export interface ScaleRules {
  readonly format: 'jutbank.grade-scale/1';
  readonly id: ScaleId;
  readonly version: string;
  readonly title: string;
  /** best first; a grade holds from its value on */
  readonly grades: readonly { readonly grade: string; readonly from: number }[];
  readonly measures: 'condition-index' | 'original-finish';
  /** original finish lost, in percent, by defect; a measured finish loss counts as measured */
  readonly finishLost?: Readonly<Partial<Record<Defect, BySeverity>>>;
  /** wear counts less on old pieces: [years, share of the deduction kept] in rising order */
  readonly ageAllowance?: readonly (readonly [number, number])[];
  readonly caps: readonly Cap[];
  readonly completenessCaps: readonly CompletenessCap[];
}

const grow = (trace: number, light: number, moderate: number, heavy: number, severe: number): BySeverity => ({
  trace,
  light,
  moderate,
  heavy,
  severe,
});

const COSMETIC = grow(0.005, 0.015, 0.04, 0.09, 0.18);
const ACTION = grow(0.01, 0.03, 0.07, 0.13, 0.25);
const METAL_LOSS = grow(0.02, 0.05, 0.11, 0.22, 0.4);

/** What each defect takes off; every defect says so here, by part where it matters on which. */
const TAKES_OFF: Readonly<Record<Defect, readonly Omit<DeductionRule, 'defect'>[]>> = {
  patina: [{ bySeverity: grow(0.002, 0.006, 0.015, 0.03, 0.06) }],
  residue: [{ bySeverity: grow(0.002, 0.006, 0.015, 0.03, 0.06) }],
  scratch: [{ bySeverity: COSMETIC }],
  stain: [{ bySeverity: COSMETIC }],
  dent: [{ bySeverity: COSMETIC }],
  dull: [{ bySeverity: grow(0.003, 0.008, 0.02, 0.03, 0.05) }],
  wear: [
    {
      bySeverity: COSMETIC,
      byMeasure: [
        [0, 0],
        [10, 0.02],
        [50, 0.12],
        [100, 0.3],
      ],
    },
  ],
  'finish-loss': [
    {
      bySeverity: grow(0.01, 0.03, 0.08, 0.16, 0.3),
      byMeasure: [
        [0, 0],
        [5, 0.015],
        [30, 0.1],
        [100, 0.35],
      ],
    },
  ],
  rust: [{ bySeverity: METAL_LOSS }],
  pitting: [{ bySeverity: METAL_LOSS }],
  sharpened: [{ bySeverity: grow(0.02, 0.04, 0.08, 0.14, 0.22) }],
  'blade-loss': [
    {
      bySeverity: grow(0.02, 0.06, 0.15, 0.3, 0.5),
      byMeasure: [
        [0, 0],
        [2, 0.03],
        [10, 0.15],
        [25, 0.4],
        [60, 0.75],
      ],
    },
  ],
  reground: [{ bySeverity: grow(0.15, 0.2, 0.28, 0.38, 0.5) }],
  chip: [
    {
      bySeverity: METAL_LOSS,
      byMeasure: [
        [0, 0.02],
        [1, 0.06],
        [3, 0.14],
        [8, 0.3],
      ],
    },
  ],
  nick: [
    {
      bySeverity: grow(0.01, 0.025, 0.05, 0.1, 0.18),
      byMeasure: [
        [0, 0.01],
        [1, 0.03],
        [4, 0.12],
      ],
    },
  ],
  bend: [{ bySeverity: METAL_LOSS }],
  crack: [
    { parts: ['blade', 'spring', 'lock', 'tang'], bySeverity: grow(0.15, 0.25, 0.4, 0.55, 0.7) },
    {
      bySeverity: grow(0.03, 0.06, 0.12, 0.22, 0.38),
      byMeasure: [
        [0, 0.03],
        [3, 0.06],
        [10, 0.14],
        [30, 0.3],
      ],
    },
  ],
  shrinkage: [{ bySeverity: grow(0.015, 0.03, 0.07, 0.14, 0.25) }],
  swelling: [{ bySeverity: grow(0.015, 0.03, 0.07, 0.14, 0.25) }],
  gap: [{ bySeverity: grow(0.008, 0.02, 0.05, 0.1, 0.18) }],
  loose: [{ bySeverity: ACTION }],
  missing: [
    { parts: ['box', 'papers'], bySeverity: grow(0, 0, 0, 0, 0) },
    { bySeverity: grow(0.05, 0.08, 0.15, 0.25, 0.4) },
  ],
  replaced: [
    { parts: ['blade', 'tang', 'scales', 'grip'], bySeverity: grow(0.25, 0.3, 0.4, 0.5, 0.6) },
    { bySeverity: grow(0.06, 0.09, 0.14, 0.2, 0.28) },
  ],
  refinished: [{ bySeverity: grow(0.1, 0.14, 0.2, 0.28, 0.38) }],
  polished: [{ bySeverity: grow(0.03, 0.06, 0.11, 0.18, 0.28) }],
  repaired: [{ bySeverity: grow(0.04, 0.07, 0.12, 0.2, 0.3) }],
  engraved: [{ bySeverity: grow(0.03, 0.05, 0.09, 0.14, 0.2) }],
  named: [{ bySeverity: grow(0.01, 0.02, 0.04, 0.07, 0.12) }],
  'play-side': [
    {
      bySeverity: ACTION,
      byMeasure: [
        [0, 0],
        [0.1, 0.02],
        [0.5, 0.09],
        [2, 0.25],
      ],
    },
  ],
  'play-vertical': [
    {
      bySeverity: ACTION,
      byMeasure: [
        [0, 0],
        [0.1, 0.03],
        [0.5, 0.12],
        [2, 0.3],
      ],
    },
  ],
  'lock-rock': [
    {
      bySeverity: ACTION,
      byMeasure: [
        [0, 0],
        [0.1, 0.04],
        [0.5, 0.14],
        [2, 0.3],
      ],
    },
  ],
  'lock-travel': [
    {
      bySeverity: grow(0.005, 0.015, 0.04, 0.09, 0.15),
      byMeasure: [
        [0, 0],
        [50, 0.01],
        [80, 0.06],
        [100, 0.15],
      ],
    },
  ],
  'weak-snap': [{ bySeverity: ACTION }],
  'lazy-snap': [{ bySeverity: ACTION }],
  stiff: [{ bySeverity: grow(0.005, 0.015, 0.03, 0.06, 0.1) }],
  'off-centre': [
    {
      bySeverity: grow(0.005, 0.015, 0.035, 0.07, 0.12),
      byMeasure: [
        [0, 0],
        [0.3, 0.015],
        [1, 0.06],
        [2, 0.12],
      ],
    },
  ],
  rubbing: [{ bySeverity: grow(0.02, 0.04, 0.07, 0.11, 0.16) }],
  rolled: [{ bySeverity: grow(0.01, 0.025, 0.05, 0.09, 0.15) }],
  burr: [{ bySeverity: grow(0.005, 0.015, 0.03, 0.05, 0.08) }],
};

export const INDEX_RULES: IndexRules = {
  format: 'jutbank.condition-index/1',
  id: 'condition-index',
  version: '2',
  title: 'Condition index',
  repeats: 0.25,
  wear: ['patina', 'stain', 'scratch', 'wear', 'finish-loss', 'dull', 'residue'],
  deductions: DEFECTS.flatMap((defect) => TAKES_OFF[defect].map((rule) => ({ defect, ...rule }))),
};

const AGE_ALLOWANCE = [
  [0, 1],
  [20, 0.85],
  [50, 0.55],
  [100, 0.4],
] as const;

/** Parts of the piece itself: what happened to box, papers or sheath says nothing of its use. */
const OF_THE_PIECE: readonly Part[] = PARTS.filter(
  (part) => !['sheath', 'scabbard', 'frog', 'box', 'papers'].includes(part),
);

export const SCALES: readonly ScaleRules[] = [
  {
    format: 'jutbank.grade-scale/1',
    id: 'collector',
    version: '2',
    title: 'Collector scale',
    measures: 'condition-index',
    grades: [
      { grade: 'mint', from: 98 },
      { grade: 'near-mint', from: 93 },
      { grade: 'excellent', from: 85 },
      { grade: 'very-good', from: 72 },
      { grade: 'good', from: 55 },
      { grade: 'fair', from: 32 },
      { grade: 'poor', from: 0 },
    ],
    ageAllowance: AGE_ALLOWANCE,
    caps: [
      {
        id: 'carried',
        defects: ['wear', 'scratch', 'dull', 'finish-loss', 'named', 'engraved'],
        parts: OF_THE_PIECE,
        to: 'near-mint',
        says: 'mint means unused: what was carried is at most near mint',
      },
      {
        id: 'edge',
        defects: ['rolled', 'burr', 'nick'],
        to: 'excellent',
        says: 'an edge that was used is at most excellent',
      },
      {
        id: 're-tipped',
        defects: ['reground'],
        parts: ['tip'],
        to: 'very-good',
        says: 'a point ground anew, however neat, caps at very good',
      },
      {
        id: 'shrunk',
        defects: ['shrinkage', 'swelling'],
        from: 'heavy',
        to: 'good',
        says: 'scales that shrank badly cap at good',
      },
      {
        id: 'play',
        defects: ['play-side', 'play-vertical', 'lock-rock'],
        from: 'moderate',
        to: 'very-good',
        says: 'play at the pivot caps at very good',
      },
      {
        id: 'sharpened',
        defects: ['sharpened'],
        to: 'excellent',
        says: 'a sharpened blade is at most excellent',
      },
      {
        id: 'blade-loss',
        defects: ['blade-loss'],
        from: 'moderate',
        to: 'very-good',
        says: 'a blade that lost fullness is at most very good',
      },
      {
        id: 'crack-in-handle',
        defects: ['crack'],
        parts: ['scales', 'grip', 'bolster'],
        to: 'very-good',
        says: 'a crack in the handle caps at very good',
      },
      {
        id: 'crack-in-steel',
        defects: ['crack'],
        parts: ['blade', 'spring', 'lock', 'tang'],
        to: 'poor',
        says: 'a crack in blade, spring, lock or tang caps at poor',
      },
      {
        id: 'parts',
        defects: ['replaced'],
        parts: ['blade', 'tang'],
        aftermarketOnly: true,
        to: 'fair',
        says: 'a replaced blade caps at fair: parts',
      },
      {
        id: 're-handled',
        defects: ['replaced'],
        parts: ['scales', 'grip'],
        aftermarketOnly: true,
        to: 'good',
        says: 'replaced scales cap at good',
      },
      {
        id: 'maker-work',
        defects: ['replaced', 'refinished', 'repaired', 'reground'],
        to: 'very-good',
        says: 'work done afterwards, the maker’s own too, caps at very good',
      },
      {
        id: 'reground',
        defects: ['reground'],
        parts: ['blade', 'edge'],
        to: 'good',
        says: 'a reground blade caps at good',
      },
      {
        id: 'cleaned',
        defects: ['polished', 'refinished'],
        to: 'very-good',
        says: 'cleaned to shine: at most very good',
      },
      {
        id: 'missing-part',
        defects: ['missing'],
        parts: ['scales', 'bolster', 'shield', 'spring', 'pin', 'tool', 'blade', 'guard', 'pommel'],
        to: 'good',
        says: 'a missing part caps at good',
      },
      {
        id: 'repaired',
        defects: ['repaired'],
        to: 'very-good',
        says: 'a repair, however neat, caps at very good',
      },
      {
        id: 'rust',
        defects: ['rust', 'pitting'],
        from: 'light',
        to: 'very-good',
        says: 'rust or pitting caps at very good',
      },
    ],
    completenessCaps: [],
  },
  {
    format: 'jutbank.grade-scale/1',
    id: 'user',
    version: '2',
    title: 'User scale',
    measures: 'condition-index',
    grades: [
      { grade: 'new', from: 98.5 },
      { grade: 'like-new', from: 92 },
      { grade: 'light-user', from: 78 },
      { grade: 'user', from: 50 },
      { grade: 'project', from: 0 },
    ],
    caps: [
      {
        id: 'carried',
        defects: ['sharpened', 'wear', 'scratch', 'dull', 'finish-loss', 'rolled', 'burr', 'nick', 'named'],
        parts: OF_THE_PIECE,
        to: 'like-new',
        says: 'carried, used or sharpened is no longer new',
      },
      {
        id: 're-tipped',
        defects: ['reground'],
        parts: ['tip'],
        to: 'light-user',
        says: 'a point ground anew caps at light user',
      },
      {
        id: 'play',
        defects: ['play-side', 'play-vertical', 'lock-rock'],
        from: 'moderate',
        to: 'light-user',
        says: 'play at the pivot caps at light user',
      },
      {
        id: 'safety',
        defects: ['lock-rock', 'crack'],
        parts: ['lock', 'spring', 'blade', 'tang', 'pivot'],
        from: 'moderate',
        to: 'project',
        says: 'a lock or spring that cannot be trusted makes it a project',
      },
      {
        id: 'missing-part',
        defects: ['missing'],
        parts: ['scales', 'liner', 'spring', 'lock', 'pivot', 'pin', 'blade', 'clip', 'opener', 'tool'],
        to: 'user',
        says: 'a missing part caps at user',
      },
      {
        id: 'reground',
        defects: ['reground', 'blade-loss'],
        from: 'moderate',
        to: 'user',
        says: 'a reground or much sharpened blade caps at user',
      },
      {
        id: 'changed',
        defects: ['replaced', 'refinished'],
        aftermarketOnly: true,
        to: 'light-user',
        says: 'changed parts or finish cap at light user',
      },
    ],
    completenessCaps: [
      {
        id: 'box',
        item: 'box',
        states: ['none', 'service', 'later'],
        to: 'like-new',
        says: 'without its own box it is not new in box',
      },
    ],
  },
  {
    format: 'jutbank.grade-scale/1',
    id: 'finish',
    version: '2',
    title: 'Finish scale',
    measures: 'original-finish',
    finishLost: {
      'finish-loss': grow(1, 5, 18, 40, 75),
      wear: grow(0.5, 2, 6, 14, 30),
      scratch: grow(0.2, 0.7, 2, 5, 10),
      rust: grow(1, 3, 10, 25, 50),
      pitting: grow(1, 3, 10, 25, 50),
      stain: grow(0.2, 0.7, 2, 5, 10),
      polished: grow(10, 25, 50, 80, 100),
      refinished: grow(40, 60, 80, 95, 100),
    },
    grades: [
      { grade: 'new', from: 99 },
      { grade: 'excellent', from: 95 },
      { grade: 'very-good', from: 80 },
      { grade: 'good', from: 60 },
      { grade: 'fair', from: 30 },
      { grade: 'poor', from: 0 },
    ],
    caps: [
      {
        id: 'carried',
        defects: ['wear', 'scratch', 'finish-loss'],
        parts: OF_THE_PIECE,
        to: 'excellent',
        says: 'carried, it is no longer new',
      },
      {
        id: 'refinished',
        defects: ['refinished', 'polished'],
        to: 'fair',
        says: 'finish that is not original caps at fair',
      },
      {
        id: 'pitted',
        defects: ['pitting'],
        from: 'moderate',
        to: 'good',
        says: 'pitting under the finish caps at good',
      },
      {
        id: 'broken',
        defects: ['crack', 'missing'],
        parts: ['blade', 'guard', 'pommel', 'grip', 'scales', 'tang'],
        to: 'fair',
        says: 'a broken or missing main part caps at fair',
      },
    ],
    completenessCaps: [],
  },
];

/** What a piece is graded by: one document for the index and one for each school. */
export interface RuleSet {
  readonly index: IndexRules;
  readonly scales: readonly ScaleRules[];
}
export type RuleDocument = IndexRules | ScaleRules;
export const SHIPPED_RULES: RuleSet = { index: INDEX_RULES, scales: SCALES };
export const RULE_IDS = ['condition-index', ...SCALE_IDS] as const;
export type RuleId = (typeof RULE_IDS)[number];

export const documentOf = (rules: RuleSet, id: RuleId): RuleDocument | undefined =>
  id === 'condition-index' ? rules.index : rules.scales.find((s) => s.id === id);

/** The same rules with one document put in the place of its namesake. */
export const withDocument = (rules: RuleSet, document: RuleDocument): RuleSet =>
  document.id === 'condition-index'
    ? { ...rules, index: document }
    : { ...rules, scales: rules.scales.map((s) => (s.id === document.id ? document : s)) };
