/**
 * Leave it or treat it: what each treatment would take away and leave behind, what it costs, how often it goes wrong,
 * and the grade on every scale before, after, and if it fails (engines.md, Condition and Treatment).
 */
import {
  basePart,
  type Completeness,
  type Defect,
  type Finding,
  type GradeQuestion,
  type Part,
} from './finding.ts';
import { gradeCondition, type GradeAnswer } from './grade.ts';
import { SHIPPED_RULES, type RuleSet } from './rules.ts';
import type { TreatmentKind } from './treated.ts';

export interface TreatmentPlan {
  readonly kind: TreatmentKind;
  readonly title: string;
  /** what it is for */
  readonly treats: readonly { readonly defects: readonly Defect[]; readonly parts?: readonly Part[] }[];
  /** what it leaves behind on each part it was done to */
  readonly leaves: readonly Pick<Finding, 'defect' | 'severity'>[];
  /** an item it supplies, where that is missing */
  readonly supplies?: { readonly item: string; readonly from: string; readonly state: string };
  /** in the shop's currency, without the shop's own hours: a start to be changed */
  readonly cost: string;
  /** how often it goes wrong, 0–1, and what is added then */
  readonly failure: number;
  readonly failing: readonly Pick<Finding, 'defect' | 'severity'>[];
  readonly reversible: boolean;
  readonly cautions: readonly string[];
}

const EDGE = 'Cut-resistant glove, edge away from you, the piece held fast.';
const DUST = 'Mask and extraction: dust of horn, bone, shell and old fibre does not belong in the lungs.';
const SOLVENT = 'Gloves and fresh air; solvents lift old finishes and craze old plastics.';
const ACID = 'Goggles and gloves; try it where nobody looks first.';
const TENSION = 'A spring under tension: glasses on, nobody in its way.';

/** Defaults to start from; a shop sets its own cost and odds when it weighs them. */
export const TREATMENT_PLANS: readonly TreatmentPlan[] = [
  {
    kind: 'degrease',
    title: 'Take off grease and residue',
    treats: [{ defects: ['residue'] }],
    leaves: [],
    cost: '4.00',
    failure: 0.02,
    failing: [{ defect: 'stain', severity: 'trace' }],
    reversible: true,
    cautions: [SOLVENT],
  },
  {
    kind: 'oil',
    title: 'Clean and oil the action',
    treats: [{ defects: ['stiff', 'lazy-snap'] }],
    leaves: [],
    cost: '3.00',
    failure: 0.02,
    failing: [{ defect: 'stain', severity: 'trace' }],
    reversible: true,
    cautions: [EDGE],
  },
  {
    kind: 'remove-rust',
    title: 'Take off live rust',
    treats: [{ defects: ['rust'] }],
    leaves: [{ defect: 'pitting', severity: 'trace' }],
    cost: '12.00',
    failure: 0.12,
    failing: [{ defect: 'polished', severity: 'light' }],
    reversible: false,
    cautions: [ACID, DUST],
  },
  {
    kind: 'polish',
    title: 'Polish to a shine',
    treats: [
      { defects: ['stain', 'patina', 'scratch'], parts: ['blade', 'bolster', 'guard', 'pommel', 'tang'] },
    ],
    leaves: [{ defect: 'polished', severity: 'moderate' }],
    cost: '18.00',
    failure: 0.1,
    failing: [{ defect: 'wear', severity: 'moderate' }],
    reversible: false,
    cautions: [EDGE, DUST],
  },
  {
    kind: 'sharpen',
    title: 'Sharpen',
    treats: [{ defects: ['dull'] }],
    leaves: [{ defect: 'sharpened', severity: 'trace' }],
    cost: '9.00',
    failure: 0.05,
    failing: [{ defect: 'scratch', severity: 'light' }],
    reversible: false,
    cautions: [EDGE],
  },
  {
    kind: 'take-out-nicks',
    title: 'Stone out nicks and chips',
    treats: [{ defects: ['nick', 'chip'], parts: ['edge', 'blade'] }],
    leaves: [{ defect: 'sharpened', severity: 'light' }],
    cost: '16.00',
    failure: 0.1,
    failing: [{ defect: 'reground', severity: 'light' }],
    reversible: false,
    cautions: [EDGE],
  },
  {
    kind: 're-tip',
    title: 'Re-tip',
    treats: [{ defects: ['chip', 'bend', 'dull'], parts: ['tip'] }],
    leaves: [{ defect: 'reground', severity: 'trace' }],
    cost: '20.00',
    failure: 0.12,
    failing: [{ defect: 'reground', severity: 'moderate' }],
    reversible: false,
    cautions: [EDGE],
  },
  {
    kind: 'straighten',
    title: 'Straighten',
    treats: [{ defects: ['bend'], parts: ['blade', 'guard', 'clip', 'tool', 'liner', 'scabbard'] }],
    leaves: [{ defect: 'repaired', severity: 'trace' }],
    cost: '22.00',
    failure: 0.2,
    failing: [{ defect: 'crack', severity: 'moderate' }],
    reversible: false,
    cautions: [EDGE, 'Hardened steel breaks without warning: glasses on.'],
  },
  {
    kind: 'tighten',
    title: 'Tighten rivets and pins',
    treats: [{ defects: ['play-side', 'play-vertical', 'loose'] }],
    leaves: [{ defect: 'repaired', severity: 'trace' }],
    cost: '15.00',
    failure: 0.1,
    failing: [{ defect: 'crack', severity: 'light' }],
    reversible: false,
    cautions: [EDGE],
  },
  {
    kind: 'centre',
    title: 'Centre the blade',
    treats: [{ defects: ['off-centre', 'rubbing'] }],
    leaves: [],
    cost: '8.00',
    failure: 0.06,
    failing: [{ defect: 'stiff', severity: 'light' }],
    reversible: true,
    cautions: [EDGE, TENSION],
  },
  {
    kind: 'glue',
    title: 'Close a crack or gap with glue',
    treats: [{ defects: ['crack', 'gap'], parts: ['scales', 'grip', 'sheath', 'frog'] }],
    leaves: [{ defect: 'repaired', severity: 'trace' }],
    cost: '14.00',
    failure: 0.15,
    failing: [{ defect: 'stain', severity: 'light' }],
    reversible: false,
    cautions: [SOLVENT],
  },
  {
    kind: 'replace-part',
    title: 'Fit another part',
    treats: [
      {
        defects: ['missing', 'crack', 'bend', 'weak-snap'],
        parts: ['clip', 'pin', 'shield', 'spring', 'opener', 'tool', 'pivot'],
      },
    ],
    leaves: [{ defect: 'replaced', severity: 'light' }],
    cost: '28.00',
    failure: 0.1,
    failing: [{ defect: 'scratch', severity: 'moderate' }],
    reversible: true,
    cautions: [TENSION, EDGE],
  },
  {
    kind: 'refinish',
    title: 'Renew the finish',
    treats: [{ defects: ['finish-loss'] }],
    leaves: [{ defect: 'refinished', severity: 'moderate' }],
    cost: '60.00',
    failure: 0.1,
    failing: [{ defect: 'polished', severity: 'heavy' }],
    reversible: false,
    cautions: [ACID, DUST],
  },
  {
    kind: 'stabilise',
    title: 'Stop shrinkage, feed the handle',
    treats: [{ defects: ['shrinkage', 'swelling'], parts: ['scales', 'grip'] }],
    leaves: [{ defect: 'residue', severity: 'trace' }],
    cost: '6.00',
    failure: 0.1,
    failing: [{ defect: 'stain', severity: 'light' }],
    reversible: true,
    cautions: ['Slowly, with gloves and in fresh air: what dries or swells in a week cracks.'],
  },
  {
    kind: 'supply-sheath',
    title: 'Buy a reproduction sheath',
    treats: [],
    leaves: [],
    supplies: { item: 'sheath', from: 'none', state: 'reproduction' },
    cost: '25.00',
    failure: 0,
    failing: [],
    reversible: true,
    cautions: [],
  },
];

/** Opening a sealed package: nothing is treated, something is found out, and it cannot be sealed again. */
export const OPENING: TreatmentPlan = {
  kind: 'open-package',
  title: 'Open the package',
  treats: [],
  leaves: [],
  cost: '0.00',
  failure: 0,
  failing: [],
  reversible: false,
  cautions: [
    EDGE,
    'Picture the seal from every side first: the package is evidence, and opening it takes value for good.',
  ],
};

export interface Outcome {
  readonly findings: readonly Finding[];
  readonly completeness: Completeness;
  readonly grade: GradeAnswer;
}
export interface TreatmentOption {
  /** absent: leave it */
  readonly plan: TreatmentPlan | undefined;
  /** positions among the piece's findings that it takes away */
  readonly removes: readonly number[];
  readonly adds: readonly Finding[];
  readonly failure: number;
  readonly done: Outcome;
  /** absent where it cannot fail */
  readonly failed: Outcome | undefined;
  /** condition index on average over both ways */
  readonly expectedIndex: number;
  /** what has to be said afterwards that need not be said now */
  readonly newDisclosures: readonly string[];
}

const treats = (plan: TreatmentPlan, f: Finding): boolean =>
  plan.treats.some(
    (t) => t.defects.includes(f.defect) && (t.parts?.includes(basePart(f.part) as Part) ?? true),
  );

/** What a treatment leaves behind, once on each part it was done to; what is already there is not said twice. */
export function traces(
  left: TreatmentPlan['leaves'],
  parts: readonly string[],
  there: readonly Finding[],
  note: string,
): Finding[] {
  return [...new Set(parts)].flatMap((part) =>
    left
      .filter((l) => !there.some((f) => f.part === part && f.defect === l.defect))
      .map((l): Finding => ({ part, defect: l.defect, severity: l.severity, note })),
  );
}

/** Every option that has something to treat on this piece; “leave it” stands first and always. */
export function treatmentOptions(
  question: GradeQuestion,
  set: RuleSet = SHIPPED_RULES,
  plans: readonly TreatmentPlan[] = TREATMENT_PLANS,
): TreatmentOption[] {
  const { findings } = question;
  const completeness = question.completeness ?? {};
  const outcome = (after: readonly Finding[], items: Completeness): Outcome => ({
    findings: after,
    completeness: items,
    grade: gradeCondition({ ...question, findings: after, completeness: items }, set),
  });
  const now = outcome(findings, completeness);
  const leave: TreatmentOption = {
    plan: undefined,
    removes: [],
    adds: [],
    failure: 0,
    done: now,
    failed: undefined,
    expectedIndex: now.grade.conditionIndex,
    newDisclosures: [],
  };
  const options = plans.flatMap((plan): TreatmentOption[] => {
    const removes = findings.flatMap((f, i) => (treats(plan, f) ? [i] : []));
    const supplied = plan.supplies && completeness[plan.supplies.item] === plan.supplies.from;
    if (removes.length === 0 && !supplied) return [];
    const kept = findings.filter((_, i) => !removes.includes(i));
    const parts = removes.flatMap((i) => findings[i]?.part ?? []);
    const adds = traces(plan.leaves, parts, kept, plan.title.toLowerCase());
    const items =
      plan.supplies && supplied
        ? { ...completeness, [plan.supplies.item]: plan.supplies.state }
        : completeness;
    const done = outcome([...kept, ...adds], items);
    const failed =
      plan.failure > 0 && plan.failing.length > 0
        ? // it was done, nothing is gained by it, and something is worse than before
          outcome(
            [
              ...findings,
              ...adds,
              ...traces(plan.failing, parts, findings, `${plan.title.toLowerCase()} went wrong`),
            ],
            completeness,
          )
        : undefined;
    const failure = failed ? plan.failure : 0;
    return [
      {
        plan,
        removes,
        adds,
        failure,
        done,
        failed,
        expectedIndex:
          (1 - failure) * done.grade.conditionIndex + failure * (failed?.grade.conditionIndex ?? 0),
        newDisclosures: done.grade.disclosures.filter((d) => !now.grade.disclosures.includes(d)),
      },
    ];
  });
  return [leave, ...options];
}
