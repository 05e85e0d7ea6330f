/**
 * Makers of the demo beside the well-told ones: each has a timeline of customs that all its patterns follow, so that
 * forms, dated windows and stamps agree with each other as they would in a real reference.
 */
import { random } from '@jutbank/core/random';
import { hullOf, intersectAll, isoOf, periodOf } from '@jutbank/core/dates';
import type {
  Construction,
  DatedWindow,
  FeatureReading,
  Maker,
  Mark,
  NominalMeasure,
  Pattern,
  Source,
  Story,
  Variant,
} from '@jutbank/core/reference';

type Shown = Record<string, FeatureReading>;
/** From a month on, what changes and how collectors call the forms that follow. */
interface Step {
  readonly from: string;
  readonly name: string;
  readonly shown: Shown;
  readonly carryOver?: string;
}
interface MakerPlan {
  readonly maker: Maker & { active: string };
  readonly source: string;
  readonly base: Shown;
  readonly steps: readonly Step[];
  readonly stamps: readonly { id: string; lines: string[]; window: string; lettering: string }[];
  readonly patterns: readonly {
    id: string;
    name: string;
    construction: Construction;
    made: string;
    own: Shown;
    measures: Record<string, NominalMeasure>;
    number?: string;
  }[];
  /** pieces a year of a usual pattern */
  readonly yearly: number;
  readonly kind?: Variant['kind'];
}

const folding = (closed: number): Record<string, NominalMeasure> => ({
  'closed-length': { value: closed, tolerance: 1.2 },
  'blade-length': { value: Math.round(closed * 7.3) / 10, tolerance: 1 },
  weight: { value: Math.round(closed * 0.8), tolerance: 5 },
});
const straight = (blade: number, weight: number): Record<string, NominalMeasure> => ({
  'blade-length': { value: blade, tolerance: 1.5 },
  weight: { value: weight, tolerance: 12 },
});

const sources: Source[] = [
  {
    id: 'pellworth-cards',
    title: 'Pellworth pattern cards',
    kind: 'factory-record',
    published: '1961',
    reliability: 0.93,
    note: 'One card to a pattern; those of the war years are missing.',
  },
  {
    id: 'contractors-file',
    title: 'Coastal Service contractors’ file',
    kind: 'specification',
    published: '1951',
    reliability: 0.9,
  },
  {
    id: 'saltgate-talk',
    title: 'A Saltgate fitter remembers',
    kind: 'hearsay',
    published: '2004',
    reliability: 0.55,
    note: 'Told at a fair table and written down the same evening.',
  },
];

const plans: readonly MakerPlan[] = [
  {
    maker: {
      id: 'pellworth',
      name: 'Pellworth Steel',
      place: 'Arrow Mere',
      active: '1922/1988',
      aliases: ['Pellworth Bros'],
    },
    source: 'pellworth-cards',
    base: {
      'bolster-form': 'plain',
      shield: 'none',
      'liner-material': 'brass',
      'nail-pull': 'long',
      'lanyard-fitting': 'none',
      'blade-steel': 'carbon',
      'property-mark': 'none',
    },
    steps: [
      { from: '1922', name: 'First form', shown: {} },
      { from: '1931-05', name: 'Ribbed bolsters', shown: { 'bolster-form': 'ribbed' }, carryOver: 'P6M' },
      { from: '1938', name: 'Barred shield', shown: { shield: 'bar' } },
      {
        from: '1942-03',
        name: 'Wartime',
        shown: { 'liner-material': 'steel', shield: 'none' },
        carryOver: 'P12M',
      },
      { from: '1950', name: 'Crescent pull', shown: { 'liner-material': 'brass', 'nail-pull': 'crescent' } },
      { from: '1958', name: 'Oval shield', shown: { shield: 'oval' } },
      { from: '1967-09', name: 'Stainless', shown: { 'blade-steel': 'stainless' }, carryOver: 'P18M' },
      { from: '1975-04', name: 'Plain bolsters again', shown: { 'bolster-form': 'plain' } },
    ],
    stamps: [
      { id: 'pw-bros', lines: ['PELLWORTH', 'BROS'], window: '1922/1937', lettering: 'upright-block' },
      { id: 'pw-mere', lines: ['PELLWORTH', 'ARROW MERE'], window: '1938/1960', lettering: 'slanted-block' },
      { id: 'pw-steel', lines: ['PELLWORTH STEEL'], window: '1961/1988', lettering: 'upright-block' },
    ],
    yearly: 5200,
    patterns: [
      ['ploughman', 'Ploughman', '1922/1970', 'bone', 1, 104],
      ['net-mender', 'Net mender', '1926/1988', 'ebony', 2, 92],
      ['cabin-jack', 'Cabin jack', '1930/1965', 'horn', 2, 98],
      ['clerk-pen', 'Clerk’s pen', '1924/1958', 'celluloid', 2, 76],
      ['estate-stock', 'Estate stock knife', '1933/1988', 'bone', 3, 100],
      ['grafter', 'Grafting knife', '1946/1980', 'ebony', 1, 108],
      ['tithe-pruner', 'Tithe pruner', '1928/1975', 'horn', 1, 112],
      ['ferrymans-jack', 'Ferryman’s jack', '1936/1988', 'bone', 2, 102],
      ['market-jack', 'Market jack', '1950/1988', 'laminate', 2, 95],
    ].map(([id, name, made, scales, blades, closed], i) => ({
      id: `pw-${String(id)}`,
      name: String(name),
      construction: 'slipjoint' as const,
      made: String(made),
      own: { 'scale-material': String(scales), 'blade-count': Number(blades) },
      measures: folding(Number(closed)),
      number: String(311 + i * 17),
    })),
  },
  {
    maker: {
      id: 'hallam-reach',
      name: 'Hallam Reach Forge',
      place: 'Hallam Reach',
      active: '1912/1931',
      aliases: ['HR'],
    },
    source: 'contractors-file',
    base: {
      'grip-material': 'walnut',
      'muzzle-ring': 'full',
      fuller: 'full',
      coating: 'bright',
      'property-mark': 'crowned-wave',
      'blade-steel': 'carbon',
    },
    steps: [
      { from: '1912', name: 'First contract', shown: {} },
      {
        from: '1916-02',
        name: 'Second contract, beech grips',
        shown: { 'grip-material': 'beech' },
        carryOver: 'P4M',
      },
      { from: '1918-06', name: 'Third contract, blued', shown: { coating: 'blued' } },
      { from: '1920-09', name: 'Phosphated trial', shown: { coating: 'phosphated' } },
      { from: '1924', name: 'Peace contract', shown: { 'grip-material': 'walnut', coating: 'bright' } },
      { from: '1927', name: 'Last contract, half ring', shown: { 'muzzle-ring': 'half' } },
    ],
    stamps: [
      { id: 'hr-code', lines: ['HR'], window: '1912/1923', lettering: 'upright-block' },
      { id: 'hr-full', lines: ['HALLAM', 'REACH'], window: '1924/1931', lettering: 'upright-block' },
    ],
    yearly: 9000,
    kind: 'service',
    patterns: [
      {
        id: 'hr-pattern-1',
        name: 'Pattern 1, long, by HR',
        construction: 'bayonet',
        made: '1912/1927',
        own: {},
        measures: straight(432, 520),
      },
      {
        id: 'hr-pattern-2',
        name: 'Pattern 2, trials, by HR',
        construction: 'bayonet',
        made: '1918/1931',
        own: { fuller: 'short' },
        measures: straight(305, 430),
      },
    ],
  },
  {
    maker: {
      id: 'ostrey',
      name: 'Ostrey Works',
      place: 'Ostrey Point',
      active: '1939/1953',
      aliases: ['OW'],
    },
    source: 'contractors-file',
    base: {
      'grip-material': 'beech',
      fuller: 'short',
      coating: 'blued',
      'property-mark': 'crowned-wave',
      'blade-steel': 'carbon',
    },
    steps: [
      { from: '1939', name: 'First batch', shown: {} },
      { from: '1941-08', name: 'Phosphated', shown: { coating: 'phosphated' }, carryOver: 'P6M' },
      { from: '1943-04', name: 'Resin grips', shown: { 'grip-material': 'resin' } },
      { from: '1945', name: 'No fuller', shown: { fuller: 'none' } },
      { from: '1946-10', name: 'Bright again', shown: { coating: 'bright' } },
      { from: '1948', name: 'Re-issue batch', shown: { 'grip-material': 'beech' } },
    ],
    stamps: [
      { id: 'ow-code', lines: ['OW'], window: '1939/1944', lettering: 'upright-block' },
      { id: 'ow-anchor', lines: ['OW', 'C.S.'], window: '1945/1953', lettering: 'upright-block' },
    ],
    yearly: 14_000,
    kind: 'service',
    patterns: [
      {
        id: 'ow-pattern-3',
        name: 'Pattern 3, by OW',
        construction: 'bayonet',
        made: '1939/1951',
        own: { 'muzzle-ring': 'half' },
        measures: straight(203, 340),
      },
      {
        id: 'ow-boarding',
        name: 'Boarding knife',
        construction: 'fixed',
        made: '1941/1953',
        own: {},
        measures: straight(178, 290),
      },
      {
        id: 'ow-survival',
        name: 'Raft knife',
        construction: 'fixed',
        made: '1943/1953',
        own: {},
        measures: straight(127, 210),
      },
    ],
  },
  {
    maker: { id: 'kelm', name: 'Kelm & Daughters', place: 'Vessmark', active: '1934/1961', aliases: ['KD'] },
    source: 'contractors-file',
    base: {
      'grip-material': 'walnut',
      fuller: 'none',
      coating: 'bright',
      'property-mark': 'none',
      'blade-steel': 'carbon',
    },
    steps: [
      { from: '1934', name: 'First form', shown: {} },
      { from: '1936-02', name: 'Beech grip', shown: { 'grip-material': 'beech' } },
      {
        from: '1938-10',
        name: 'Service marked',
        shown: { 'property-mark': 'crowned-wave' },
        carryOver: 'P3M',
      },
      { from: '1942', name: 'Phosphated', shown: { coating: 'phosphated' } },
      {
        from: '1946-05',
        name: 'Released to the trade',
        shown: { 'property-mark': 'none', coating: 'satin' },
      },
      { from: '1953', name: 'Stainless', shown: { 'blade-steel': 'stainless' }, carryOver: 'P12M' },
      { from: '1955', name: 'Bright blade', shown: { coating: 'bright' } },
      { from: '1957', name: 'Resin grip', shown: { 'grip-material': 'resin' } },
    ],
    stamps: [
      { id: 'kd-oval', lines: ['KELM', '& DAUGHTERS'], window: '1934/1941', lettering: 'arched' },
      { id: 'kd-code', lines: ['KD'], window: '1942/1945', lettering: 'upright-block' },
      { id: 'kd-late', lines: ['KELM', 'VESSMARK'], window: '1946/1961', lettering: 'slanted-block' },
    ],
    yearly: 3800,
    patterns: [
      {
        id: 'kd-deck',
        name: 'Deck knife, by Kelm',
        construction: 'fixed',
        made: '1934/1961',
        own: {},
        measures: straight(114, 165),
      },
      {
        id: 'kd-splicer',
        name: 'Splicer',
        construction: 'fixed',
        made: '1936/1957',
        own: { fuller: 'short' },
        measures: straight(98, 140),
      },
      {
        id: 'kd-gutting',
        name: 'Gutting knife',
        construction: 'fixed',
        made: '1946/1961',
        own: {},
        measures: straight(133, 150),
      },
    ],
  },
  {
    maker: { id: 'lindqvane', name: 'Lindqvane Handwork', place: 'Lunde Fold', active: '1996/..' },
    source: 'quay-examined',
    base: { coating: 'satin', 'blade-steel': 'stainless', 'property-mark': 'none' },
    steps: [
      { from: '1996', name: 'First form', shown: {} },
      { from: '2001-06', name: 'Stonewashed', shown: { coating: 'stonewash' }, carryOver: 'P6M' },
      { from: '2007', name: 'Powder steel', shown: { 'blade-steel': 'powder' } },
      { from: '2010', name: 'Bright', shown: { coating: 'bright' } },
      { from: '2013-03', name: 'Black', shown: { coating: 'black' } },
      { from: '2016-09', name: 'Stainless again', shown: { 'blade-steel': 'stainless' } },
      { from: '2019', name: 'Satin again', shown: { coating: 'satin' }, carryOver: 'P9M' },
    ],
    stamps: [
      { id: 'lq-hand', lines: ['lindqvane'], window: '1996/2012', lettering: 'script' },
      { id: 'lq-block', lines: ['LINDQVANE', 'HANDWORK'], window: '2013/2026', lettering: 'upright-block' },
    ],
    yearly: 420,
    patterns: [
      {
        id: 'lq-forest',
        name: 'Forest knife',
        construction: 'fixed',
        made: '1996/2024',
        own: { 'grip-material': 'curly-birch', fuller: 'none' },
        measures: straight(102, 130),
      },
      {
        id: 'lq-ice',
        name: 'Ice knife',
        construction: 'fixed',
        made: '1999/2018',
        own: { 'grip-material': 'reindeer', fuller: 'short' },
        measures: straight(88, 118),
      },
      {
        id: 'lq-swing',
        name: 'Swing',
        construction: 'balisong',
        made: '2002/2021',
        own: {},
        measures: { 'blade-length': { value: 96, tolerance: 1 }, weight: { value: 138, tolerance: 5 } },
      },
      {
        id: 'lq-spark',
        name: 'Spark',
        construction: 'automatic',
        made: '2005/2024',
        own: {},
        measures: { 'blade-length': { value: 84, tolerance: 1 }, weight: { value: 112, tolerance: 5 } },
      },
    ],
  },
  {
    maker: { id: 'saltgate', name: 'Saltgate Tool', place: 'Skerry Bay', active: '1958/2011' },
    source: 'saltgate-talk',
    base: {
      'lanyard-fitting': 'ring',
      'liner-material': 'brass',
      'blade-steel': 'carbon',
      shackle: 'bow',
      spike: 'tapered',
      'scale-material': 'steel',
    },
    steps: [
      { from: '1958', name: 'First form', shown: {} },
      { from: '1964', name: 'Straight shackle', shown: { shackle: 'straight' }, carryOver: 'P12M' },
      { from: '1971', name: 'Stainless', shown: { 'blade-steel': 'stainless' } },
      { from: '1979', name: 'Stepped spike', shown: { spike: 'stepped' }, carryOver: 'P6M' },
      { from: '1984', name: 'Lanyard bar', shown: { 'lanyard-fitting': 'bar' } },
      { from: '1988', name: 'Steel liners', shown: { 'liner-material': 'steel' } },
      { from: '1993-05', name: 'Carbon scales', shown: { 'scale-material': 'carbon' } },
      { from: '1999', name: 'Laminate scales', shown: { 'scale-material': 'laminate' } },
    ],
    stamps: [
      { id: 'sg-gate', lines: ['SALTGATE', 'SKERRY BAY'], window: '1958/1978', lettering: 'slanted-block' },
      { id: 'sg-tool', lines: ['SALTGATE TOOL'], window: '1979/2011', lettering: 'upright-block' },
    ],
    yearly: 6100,
    patterns: [
      {
        id: 'sg-yard',
        name: 'Yard tool',
        construction: 'multi-tool',
        made: '1958/1999',
        own: { 'blade-count': 3 },
        measures: folding(110),
      },
      {
        id: 'sg-crew',
        name: 'Crew tool',
        construction: 'multi-tool',
        made: '1962/2011',
        own: { 'blade-count': 2 },
        measures: folding(102),
      },
      {
        id: 'sg-pilot',
        name: 'Pilot tool',
        construction: 'multi-tool',
        made: '1969/2005',
        own: { 'blade-count': 4 },
        measures: folding(96),
      },
      {
        id: 'sg-skiff',
        name: 'Skiff tool',
        construction: 'multi-tool',
        made: '1975/2011',
        own: { 'blade-count': 1 },
        measures: folding(84),
      },
    ],
  },
];

const stories: Story[] = [
  {
    id: 'horn-store-fire',
    told: 'Brackenholt went over to pressed fibre because horn had become too dear.',
    verdict: 'refuted',
    maker: 'brackenholt',
    because: 'The horn store burnt on 11 February 1936; fibre stands in the ledger from March.',
    source: 'works-ledger',
    page: '49',
  },
  {
    id: 'deck-crews-ring',
    told: 'The lanyard bar came because deck crews complained that the ring rang on steel.',
    verdict: 'supported',
    pattern: 'harbour-jack',
    because: 'The specification asks for “a fitting that is silent”.',
    source: 'coastal-spec',
    page: '9',
  },
  {
    id: 'die-room-initials',
    told: 'A small “T” on the rear tang is said to be the die cutter’s.',
    verdict: 'open',
    maker: 'brackenholt',
    because: 'Seen on four Harbour jacks of 1935 and on no other pattern.',
    source: 'quay-examined',
    page: '31',
  },
  {
    id: 'saltgate-shackle',
    told: 'Straight shackles were a special order of the ferry line.',
    verdict: 'open',
    maker: 'saltgate',
    source: 'saltgate-talk',
    page: '3',
  },
];

const luck = random(1937);
const iso = (day: number) => isoOf(day as Parameters<typeof isoOf>[0]).slice(0, 7);
const spanOf = (text: string) => {
  const hull = hullOf(periodOf(text).strict);
  if (!hull) throw new Error(`empty period ${text}`);
  return hull;
};

/** The period in which a step held: until the next one began. */
const stepWindow = (plan: MakerPlan, i: number): string => {
  const next = plan.steps[i + 1]?.from;
  const end = next === undefined ? plan.maker.active.split('/')[1] : iso(spanOf(next).from - 1);
  return `${plan.steps[i]?.from ?? ''}/${end ?? '..'}`;
};

function windowsOf(plan: MakerPlan): DatedWindow[] {
  const found: DatedWindow[] = [];
  // what never changed is dated as well: it held as long as the maker worked
  for (const feature of Object.keys(plan.base)) {
    let value = plan.base[feature];
    let from = plan.maker.active.split('/')[0] ?? '';
    const close = (end: string, carryOver: string | undefined) => {
      if (value === undefined) return;
      found.push({
        id: `${plan.maker.id}-${feature}-${found.length + 1}`,
        maker: plan.maker.id,
        feature,
        value,
        window: `${from}/${end}`,
        source: plan.source,
        page: String(12 + found.length * 3),
        ...(carryOver === undefined ? {} : { carryOver }),
      });
    };
    for (const step of plan.steps) {
      const next = step.shown[feature];
      if (next === undefined || next === value) continue;
      close(iso(spanOf(step.from).from - 1), step.carryOver);
      value = next;
      from = step.from;
    }
    close(plan.maker.active.split('/')[1] ?? '..', undefined);
  }
  for (const pattern of plan.patterns)
    for (const [feature, value] of Object.entries(pattern.own).slice(0, 2))
      found.push({
        id: `${pattern.id}-${feature}`,
        maker: plan.maker.id,
        pattern: pattern.id,
        feature,
        value,
        window: pattern.made,
        source: plan.source,
        page: String(60 + found.length),
      });
  return found;
}

function variantsOf(plan: MakerPlan): Variant[] {
  return plan.patterns.flatMap((pattern) => {
    const popularity = Math.exp(0.6 * luck.normal());
    let shown: Shown = { ...plan.base, ...pattern.own };
    return plan.steps.flatMap((step, i): Variant[] => {
      shown = { ...shown, ...step.shown, ...pattern.own };
      const both = hullOf(intersectAll(periodOf(stepWindow(plan, i)).strict, periodOf(pattern.made).strict));
      if (!both) return [];
      const years = (both.to - both.from + 1) / 365.25;
      const quantity = Math.round((plan.yearly * popularity * years * luck.between(0.8, 1.2)) / 100) * 100;
      const known = luck.yes(0.7) && quantity > 0;
      const window = `${iso(both.from)}/${iso(both.to)}`;
      return [
        {
          id: `${pattern.id}-${i + 1}`,
          pattern: pattern.id,
          name: step.name,
          kind: plan.kind ?? 'production',
          window,
          ...(plan.kind === 'service' ? { issuedTo: 'the Coastal Service' } : {}),
          made: known
            ? { quantity, basis: luck.yes(0.6) ? 'documented' : 'estimated' }
            : { basis: 'unknown' },
          features: Object.fromEntries(Object.entries(shown).map(([f, v]) => [f, [v]])),
          marks: plan.stamps
            .filter((s) => intersectAll(periodOf(s.window).strict, periodOf(window).strict).length > 0)
            .map((s) => s.id),
          claims: [{ about: 'window', source: plan.source, page: String(20 + i * 4) }],
        },
      ];
    });
  });
}

export const furtherMakers = {
  sources,
  stories,
  makers: plans.map((p) => p.maker),
  patterns: plans.flatMap((plan): Pattern[] =>
    plan.patterns.map(({ id, name, construction, measures, number }) => ({
      id,
      maker: plan.maker.id,
      name,
      construction,
      measures,
      ...(number === undefined ? {} : { number }),
    })),
  ),
  marks: plans.flatMap((plan): Mark[] =>
    plan.stamps.map((s) => ({
      ...s,
      maker: plan.maker.id,
      place: plan.patterns[0]?.construction === 'bayonet' ? 'ricasso' : 'tang-front',
      source: plan.source,
      page: '4',
    })),
  ),
  windows: plans.flatMap(windowsOf),
  variants: plans.flatMap(variantsOf),
};
