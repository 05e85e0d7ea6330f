/** What was done to the demo's pieces since they were found, what is kept apart, and who looked a second time. */
import { belongsTo, inspectionFor, type Finding, type Inspection } from '@jutbank/core/condition';
import type { Observation } from '@jutbank/core/bench';
import type { Construction } from '@jutbank/core/reference';
import type { TreatmentBody } from '@jutbank/contract/condition';

/** A finished inspection: good wherever nothing was found; what lies inside was not always looked at. */
export function inspectionOf(
  construction: Construction,
  findings: readonly Finding[],
  observations: readonly Observation[],
): Inspection {
  const counted = observations.find((o) => 'value' in o && o.feature === 'blade-count');
  const blades = counted && 'value' in counted && typeof counted.value === 'number' ? counted.value : 1;
  const tools = construction === 'multi-tool' ? 2 : 0;
  const steps = inspectionFor(construction, { blades, tools }).flatMap((s) => s.steps);
  return {
    blades,
    tools,
    steps: Object.fromEntries(
      steps
        .filter((step) => !findings.some((f) => belongsTo(f, step)))
        .map((step) => [step.id, step.id === 'inside' ? ('not-examined' as const) : ('good' as const)]),
    ),
  };
}

type Done = Omit<TreatmentBody, 'title' | 'removes' | 'completeness' | 'pictures'> & {
  /** the defects it took away */
  readonly treats: readonly Finding['defect'][];
};
export const treatments: readonly { readonly title: string; readonly done: Done }[] = [
  {
    title: 'Deck knife, walnut grip',
    done: {
      kind: 'remove-rust',
      product: 'light oil and bronze wool',
      grit: '0000',
      doneOn: '2026-10-28',
      doneBy: 'Ines Vadder',
      reason: 'live rust at the guard was spreading',
      reversible: false,
      cost: { amount: '6.50', currency: 'EUR' },
      treats: ['rust'],
      adds: [{ part: 'blade', defect: 'pitting', severity: 'trace', note: 'where the rust was' }],
    },
  },
  {
    title: 'Rigger No. 2 with bow shackle',
    done: {
      kind: 'oil',
      product: 'clock oil',
      grit: '',
      doneOn: '2026-10-30',
      doneBy: 'Sanna Merrow',
      reason: 'the spike hardly moved',
      reversible: true,
      cost: null,
      treats: ['stiff'],
      adds: [],
    },
  },
];

export const keptApart = {
  title: 'Ferry pen knife, red celluloid',
  since: '2026-10-26',
  reviewOn: '2026-11-26',
  reason: 'red celluloid, shrinking at the bolsters; a test plate beside it rusted in two weeks',
} as const;

export const partMove = {
  from: 'Petrel, third series',
  to: 'Petrel, Quayside exclusive',
  part: 'clip',
  movedOn: '2026-09',
  why: 'exchanged',
  note: 'deep clip of the third series, screws its own',
} as const;

export const secondGrading = {
  title: 'Autumn round, six pieces',
  pieces: [
    'Harbour jack, service issue?',
    'Ferry pen knife, red celluloid',
    'Orchard pruner, ebony',
    'Harbour jack, post-war',
    'Bayonet, arsenal shortened',
    'Deck knife, walnut grip',
  ],
  /** what the second grader found; pieces that are not here wait */
  looked: {
    'Harbour jack, service issue?': [
      { part: 'blade:1', defect: 'sharpened', severity: 'light' },
      { part: 'blade:1', defect: 'patina', severity: 'heavy' },
    ],
    'Ferry pen knife, red celluloid': [
      { part: 'scales', defect: 'shrinkage', severity: 'moderate' },
      { part: 'bolster', defect: 'scratch', severity: 'trace' },
    ],
    'Orchard pruner, ebony': [
      { part: 'blade:1', defect: 'blade-loss', measure: 9 },
      { part: 'blade:1', defect: 'patina', severity: 'heavy' },
      { part: 'scales', defect: 'crack', severity: 'trace' },
    ],
    'Bayonet, arsenal shortened': [{ part: 'finish', defect: 'finish-loss', measure: 30 }],
  } satisfies Record<string, readonly Finding[]>,
} as const;
