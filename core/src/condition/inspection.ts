/**
 * A guided inspection: what to look at on each construction, in the order in which people work, with the question
 * for each part and the defects that may be found there.
 */
import type { Construction } from '../reference/index.ts';
import { ENGLISH, type Catalogue } from '../words/index.ts';
import { basePart, type Defect, type Finding, type Part } from './finding.ts';
import type { Inspection, StepState } from './inspected.ts';

export interface InspectionStep {
  /** the template's id, with the number of the blade or tool: `edge:2` */
  readonly id: string;
  readonly part: string;
  readonly ask: string;
  /** likeliest first: the bench's number keys choose among them */
  readonly defects: readonly Defect[];
  /** which side it was found on matters */
  readonly sided: boolean;
  readonly caution: string | undefined;
}
export interface InspectionSection {
  readonly id: string;
  readonly title: string;
  readonly steps: readonly InspectionStep[];
}

type Each = 'blade' | 'tool';
interface Template {
  readonly id: string;
  readonly part: Part;
  readonly ask: string;
  readonly defects: readonly Defect[];
  readonly for?: readonly Construction[];
  /** once for every blade or tool */
  readonly each?: Each;
  readonly sided?: boolean;
  readonly caution?: string;
}
type SectionId = keyof Catalogue['section'];
interface SectionTemplate {
  readonly id: SectionId;
  readonly each?: Each;
  readonly steps: readonly Template[];
}

const FOLDING: readonly Construction[] = [
  'slipjoint',
  'locking-folder',
  'multi-tool',
  'automatic',
  'balisong',
];
const STRAIGHT: readonly Construction[] = ['fixed', 'bayonet'];
const SLABS: readonly Construction[] = FOLDING;
const LOCKING: readonly Construction[] = ['locking-folder', 'automatic', 'balisong'];
const SPRUNG: readonly Construction[] = ['slipjoint', 'multi-tool'];
const PIVOTED: readonly Construction[] = ['locking-folder', 'automatic', 'balisong'];

const EDGE_CAUTION = 'Edge away from you, the piece held fast.';
const SPRING_CAUTION = 'It opens by itself: nobody’s fingers in its way, glasses on.';

const TEMPLATES: readonly SectionTemplate[] = [
  {
    id: 'marks',
    steps: [
      {
        id: 'stamp',
        part: 'tang',
        ask: 'Read the stamp under the loupe: is it worn, polished away or struck over?',
        defects: ['wear', 'polished', 'engraved', 'rust'],
      },
      {
        id: 'owner',
        part: 'scales',
        for: SLABS,
        ask: 'Has an owner left a name, a number or an engraving?',
        defects: ['named', 'engraved'],
        sided: true,
      },
      {
        id: 'owner-grip',
        part: 'grip',
        for: STRAIGHT,
        ask: 'Has an owner or a unit left a name or a number that the issue did not have?',
        defects: ['named', 'engraved'],
        sided: true,
      },
    ],
  },
  {
    id: 'handle',
    steps: [
      {
        id: 'scales-cracks',
        part: 'scales',
        for: SLABS,
        ask: 'Tilt each slab to the light, look at every pin: a crack, a chip?',
        defects: ['crack', 'chip', 'repaired', 'missing'],
        sided: true,
      },
      {
        id: 'scales-fit',
        part: 'scales',
        for: SLABS,
        ask: 'Run a nail along the seams to bolster and liner: has it shrunk, swollen, lifted?',
        defects: ['shrinkage', 'gap', 'swelling', 'loose'],
        sided: true,
      },
      {
        id: 'scales-surface',
        part: 'scales',
        for: SLABS,
        ask: 'Look along the surface: scratches, dents, honest wear, or polished smooth by somebody?',
        defects: ['scratch', 'wear', 'dent', 'stain', 'polished', 'replaced'],
        sided: true,
      },
      {
        id: 'grip-cracks',
        part: 'grip',
        for: STRAIGHT,
        ask: 'Look at the grip around every rivet: a crack, a chip, a slab that lifts?',
        defects: ['crack', 'chip', 'gap', 'shrinkage', 'loose', 'repaired'],
        sided: true,
      },
      {
        id: 'grip-surface',
        part: 'grip',
        for: STRAIGHT,
        ask: 'Is its surface as it left the works: not sanded, not oiled dark, not another grip?',
        defects: ['wear', 'dent', 'scratch', 'polished', 'refinished', 'replaced'],
        sided: true,
      },
      {
        id: 'pins',
        part: 'pin',
        ask: 'Press on each pin and rivet: does one move, stand proud or look newer than the rest?',
        defects: ['loose', 'replaced', 'missing', 'rust'],
      },
      {
        id: 'bolsters',
        part: 'bolster',
        for: ['slipjoint', 'automatic'],
        ask: 'Bolsters and lanyard fitting: dented, scratched, polished, loose?',
        defects: ['dent', 'scratch', 'wear', 'polished', 'loose'],
        sided: true,
      },
      {
        id: 'shield',
        part: 'shield',
        for: ['slipjoint', 'automatic', 'multi-tool'],
        ask: 'Touch the shield: tight, level, its own?',
        defects: ['loose', 'missing', 'replaced', 'wear'],
      },
      {
        id: 'guard',
        part: 'guard',
        for: STRAIGHT,
        ask: 'Guard and ring: straight, tight, uncut?',
        defects: ['bend', 'loose', 'dent', 'rust', 'reground', 'replaced'],
      },
      {
        id: 'pommel',
        part: 'pommel',
        for: STRAIGHT,
        ask: 'Pommel, slot and catch: does the catch spring back?',
        defects: ['stiff', 'dent', 'rust', 'loose', 'missing'],
      },
    ],
  },
  {
    id: 'blade',
    each: 'blade',
    steps: [
      {
        id: 'sharpened',
        part: 'blade',
        each: 'blade',
        ask: 'Look along the edge with the loupe: the works’ own grind, or has a stone been on it?',
        defects: ['sharpened', 'reground'],
        caution: EDGE_CAUTION,
      },
      {
        id: 'fullness',
        part: 'blade',
        each: 'blade',
        ask: 'Hold it against the outline: how much of its height and length is gone, in percent?',
        defects: ['blade-loss'],
      },
      {
        id: 'edge',
        part: 'edge',
        each: 'blade',
        ask: 'Draw a fingernail along the edge: does it catch?',
        defects: ['nick', 'chip', 'dull'],
        caution: EDGE_CAUTION,
      },
      {
        id: 'tip',
        part: 'tip',
        each: 'blade',
        ask: 'Is the point where it was made: not broken, bent or ground back?',
        defects: ['chip', 'bend', 'reground', 'dull'],
        caution: EDGE_CAUTION,
      },
      {
        id: 'surface',
        part: 'blade',
        each: 'blade',
        ask: 'Turn both sides in the light: stains, spots of rust, pits, scratches, a cleaned shine?',
        defects: ['stain', 'patina', 'rust', 'pitting', 'scratch', 'polished'],
        sided: true,
      },
      {
        id: 'straight',
        part: 'blade',
        each: 'blade',
        ask: 'Sight along the spine: straight, and no crack at the tang or the nail pull?',
        defects: ['bend', 'crack', 'engraved', 'replaced'],
      },
    ],
  },
  {
    id: 'tools',
    steps: [
      {
        id: 'tool',
        part: 'tool',
        each: 'tool',
        for: ['multi-tool', 'slipjoint'],
        ask: 'Open it: whole, straight, its own?',
        defects: ['bend', 'chip', 'rust', 'loose', 'replaced', 'missing'],
      },
    ],
  },
  {
    id: 'finish',
    steps: [
      {
        id: 'finish-left',
        part: 'finish',
        for: ['locking-folder', 'fixed', 'bayonet', 'automatic', 'balisong'],
        ask: 'How much of the original finish is gone, in percent of the surface?',
        defects: ['finish-loss', 'refinished', 'polished', 'rust', 'pitting'],
      },
    ],
  },
  {
    id: 'action',
    steps: [
      {
        id: 'snap',
        part: 'spring',
        for: SPRUNG,
        each: 'blade',
        ask: 'Open it past the half stop and let it go, then close it: does it walk and talk?',
        defects: ['lazy-snap', 'weak-snap', 'stiff'],
        caution: EDGE_CAUTION,
      },
      {
        id: 'opening',
        part: 'opener',
        for: PIVOTED,
        ask: 'Open it as it is meant to be opened, five times: smooth each time?',
        defects: ['stiff', 'weak-snap', 'loose', 'missing', 'replaced'],
        caution: SPRING_CAUTION,
      },
    ],
  },
  {
    id: 'lock',
    steps: [
      {
        id: 'travel',
        part: 'lock',
        for: ['locking-folder', 'automatic'],
        ask: 'How far across the tang does the lock stand, in percent of its width?',
        defects: ['lock-travel', 'wear', 'replaced'],
      },
      {
        id: 'rock',
        part: 'lock',
        for: LOCKING,
        ask: 'Press lightly on the spine, edge to the wood: does anything move or let go?',
        defects: ['lock-rock', 'crack', 'loose'],
        caution: 'Never with a finger in the blade’s way.',
      },
    ],
  },
  {
    id: 'play',
    steps: [
      {
        id: 'play-side',
        part: 'blade',
        for: FOLDING,
        each: 'blade',
        ask: 'Hold the handle, move the tip from side to side: how much does it give, in mm?',
        defects: ['play-side'],
      },
      {
        id: 'play-vertical',
        part: 'blade',
        for: FOLDING,
        each: 'blade',
        ask: 'And up and down?',
        defects: ['play-vertical'],
      },
    ],
  },
  {
    id: 'centring',
    steps: [
      {
        id: 'centring',
        part: 'blade',
        for: FOLDING,
        each: 'blade',
        ask: 'Close it and look in from above: to which side does it lean, by how much, does it rub?',
        defects: ['off-centre', 'rubbing'],
        sided: true,
      },
    ],
  },
  {
    id: 'fittings',
    steps: [
      {
        id: 'clip',
        part: 'clip',
        for: ['locking-folder', 'automatic', 'balisong', 'multi-tool'],
        ask: 'Clip and its screws: its own, straight, holding?',
        defects: ['loose', 'bend', 'wear', 'replaced', 'missing'],
      },
      {
        id: 'pivot',
        part: 'pivot',
        for: PIVOTED,
        ask: 'Pivot and body screws: heads clean, none stripped, no thread glue?',
        defects: ['scratch', 'loose', 'replaced', 'rust'],
      },
    ],
  },
  {
    id: 'inside',
    steps: [
      {
        id: 'inside',
        part: 'liner',
        for: FOLDING,
        ask: 'Shine a light between the liners: dust, old oil, rust?',
        defects: ['residue', 'rust', 'bend', 'crack'],
      },
    ],
  },
  {
    id: 'carried',
    steps: [
      {
        id: 'scabbard',
        part: 'scabbard',
        for: ['bayonet'],
        ask: 'Scabbard: dents, rust, finish, locket and drag?',
        defects: ['dent', 'rust', 'finish-loss', 'bend', 'missing', 'replaced'],
        sided: true,
      },
      {
        id: 'frog',
        part: 'frog',
        for: ['bayonet'],
        ask: 'Frog: stitching, straps, cracks in the leather?',
        defects: ['crack', 'wear', 'loose', 'stain', 'missing'],
      },
      {
        id: 'sheath',
        part: 'sheath',
        for: ['fixed', 'multi-tool', 'balisong', 'locking-folder'],
        ask: 'Sheath or pouch: stitching, snaps, cuts, whose is it?',
        defects: ['wear', 'loose', 'crack', 'stain', 'replaced', 'missing'],
      },
    ],
  },
];

/**
 * @param counts how many blades and tools the piece has; parts that come in several are numbered from 1 when there
 * is more than one
 */
export function inspectionFor(
  construction: Construction,
  counts: Pick<Inspection, 'blades' | 'tools'>,
): InspectionSection[] {
  const numbers = (each: Each | undefined): (number | undefined)[] => {
    if (each === undefined) return [undefined];
    const n = each === 'blade' ? counts.blades : counts.tools;
    return n === 1 ? [undefined] : Array.from({ length: n }, (_, i) => i + 1);
  };
  return TEMPLATES.flatMap((section): InspectionSection[] =>
    numbers(section.each).flatMap((sectionNumber): InspectionSection[] => {
      const steps = section.steps
        .filter((t) => t.for === undefined || t.for.includes(construction))
        .flatMap((t) =>
          (section.each === undefined ? numbers(t.each) : [sectionNumber]).map((n): InspectionStep => {
            const suffix = n === undefined ? '' : `:${n}`;
            const which = n === undefined || section.each !== undefined ? '' : `${cardinal(t.each, n)}: `;
            return {
              id: t.id + suffix,
              part: t.part + suffix,
              ask: which + t.ask,
              defects: t.defects,
              sided: t.sided ?? false,
              caution: t.caution,
            };
          }),
        );
      const suffix = sectionNumber === undefined ? '' : `:${sectionNumber}`;
      const id = section.id + suffix;
      return steps.length > 0 ? [{ id, title: sectionInWords(id), steps }] : [];
    }),
  );
}

const cardinal = (each: Each | undefined, n: number) => `${each === 'tool' ? 'Tool' : 'Blade'} ${n}`;

/** A step that was looked at: findings there, or what was said of it; undefined while nobody looked. */
export function stepState(
  step: InspectionStep,
  inspection: Inspection,
  findings: readonly Finding[],
): 'found' | StepState | undefined {
  return findings.some((f) => belongsTo(f, step)) ? 'found' : inspection.steps[step.id];
}

/** A finding belongs to the step of its part and defect; `blade:1` and `blade` are the same on a piece with one. */
export function belongsTo(f: Finding, step: InspectionStep): boolean {
  if (!step.defects.includes(f.defect)) return false;
  if (f.part === step.part) return true;
  const [, number = '1'] = f.part.split(':');
  const [, asked = '1'] = step.part.split(':');
  return basePart(f.part) === basePart(step.part) && number === asked;
}

/** A section by its id: `Blade 2` of `blade:2`. */
export function sectionInWords(id: string, words = ENGLISH): string {
  const [name, number] = id.split(':');
  const title = words.say(`section.${name as SectionId}`);
  return number === undefined ? title : `${title} ${number}`;
}

/** What nobody looked at, section by section, for the report. */
export function notExamined(
  sections: readonly InspectionSection[],
  inspection: Inspection,
  findings: readonly Finding[],
): { id: string; section: string; steps: InspectionStep[] }[] {
  return sections.flatMap((section) => {
    const steps = section.steps.filter((step) => {
      const state = stepState(step, inspection, findings);
      return state === undefined || state === 'not-examined';
    });
    return steps.length > 0 ? [{ id: section.id, section: section.title, steps }] : [];
  });
}
