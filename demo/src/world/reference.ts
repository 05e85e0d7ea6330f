/** The invented reference of the demo: makers, patterns, variants, marks, codes, windows, sources. */
import { withOutline } from './blades.ts';
import type {
  Code,
  DatedWindow,
  Feature,
  FeatureReading,
  Maker,
  Mark,
  Pattern,
  ReferencePack,
  Source,
  Variant,
} from '@jutbank/core/reference';
import { withDrawing } from './drawings.ts';
import { furtherMakers } from './furtherMakers.ts';

const sources: Source[] = [
  {
    id: 'works-ledger',
    title: 'Brackenholt works ledger',
    kind: 'factory-record',
    published: '1957',
    reliability: 0.95,
    note: 'Kept by the die room; three volumes survive.',
  },
  {
    id: 'trade-list-1937',
    title: 'Brackenholt trade list for 1937',
    kind: 'catalogue',
    published: '1937',
    reliability: 0.9,
  },
  {
    id: 'coastal-spec',
    title: 'Coastal Service stores specification 14',
    kind: 'specification',
    published: '1933',
    reliability: 0.92,
  },
  {
    id: 'arsenal-register',
    title: 'Vessmark arsenal register',
    kind: 'factory-record',
    published: '1949',
    reliability: 0.9,
  },
  {
    id: 'tidewrack-jubilee',
    title: 'Fifty years at the slip: a Tidewrack jubilee book',
    kind: 'book',
    published: '1996',
    reliability: 0.7,
    note: 'Written from memory; the photographs are better than the text.',
  },
  {
    id: 'tidewrack-catalogue-1961',
    title: 'Tidewrack chandlers’ catalogue, spring 1961',
    kind: 'catalogue',
    published: '1961',
    reliability: 0.88,
  },
  {
    id: 'corvane-notices',
    title: 'Corvane release notices',
    kind: 'advertisement',
    published: '2009/2024',
    reliability: 0.93,
  },
  {
    id: 'askelund-annual',
    title: 'Askelund & Dotter annual letter',
    kind: 'factory-record',
    published: '1987/2024',
    reliability: 0.97,
  },
  {
    id: 'quay-examined',
    title: 'Pieces examined at Hollin Quay',
    kind: 'examined-piece',
    published: '2019/..',
    reliability: 0.8,
  },
];

const makers: Maker[] = [
  {
    id: 'brackenholt',
    name: 'Brackenholt Cutlery',
    place: 'Norham Vale',
    active: '1908/1994',
    aliases: ['B·C·Co', 'Brackenholt & Sons'],
  },
  {
    id: 'vessmark',
    name: 'Vessmark State Arsenal',
    place: 'Vessmark',
    active: '1889/1958',
    aliases: ['VSA'],
  },
  { id: 'corvane', name: 'Corvane Knifeworks', place: 'Pell Harbour', active: '2006/..' },
  { id: 'tidewrack', name: 'Tidewrack Tool', place: 'Skerry Bay', active: '1946/2003' },
  { id: 'askelund', name: 'Askelund & Dotter', place: 'Lunde Fold', active: '1971/..' },
  { id: 'marlow-pike', name: 'Marlow Pike', place: 'Pike Wharf', active: '2012/..' },
];

const yes = [
  { id: 'yes', label: 'Yes' },
  { id: 'no', label: 'No' },
];
const folders = ['slipjoint', 'locking-folder', 'multi-tool'] as const;
const features: Feature[] = [
  {
    id: 'scale-material',
    label: 'Scales',
    part: 'scales',
    kind: 'category',
    values: [
      { id: 'horn', label: 'Horn', draws: { scales: 'horn' } },
      { id: 'fibre', label: 'Pressed fibre', draws: { scales: 'fibre' } },
      { id: 'bone', label: 'Bone', draws: { scales: 'jigged' } },
      { id: 'ebony', label: 'Ebony', draws: { scales: 'ebony' } },
      { id: 'celluloid', label: 'Celluloid', vapour: true, draws: { scales: 'celluloid' } },
      { id: 'steel', label: 'Steel', draws: { scales: 'brushed' } },
      { id: 'laminate', label: 'Laminate', draws: { scales: 'laminate' } },
      { id: 'carbon', label: 'Carbon weave', draws: { scales: 'carbon' } },
    ],
    swap: 'easy',
    effort: 'glance',
    constructions: ['slipjoint', 'locking-folder', 'multi-tool', 'automatic', 'balisong'],
    ask: 'What are the handle slabs made of? Warm a hidden spot and smell it if in doubt.',
  },
  {
    id: 'lanyard-fitting',
    label: 'Lanyard fitting',
    part: 'bolster',
    kind: 'category',
    values: [
      { id: 'ring', label: 'Ring' },
      { id: 'bar', label: 'Bar' },
      { id: 'none', label: 'None' },
    ],
    swap: 'hard',
    effort: 'glance',
    constructions: ['slipjoint', 'multi-tool'],
    ask: 'Look at the butt end: a loose ring or a fixed bar?',
  },
  {
    id: 'bolster-form',
    label: 'Bolsters',
    part: 'bolster',
    kind: 'category',
    values: [
      { id: 'plain', label: 'Plain' },
      { id: 'grooved', label: 'Grooved' },
      { id: 'ribbed', label: 'Ribbed' },
    ],
    swap: 'hard',
    effort: 'glance',
    constructions: ['slipjoint'],
    ask: 'Are the bolsters smooth, or do lines run across them?',
  },
  {
    id: 'shield',
    label: 'Shield',
    part: 'shield',
    kind: 'category',
    values: [
      { id: 'oval', label: 'Oval' },
      { id: 'anchor', label: 'Anchor' },
      { id: 'bar', label: 'Bar' },
      { id: 'none', label: 'None' },
    ],
    swap: 'moderate',
    effort: 'glance',
    constructions: ['slipjoint'],
    ask: 'Which badge is let into the front scale?',
  },
  {
    id: 'blade-count',
    label: 'Blades',
    part: 'blade',
    kind: 'count',
    swap: 'hard',
    effort: 'glance',
    constructions: [...folders],
    ask: 'How many blades and tools open?',
  },
  {
    id: 'nail-pull',
    label: 'Nail pull',
    part: 'blade',
    kind: 'category',
    values: [
      { id: 'long', label: 'Long pull' },
      { id: 'crescent', label: 'Crescent' },
    ],
    swap: 'hard',
    effort: 'open',
    constructions: ['slipjoint'],
    ask: 'Is the nail pull a long groove or a crescent?',
  },
  {
    id: 'pen-half-stop',
    label: 'Half stop on the pen blade',
    part: 'spring',
    kind: 'category',
    values: yes,
    swap: 'hard',
    effort: 'open',
    constructions: ['slipjoint'],
    ask: 'Open the pen blade slowly: does it rest half way?',
  },
  {
    id: 'liner-material',
    label: 'Liners',
    part: 'liner',
    kind: 'category',
    values: [
      { id: 'brass', label: 'Brass' },
      { id: 'steel', label: 'Steel' },
      { id: 'titanium', label: 'Titanium' },
    ],
    swap: 'never',
    effort: 'open',
    constructions: [...folders],
    ask: 'Look between the scales: yellow or grey?',
  },
  {
    id: 'property-mark',
    label: 'Property mark',
    part: 'tang',
    kind: 'category',
    values: [
      { id: 'crowned-wave', label: 'Crowned wave' },
      { id: 'none', label: 'None' },
    ],
    swap: 'never',
    effort: 'loupe',
    constructions: ['slipjoint', 'bayonet', 'fixed', 'automatic', 'balisong'],
    ask: 'Turn to the rear tang or ricasso: is a small crowned wave struck there?',
  },
  {
    id: 'blade-steel',
    label: 'Blade steel',
    part: 'blade',
    kind: 'category',
    values: [
      { id: 'carbon', label: 'Carbon' },
      { id: 'stainless', label: 'Stainless' },
      { id: 'powder', label: 'Powder steel' },
    ],
    swap: 'hard',
    effort: 'loupe',
    ask: 'Is there patina, or does the steel stay bright?',
  },
  {
    id: 'lock-type',
    label: 'Lock',
    part: 'lock',
    kind: 'category',
    values: [
      { id: 'liner', label: 'Liner lock' },
      { id: 'frame', label: 'Frame lock' },
      { id: 'back', label: 'Back lock' },
    ],
    swap: 'never',
    effort: 'open',
    constructions: ['locking-folder'],
    ask: 'What holds the blade open?',
  },
  {
    id: 'coating',
    label: 'Blade finish',
    part: 'finish',
    kind: 'category',
    values: [
      { id: 'satin', label: 'Satin' },
      { id: 'stonewash', label: 'Stonewashed' },
      { id: 'black', label: 'Black coat' },
      { id: 'blued', label: 'Blued' },
      { id: 'phosphated', label: 'Phosphated' },
      { id: 'bright', label: 'Bright' },
    ],
    swap: 'moderate',
    effort: 'glance',
    constructions: ['locking-folder', 'bayonet', 'fixed', 'automatic', 'balisong'],
    ask: 'Which surface has the blade?',
  },
  {
    id: 'clip-place',
    label: 'Clip',
    part: 'clip',
    kind: 'category',
    values: [
      { id: 'four-way', label: 'Four positions' },
      { id: 'two-way', label: 'Two positions' },
      { id: 'deep', label: 'Deep carry' },
    ],
    swap: 'easy',
    effort: 'glance',
    constructions: ['locking-folder'],
    ask: 'How many sets of clip holes are there?',
  },
  {
    id: 'spacer',
    label: 'Spacer',
    part: 'spacer',
    kind: 'category',
    values: [
      { id: 'stand-offs', label: 'Stand-offs' },
      { id: 'solid', label: 'Solid' },
      { id: 'half', label: 'Half' },
    ],
    swap: 'easy',
    effort: 'open',
    constructions: ['locking-folder'],
    ask: 'Look at the back: pillars, or a solid bar?',
  },
  {
    id: 'stud',
    label: 'Opener',
    part: 'opener',
    kind: 'category',
    values: [
      { id: 'stud', label: 'Stud' },
      { id: 'hole', label: 'Hole' },
      { id: 'flipper', label: 'Flipper' },
    ],
    swap: 'easy',
    effort: 'glance',
    constructions: ['locking-folder'],
    ask: 'What does the thumb push?',
  },
  {
    id: 'pivot-engraving',
    label: 'Pivot collar',
    part: 'pivot',
    kind: 'category',
    values: [
      { id: 'milled', label: 'Milled, sharp edges' },
      { id: 'cast', label: 'Cast, soft edges' },
    ],
    swap: 'moderate',
    effort: 'loupe',
    constructions: ['locking-folder'],
    ask: 'Are the pivot collar’s edges crisp, or soft as from a mould?',
  },
  {
    id: 'fuller',
    label: 'Fuller',
    part: 'blade',
    kind: 'category',
    values: [
      { id: 'full', label: 'Full length' },
      { id: 'short', label: 'Short' },
      { id: 'none', label: 'None' },
    ],
    swap: 'never',
    effort: 'glance',
    constructions: ['bayonet', 'fixed'],
    ask: 'How far does the groove run?',
  },
  {
    id: 'muzzle-ring',
    label: 'Muzzle ring',
    part: 'guard',
    kind: 'category',
    values: [
      { id: 'full', label: 'Full ring' },
      { id: 'half', label: 'Cut to half' },
      { id: 'none', label: 'None' },
    ],
    swap: 'hard',
    effort: 'glance',
    constructions: ['bayonet'],
    ask: 'Is the ring on the guard whole?',
  },
  {
    id: 'grip-material',
    label: 'Grip',
    part: 'grip',
    kind: 'category',
    values: [
      { id: 'walnut', label: 'Walnut' },
      { id: 'beech', label: 'Beech' },
      { id: 'resin', label: 'Pressed resin' },
      { id: 'curly-birch', label: 'Curly birch' },
      { id: 'bog-oak', label: 'Bog oak' },
      { id: 'reindeer', label: 'Antler' },
    ],
    swap: 'moderate',
    effort: 'glance',
    constructions: ['bayonet', 'fixed'],
    ask: 'What is the grip made of?',
  },
  {
    id: 'spike',
    label: 'Marlin spike',
    part: 'tool',
    kind: 'category',
    values: [
      { id: 'tapered', label: 'Tapered' },
      { id: 'stepped', label: 'Stepped' },
      { id: 'none', label: 'None' },
    ],
    swap: 'hard',
    effort: 'open',
    constructions: ['multi-tool'],
    ask: 'Does the spike narrow evenly or in steps?',
  },
  {
    id: 'shackle',
    label: 'Shackle',
    part: 'shackle',
    kind: 'category',
    values: [
      { id: 'bow', label: 'Bow' },
      { id: 'straight', label: 'Straight' },
    ],
    swap: 'moderate',
    effort: 'glance',
    constructions: ['multi-tool'],
    ask: 'Which form has the shackle?',
  },
  {
    id: 'closed-length',
    label: 'Closed length',
    part: 'scales',
    kind: 'measure',
    unit: 'mm',
    wear: 'none',
    swap: 'hard',
    effort: 'gauge',
    constructions: [...folders],
    ask: 'Measure over the bolsters, without ring or bar.',
  },
  {
    id: 'blade-length',
    label: 'Blade length',
    part: 'blade',
    kind: 'measure',
    unit: 'mm',
    wear: 'shrinks',
    swap: 'hard',
    effort: 'gauge',
    ask: 'Measure from the tip to where the handle begins.',
  },
  {
    id: 'weight',
    label: 'Weight',
    part: 'whole',
    kind: 'measure',
    unit: 'g',
    wear: 'none',
    swap: 'never',
    effort: 'gauge',
    ask: 'Weigh it without sheath or scabbard.',
  },
];

const codes: Code[] = [
  {
    id: 'bh-ticks',
    maker: 'brackenholt',
    kind: 'date',
    title: 'Tick marks',
    source: 'works-ledger',
    page: '88',
    reads: [
      { id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 },
      { id: 'row', label: 'Which row', type: 'choice', values: ['above-name', 'below-name', 'beside-name'] },
    ],
    rules: [
      { when: { row: 'above-name' }, year: { base: 1951, plus: 'ticks' } },
      { when: { row: 'below-name' }, year: { base: 1970, minus: 'ticks' } },
      { when: { row: 'beside-name' }, year: { base: 1971, plus: 'ticks' } },
    ],
  },
  {
    id: 'bh-pattern',
    maker: 'brackenholt',
    kind: 'pattern-number',
    title: 'Pattern stamp',
    source: 'trade-list-1937',
    page: '3',
    segments: [
      {
        id: 'handle',
        table: {
          '2': { feature: 'scale-material', value: 'ebony' },
          '3': { feature: 'scale-material', value: 'horn' },
          '5': { feature: 'scale-material', value: 'bone' },
          '7': { feature: 'scale-material', value: 'fibre' },
          '9': { feature: 'scale-material', value: 'celluloid' },
        },
      },
      { id: 'blades', digits: 1, feature: 'blade-count' },
      { id: 'pattern', digits: '2-3', pattern: true },
      {
        id: 'suffix',
        repeat: true,
        optional: true,
        table: {
          HS: { feature: 'pen-half-stop', value: 'yes' },
          S: { feature: 'blade-steel', value: 'stainless' },
        },
      },
    ],
  },
  {
    id: 'tw-letter',
    maker: 'tidewrack',
    kind: 'date',
    title: 'Year letter',
    source: 'tidewrack-catalogue-1961',
    page: '2',
    reads: [{ id: 'letter', label: 'Letter', type: 'choice', values: [...'ABCDEFGHJKLMNPRSTUVWXYZ'] }],
    rules: [{ year: { letters: 'ABCDEFGHJKLMNPRSTUVWXYZ', base: 1952, read: 'letter' } }],
  },
  {
    id: 'petrel-serial',
    maker: 'corvane',
    kind: 'serial',
    title: 'Running number',
    pattern: 'petrel',
    format: '^[A-Z]{2}-(\\d{4})$',
    number: 1,
    runFromVariant: true,
  },
  {
    id: 'askelund-number',
    maker: 'askelund',
    kind: 'serial',
    title: 'Number n of N',
    pattern: 'yearly',
    format: '^(\\d{1,4})(?:/\\d{1,4})?$',
    number: 1,
    runFromVariant: true,
  },
];

const marks: Mark[] = [
  {
    id: 'bh-first',
    maker: 'brackenholt',
    place: 'tang-front',
    lines: ['BRACKENHOLT', '& SONS'],
    lettering: 'upright',
    window: '1908/1918',
    source: 'works-ledger',
    page: '12',
  },
  {
    id: 'bh-three-line',
    maker: 'brackenholt',
    place: 'tang-front',
    lines: ['BRACKENHOLT', 'CUTLERY', 'NORHAM'],
    lettering: 'slanted-block',
    window: '1919/1940',
    source: 'works-ledger',
    page: '41',
  },
  {
    id: 'bh-short',
    maker: 'brackenholt',
    place: 'tang-front',
    lines: ['B·C·Co', 'NORHAM'],
    lettering: 'slanted-block',
    window: '1941/1950',
    source: 'works-ledger',
    page: '57',
  },
  {
    id: 'bh-two-line',
    maker: 'brackenholt',
    place: 'tang-front',
    lines: ['BRACKENHOLT', 'NORHAM VALE'],
    lettering: 'upright',
    window: '1951/1980',
    source: 'works-ledger',
    page: '90',
    codes: ['bh-ticks'],
  },
  {
    id: 'bh-arch',
    maker: 'brackenholt',
    place: 'tang-front',
    lines: ['BRACKENHOLT'],
    lettering: 'arched',
    window: '1981/1994',
    source: 'quay-examined',
    page: '7',
  },
  {
    id: 'vm-arsenal',
    maker: 'vessmark',
    place: 'ricasso',
    lines: ['VESSMARK', 'S·A'],
    lettering: 'upright',
    window: '1889/1932',
    source: 'arsenal-register',
    page: '3',
  },
  {
    id: 'vm-wheel',
    maker: 'vessmark',
    place: 'ricasso',
    lines: ['V·S·A', 'COASTAL'],
    lettering: 'upright',
    window: '1921/1958',
    source: 'arsenal-register',
    page: '61',
  },
  {
    id: 'vm-shortened',
    maker: 'vessmark',
    place: 'guard',
    lines: ['V·S·A', 'K'],
    lettering: 'small-block',
    window: '1934/1944',
    source: 'arsenal-register',
    page: '5',
    history: { what: 'conversion' },
  },
  {
    id: 'vm-rework',
    maker: 'vessmark',
    place: 'ricasso',
    lines: ['R', 'V·S·A'],
    lettering: 'small-block',
    window: '1946/1951',
    source: 'arsenal-register',
    page: '88',
    history: { what: 're-work', changes: ['coating', 'grip-material'] },
  },
  {
    id: 'vm-contractor',
    maker: 'vessmark',
    place: 'ricasso',
    lines: ['hd', 'P3'],
    lettering: 'small-block',
    window: '1940/1946',
    source: 'arsenal-register',
    page: '77',
  },
  {
    id: 'tw-anchor',
    maker: 'tidewrack',
    place: 'tang-front',
    lines: ['TIDEWRACK', 'SKERRY BAY'],
    lettering: 'upright',
    window: '1946/1962',
    source: 'tidewrack-jubilee',
    page: '14',
    codes: ['tw-letter'],
  },
  {
    id: 'tw-tool',
    maker: 'tidewrack',
    place: 'tang-front',
    lines: ['TIDEWRACK', 'TOOL'],
    lettering: 'slanted-block',
    window: '1963/2003',
    source: 'tidewrack-jubilee',
    page: '40',
    codes: ['tw-letter'],
  },
  {
    id: 'cv-bird',
    maker: 'corvane',
    place: 'blade',
    lines: ['CORVANE'],
    lettering: 'fine-sans',
    window: '2006/..',
    source: 'corvane-notices',
    page: '1',
  },
  {
    id: 'as-yearly',
    maker: 'askelund',
    place: 'blade',
    lines: ['ASKELUND', '& DOTTER'],
    lettering: 'script',
    window: '1971/..',
    source: 'askelund-annual',
    page: '1',
  },
  {
    id: 'mp-pike',
    maker: 'marlow-pike',
    place: 'blade',
    lines: ['M·PIKE'],
    lettering: 'fine-sans',
    window: '2012/..',
  },
];

let windowCount = 0;
const windows: DatedWindow[] = [];
function dated(
  scope: { maker?: string; pattern?: string },
  feature: string,
  value: FeatureReading,
  window: string,
  source: string,
  page: string,
  more: Partial<DatedWindow> = {},
): void {
  windowCount++;
  windows.push({
    id: `w${String(windowCount).padStart(3, '0')}-${feature}`,
    maker: scope.maker ?? null,
    pattern: scope.pattern ?? null,
    feature,
    value,
    window,
    source,
    page,
    ...more,
  });
}
const bh = { maker: 'brackenholt' };
dated(bh, 'lanyard-fitting', 'ring', '1908/1934-08', 'works-ledger', '44', {
  carryOver: 'P6M',
  note: 'Deck crews complained of the ring’s noise.',
});
dated(bh, 'lanyard-fitting', 'bar', '1934-09/1994', 'works-ledger', '44');
dated(bh, 'bolster-form', 'plain', '1908/1934-06', 'works-ledger', '45', { carryOver: 'P3M' });
dated(bh, 'bolster-form', 'grooved', '1934-07/1952', 'works-ledger', '45', { note: 'A new die came in.' });
dated(bh, 'bolster-form', 'ribbed', '1953/1994', 'works-ledger', '91');
dated(bh, 'scale-material', 'horn', '1908/1936-02', 'works-ledger', '49', {
  carryOver: 'P6M',
  note: 'The horn store burnt on 11 February 1936.',
});
dated(bh, 'scale-material', 'fibre', '1936-03/1958', 'works-ledger', '49');
dated(bh, 'scale-material', 'bone', '1908/1994', 'trade-list-1937', '9');
dated(bh, 'scale-material', 'celluloid', '1911/1971', 'trade-list-1937', '12');
dated(bh, 'pen-half-stop', 'yes', '1908/1935-12', 'works-ledger', '47', {
  carryOver: 'P6M',
  note: 'Dropped to save a spring.',
});
dated(bh, 'pen-half-stop', 'no', '1936/1994', 'works-ledger', '47');
dated(bh, 'liner-material', 'brass', '1908/1940', 'works-ledger', '52', { carryOver: 'P1Y' });
dated(bh, 'liner-material', 'steel', '1941/1948', 'works-ledger', '52');
dated(bh, 'liner-material', 'brass', '1949/1994', 'works-ledger', '60');
dated(bh, 'blade-steel', 'carbon', '1908/1994', 'works-ledger', '30');
dated(bh, 'blade-steel', 'stainless', '1955/1994', 'works-ledger', '92');
dated(bh, 'nail-pull', 'long', '1908/1948', 'works-ledger', '33');
dated(bh, 'nail-pull', 'crescent', '1938~/1994', 'works-ledger', '53');
dated(bh, 'shield', 'oval', '1908/1951', 'trade-list-1937', '4');
dated(bh, 'shield', 'bar', '1946/1994', 'works-ledger', '61');
dated(
  { pattern: 'harbour-jack', maker: 'brackenholt' },
  'shield',
  'anchor',
  '1926/1941',
  'coastal-spec',
  '6',
);
const vm = { maker: 'vessmark' };
dated(vm, 'grip-material', 'walnut', '1889/1941', 'arsenal-register', '8', { carryOver: 'P1Y' });
dated(vm, 'grip-material', 'beech', '1941/1945', 'arsenal-register', '70');
dated(vm, 'grip-material', 'resin', '1943/1958', 'arsenal-register', '74');
dated(vm, 'coating', 'bright', '1889/1912', 'arsenal-register', '9');
dated(vm, 'coating', 'blued', '1908/1942', 'arsenal-register', '20', { carryOver: 'P6M' });
dated(vm, 'coating', 'phosphated', '1942/1958', 'arsenal-register', '71');
dated(vm, 'fuller', 'full', '1889/1939', 'arsenal-register', '11');
dated(vm, 'fuller', 'short', '1934/1947', 'arsenal-register', '66');
dated(vm, 'fuller', 'none', '1944/1958', 'arsenal-register', '78');
dated(vm, 'muzzle-ring', 'full', '1889/1947', 'arsenal-register', '5');
dated(vm, 'muzzle-ring', 'half', '1943/1947', 'arsenal-register', '73');
dated({ pattern: 'deck-knife', maker: 'vessmark' }, 'fuller', 'none', '1921/1952', 'arsenal-register', '58');
const tw = { maker: 'tidewrack' };
dated(tw, 'shackle', 'bow', '1946/1959', 'tidewrack-jubilee', '17');
dated(tw, 'shackle', 'bow', '1946/1962', 'tidewrack-catalogue-1961', '5', {
  note: 'Still shown with the bow in spring 1961, against the jubilee book.',
});
dated(tw, 'shackle', 'straight', '1960/2003', 'tidewrack-jubilee', '17');
dated(tw, 'spike', 'tapered', '1946/1971', 'tidewrack-jubilee', '22');
dated(tw, 'spike', 'stepped', '1970/2003', 'tidewrack-jubilee', '22');
dated(tw, 'liner-material', 'brass', '1946/1956', 'tidewrack-jubilee', '15');
dated(tw, 'liner-material', 'steel', '1955/2003', 'tidewrack-jubilee', '15');
dated(tw, 'blade-steel', 'carbon', '1946/1968', 'tidewrack-catalogue-1961', '7', { carryOver: 'P1Y' });
dated(tw, 'blade-steel', 'stainless', '1966/2003', 'tidewrack-jubilee', '30');
dated(tw, 'scale-material', 'steel', '1946/2003', 'tidewrack-jubilee', '12');
const cv = { maker: 'corvane' };
dated(cv, 'spacer', 'stand-offs', '2006/2015', 'corvane-notices', '14');
dated(cv, 'spacer', 'half', '2014/2019', 'corvane-notices', '31');
dated(cv, 'spacer', 'solid', '2018/..', 'corvane-notices', '44');
dated(cv, 'clip-place', 'two-way', '2006/2012', 'corvane-notices', '3');
dated(cv, 'clip-place', 'four-way', '2012/..', 'corvane-notices', '19');
dated(cv, 'clip-place', 'deep', '2017/..', 'corvane-notices', '40');
dated(cv, 'stud', 'stud', '2006/2016', 'corvane-notices', '2');
dated(cv, 'stud', 'flipper', '2013/..', 'corvane-notices', '25');

const folder = (closed: number, blade: number, weight: number) => ({
  'closed-length': { value: closed, tolerance: 1.2 },
  'blade-length': { value: blade, tolerance: 1.2 },
  weight: { value: weight, tolerance: 6 },
});
const straight = (blade: number, weight: number) => ({
  'blade-length': { value: blade, tolerance: 2 },
  weight: { value: weight, tolerance: 14 },
});
const patterns: Pattern[] = [
  {
    id: 'harbour-jack',
    maker: 'brackenholt',
    name: 'Harbour jack',
    number: '62',
    construction: 'slipjoint',
    measures: folder(104.8, 76, 96),
  },
  {
    id: 'orchard-pruner',
    maker: 'brackenholt',
    name: 'Orchard pruner',
    number: '41',
    construction: 'slipjoint',
    measures: folder(111, 79, 104),
  },
  {
    id: 'three-hand-whittler',
    maker: 'brackenholt',
    name: 'Three-hand whittler',
    number: '118',
    construction: 'slipjoint',
    measures: folder(92, 66, 72),
  },
  {
    id: 'ferry-pen',
    maker: 'brackenholt',
    name: 'Ferry pen knife',
    number: '27',
    construction: 'slipjoint',
    measures: folder(83, 57, 41),
  },
  {
    id: 'drovers-stock',
    maker: 'brackenholt',
    name: 'Drover’s stock knife',
    number: '85',
    construction: 'slipjoint',
    measures: folder(98.5, 71, 84),
  },
  {
    id: 'pattern-1-long',
    maker: 'vessmark',
    name: 'Bayonet, Pattern 1 long',
    construction: 'bayonet',
    measures: straight(412, 560),
  },
  {
    id: 'pattern-1-short',
    maker: 'vessmark',
    name: 'Bayonet, Pattern 1 shortened',
    construction: 'bayonet',
    measures: straight(254, 430),
  },
  {
    id: 'pattern-3',
    maker: 'vessmark',
    name: 'Bayonet, Pattern 3',
    construction: 'bayonet',
    measures: straight(201, 372),
  },
  {
    id: 'deck-knife',
    maker: 'vessmark',
    name: 'Deck knife',
    construction: 'fixed',
    measures: straight(128, 188),
  },
  {
    id: 'petrel',
    maker: 'corvane',
    name: 'Petrel',
    construction: 'locking-folder',
    measures: folder(116, 84, 118),
  },
  {
    id: 'skua',
    maker: 'corvane',
    name: 'Skua',
    construction: 'locking-folder',
    measures: folder(101, 72, 84),
  },
  {
    id: 'rigger-two',
    maker: 'tidewrack',
    name: 'Rigger No. 2',
    construction: 'multi-tool',
    measures: folder(108, 74, 142),
  },
  {
    id: 'bosun-tool',
    maker: 'tidewrack',
    name: 'Bosun’s tool',
    construction: 'multi-tool',
    measures: folder(96, 62, 168),
  },
  {
    id: 'yearly',
    maker: 'askelund',
    name: 'Yearly knife',
    construction: 'fixed',
    measures: straight(96, 124),
  },
  {
    id: 'pike-petrel',
    maker: 'marlow-pike',
    name: 'Pike’s petrel',
    construction: 'locking-folder',
    measures: folder(116, 84, 121),
  },
];

const variants: Variant[] = [];
function variant(v: Variant): void {
  variants.push(v);
}

interface Form {
  name: string;
  window: string;
  features: Record<string, FeatureReading[]>;
  made?: number;
  marks: string[];
}
/** A succession: each form takes over what the one before had, and changes what is named. */
function succession(
  prefix: string,
  pattern: string,
  base: Record<string, FeatureReading[]>,
  forms: Form[],
): void {
  let now = base;
  forms.forEach((form, i) => {
    now = { ...now, ...form.features };
    variant({
      id: `${prefix}-${i + 1}`,
      pattern,
      name: form.name,
      kind: 'production',
      window: form.window,
      made: form.made === undefined ? { basis: 'unknown' } : { quantity: form.made, basis: 'documented' },
      features: now,
      marks: form.marks,
      claims: [
        {
          about: 'window',
          source: pattern === 'rigger-two' || pattern === 'bosun-tool' ? 'tidewrack-jubilee' : 'works-ledger',
          page: String(40 + i * 7),
        },
      ],
    });
  });
}

const jackBase = {
  'lanyard-fitting': ['ring'],
  'bolster-form': ['plain'],
  'scale-material': ['horn'],
  shield: ['oval'],
  'blade-count': [2],
  'nail-pull': ['long'],
  'pen-half-stop': ['yes'],
  'liner-material': ['brass'],
  'property-mark': ['none'],
  'blade-steel': ['carbon'],
};
succession('hj', 'harbour-jack', jackBase, [
  { name: 'Trade, first form', window: '1909/1918', features: {}, made: 41000, marks: ['bh-first'] },
  { name: 'Trade, second form', window: '1919/1934-08', features: {}, made: 88000, marks: ['bh-three-line'] },
  {
    name: 'Trade, fibre scales',
    window: '1936-03/1940',
    features: {
      'lanyard-fitting': ['bar'],
      'bolster-form': ['grooved'],
      'scale-material': ['fibre'],
      'pen-half-stop': ['no'],
    },
    made: 52000,
    marks: ['bh-three-line'],
  },
  {
    name: 'Trade, steel liners',
    window: '1941/1948',
    features: { 'liner-material': ['steel'], shield: ['none'] },
    made: 60000,
    marks: ['bh-short'],
  },
  {
    name: 'Trade, post-war',
    window: '1949/1958',
    features: { 'liner-material': ['brass'], shield: ['bar'], 'nail-pull': ['crescent'] },
    marks: ['bh-short', 'bh-two-line'],
  },
  {
    name: 'Trade, bone and stainless',
    window: '1959/1980',
    features: { 'scale-material': ['bone'], 'bolster-form': ['ribbed'], 'blade-steel': ['stainless'] },
    made: 74000,
    marks: ['bh-two-line'],
  },
  {
    name: 'Trade, last form',
    window: '1981/1994',
    features: { 'scale-material': ['bone', 'ebony'] },
    made: 30000,
    marks: ['bh-arch'],
  },
]);
const naval = { ...jackBase, shield: ['anchor'], 'property-mark': ['crowned-wave'] };
variant({
  id: 'hj-naval-1',
  pattern: 'harbour-jack',
  name: 'Service issue, first form',
  kind: 'service',
  window: '1926/1934-08',
  issuedTo: 'the Coastal Service',
  made: { quantity: 31000, basis: 'documented' },
  features: naval,
  marks: ['bh-three-line'],
  claims: [{ about: 'window', source: 'coastal-spec', page: '6' }],
});
variant({
  id: 'hj-naval-2',
  pattern: 'harbour-jack',
  name: 'Service issue, second form',
  kind: 'service',
  window: '1934-09/1936-02',
  issuedTo: 'the Coastal Service',
  made: { quantity: 24000, basis: 'documented', byYear: { '1934': 3000, '1935': 19000, '1936': 2000 } },
  features: {
    ...naval,
    'lanyard-fitting': ['bar'],
    'bolster-form': ['grooved'],
    'property-mark': ['crowned-wave', 'none'],
  },
  marks: ['bh-three-line'],
  claims: [{ about: 'window', source: 'works-ledger', page: '44' }],
});
variant({
  id: 'hj-naval-3',
  pattern: 'harbour-jack',
  name: 'Service issue, third form',
  kind: 'service',
  window: '1936-03/1941',
  issuedTo: 'the Coastal Service',
  made: { quantity: 66000, basis: 'documented' },
  features: {
    ...naval,
    'lanyard-fitting': ['bar'],
    'bolster-form': ['grooved'],
    'scale-material': ['fibre'],
    'pen-half-stop': ['no'],
  },
  marks: ['bh-three-line'],
  claims: [{ about: 'window', source: 'coastal-spec', page: '9' }],
});
variant({
  id: 'hj-twin',
  pattern: 'harbour-jack',
  name: 'Trade twin of the second form',
  kind: 'commercial-twin',
  twinOf: 'hj-naval-2',
  window: '1934-09/1936-02',
  made: { basis: 'unknown', quantity: 15000 },
  features: { ...naval, 'lanyard-fitting': ['bar'], 'bolster-form': ['grooved'], 'property-mark': ['none'] },
  marks: ['bh-three-line'],
});

const traits = (material: string, blades: number) => ({
  'lanyard-fitting': ['none'],
  'bolster-form': ['plain'],
  'scale-material': [material],
  shield: ['oval'],
  'blade-count': [blades],
  'nail-pull': ['long'],
  'liner-material': ['brass'],
  'property-mark': ['none'],
  'blade-steel': ['carbon'],
});
for (const [prefix, pattern, material, blades] of [
  ['op', 'orchard-pruner', 'ebony', 1],
  ['tw3', 'three-hand-whittler', 'bone', 3],
  ['fp', 'ferry-pen', 'celluloid', 2],
  ['ds', 'drovers-stock', 'bone', 3],
] as const)
  succession(prefix, pattern, traits(material, blades), [
    { name: 'First form', window: '1911/1918', features: {}, marks: ['bh-first'], made: 22000 },
    { name: 'Second form', window: '1919/1934', features: {}, marks: ['bh-three-line'], made: 64000 },
    {
      name: 'Grooved bolsters',
      window: '1934-07/1940',
      features: { 'bolster-form': ['grooved'] },
      marks: ['bh-three-line'],
      made: 38000,
    },
    {
      name: 'Steel liners',
      window: '1941/1948',
      features: { 'liner-material': ['steel'], shield: ['none'] },
      marks: ['bh-short'],
    },
    {
      name: 'Post-war',
      window: '1949/1970',
      features: {
        'liner-material': ['brass'],
        'bolster-form': ['ribbed'],
        shield: ['bar'],
        'nail-pull': ['crescent'],
      },
      marks: ['bh-two-line'],
      made: 51000,
    },
  ]);

const issuedBase = {
  'property-mark': ['crowned-wave'],
  coating: ['bright'],
  fuller: ['full'],
  'grip-material': ['walnut'],
  'blade-steel': ['carbon'],
};
const issued = (
  id: string,
  pattern: string,
  name: string,
  window: string,
  quantity: number,
  mark: string,
  changes: Record<string, FeatureReading[]>,
  convertedFrom: string[] = [],
) =>
  variant({
    id,
    pattern,
    name,
    kind: 'service',
    ...(convertedFrom.length > 0 ? { convertedFrom } : {}),
    window,
    issuedTo: 'the Coastal Service',
    made: { quantity, basis: 'documented' },
    features: {
      ...issuedBase,
      ...(pattern === 'deck-knife' ? {} : { 'muzzle-ring': ['full'] }),
      ...changes,
    },
    marks: convertedFrom.length > 0 ? [mark, 'vm-shortened'] : [mark],
    claims: [{ about: 'window', source: 'arsenal-register', page: '5' }],
  });
issued('p1l-bright', 'pattern-1-long', 'Bright finish', '1889/1907', 46000, 'vm-arsenal', {});
issued('p1l-blued', 'pattern-1-long', 'Blued', '1908/1932', 61000, 'vm-arsenal', { coating: ['blued'] });
issued(
  'p1s-arsenal',
  'pattern-1-short',
  'Arsenal shortening',
  '1934/1939',
  18000,
  'vm-wheel',
  { coating: ['blued'], fuller: ['short'] },
  ['p1l-blued', 'p1l-bright'],
);
issued(
  'p1s-late',
  'pattern-1-short',
  'Late shortening, phosphated',
  '1942/1944',
  9000,
  'vm-wheel',
  { coating: ['phosphated'], fuller: ['short'], 'grip-material': ['beech'] },
  ['p1l-blued'],
);
issued('p3-first', 'pattern-3', 'First contract', '1938/1941', 70000, 'vm-wheel', {
  coating: ['blued'],
  fuller: ['short'],
});
issued('p3-hd', 'pattern-3', 'Contractor hd', '1941/1943', 83000, 'vm-contractor', {
  coating: ['phosphated'],
  fuller: ['short'],
  'grip-material': ['beech'],
  'muzzle-ring': ['full'],
});
issued('p3-late', 'pattern-3', 'Resin grips', '1944/1947', 54000, 'vm-wheel', {
  coating: ['phosphated'],
  fuller: ['none'],
  'grip-material': ['resin'],
  'muzzle-ring': ['half'],
});
issued('dk-walnut', 'deck-knife', 'Walnut grip', '1921/1940', 12000, 'vm-wheel', {
  coating: ['blued'],
  fuller: ['none'],
});
issued('dk-resin', 'deck-knife', 'Resin grip', '1944/1952', 7000, 'vm-wheel', {
  coating: ['phosphated'],
  fuller: ['none'],
  'grip-material': ['resin'],
});

const petrelBase = {
  'scale-material': ['laminate'],
  'lock-type': ['liner'],
  'liner-material': ['steel'],
  coating: ['satin'],
  'clip-place': ['two-way'],
  spacer: ['stand-offs'],
  stud: ['stud'],
  'blade-count': [1],
  'blade-steel': ['stainless'],
  'pivot-engraving': ['milled'],
};
const petrel = (
  id: string,
  name: string,
  kind: Variant['kind'],
  window: string,
  quantity: number | undefined,
  changes: Record<string, FeatureReading[]>,
  more: Partial<Variant> = {},
) =>
  variant({
    id,
    pattern: 'petrel',
    name,
    kind,
    window,
    made: quantity === undefined ? { basis: 'unknown' } : { quantity, basis: 'documented' },
    features: { ...petrelBase, ...changes },
    marks: ['cv-bird'],
    claims: [{ about: 'made', source: 'corvane-notices', page: '20' }],
    ...more,
  });
petrel('pt-1', 'First series', 'production', '2008/2012', 21000, {});
petrel('pt-2', 'Second series', 'production', '2013/2017', 34000, {
  'clip-place': ['four-way'],
  stud: ['stud', 'flipper'],
});
petrel('pt-3', 'Third series', 'production', '2018/..', 40000, {
  'clip-place': ['deep'],
  spacer: ['solid'],
  stud: ['flipper'],
  'blade-steel': ['powder'],
  'lock-type': ['frame'],
  'liner-material': ['titanium'],
});
petrel('pt-proto', 'Prototype', 'prototype', '2007', 14, { coating: ['stonewash'], spacer: ['solid'] });
petrel(
  'pt-quay',
  'Quayside exclusive',
  'exclusive',
  '2014',
  600,
  { coating: ['black'], 'clip-place': ['four-way'] },
  { edition: { run: 600, firstNumber: 1, retailer: 'Lantern Row' } },
);
petrel(
  'pt-storm',
  'Storm run',
  'limited',
  '2016',
  1200,
  {
    'scale-material': ['carbon'],
    'blade-steel': ['powder'],
    'clip-place': ['four-way'],
    spacer: ['half'],
    coating: ['stonewash'],
  },
  { edition: { run: 1200, firstNumber: 1 } },
);
petrel(
  'pt-ember',
  'Ember run',
  'limited',
  '2019',
  300,
  {
    'scale-material': ['carbon'],
    'blade-steel': ['powder'],
    'clip-place': ['deep'],
    spacer: ['solid'],
    coating: ['black'],
    'lock-type': ['frame'],
    'liner-material': ['titanium'],
  },
  { edition: { run: 300, firstNumber: 1 } },
);
petrel('pt-reissue', 'Ten-year reissue', 'reissue', '2018', 2500, {
  'clip-place': ['two-way'],
  spacer: ['solid'],
});
petrel(
  'pt-storm-fake',
  'Counterfeit of the Storm run',
  'counterfeit',
  '2018/..',
  undefined,
  {
    'scale-material': ['carbon'],
    'blade-steel': ['stainless'],
    'clip-place': ['four-way'],
    spacer: ['half'],
    coating: ['stonewash'],
    'pivot-engraving': ['cast'],
  },
  {
    twinOf: 'pt-storm',
    tells: ['the pivot collar is cast: its edges are soft', 'the blade takes a spark like plain stainless'],
  },
);
variant({
  id: 'sk-1',
  pattern: 'skua',
  name: 'Standard',
  kind: 'production',
  window: '2011/2020',
  made: { quantity: 16000, basis: 'documented' },
  features: { ...petrelBase, 'clip-place': ['four-way'] },
  marks: ['cv-bird'],
});
variant({
  id: 'sk-2',
  pattern: 'skua',
  name: 'Stonewashed',
  kind: 'production',
  window: '2015/..',
  made: { quantity: 9000, basis: 'documented' },
  features: { ...petrelBase, 'clip-place': ['deep'], coating: ['stonewash'], stud: ['flipper'] },
  marks: ['cv-bird'],
});
variant({
  id: 'pp-licensed',
  pattern: 'pike-petrel',
  name: 'Licensed copy',
  kind: 'licensed-copy',
  window: '2015/2021',
  made: { quantity: 5000, basis: 'estimated' },
  features: { ...petrelBase, 'clip-place': ['four-way'], 'pivot-engraving': ['cast'] },
  marks: ['mp-pike'],
});
variant({
  id: 'pp-copy',
  pattern: 'pike-petrel',
  name: 'Unlicensed copy',
  kind: 'reproduction',
  twinOf: 'pt-2',
  window: '2019/2023',
  made: { quantity: 3000, basis: 'estimated' },
  features: {
    ...petrelBase,
    'clip-place': ['deep'],
    spacer: ['solid'],
    'pivot-engraving': ['cast'],
  },
  marks: ['mp-pike'],
  tells: ['M·PIKE stands on the blade, without the licence number beside it'],
});

const toolBase = {
  'scale-material': ['steel'],
  'lanyard-fitting': ['none'],
  'blade-count': [3],
  'liner-material': ['brass'],
  shackle: ['bow'],
  spike: ['tapered'],
  'blade-steel': ['carbon'],
};
for (const [prefix, pattern, blades] of [
  ['rt', 'rigger-two', 3],
  ['bt', 'bosun-tool', 5],
] as const)
  succession(prefix, pattern, { ...toolBase, 'blade-count': [blades] }, [
    { name: 'First form', window: '1947/1956', features: {}, marks: ['tw-anchor'], made: 14000 },
    {
      name: 'Steel liners',
      window: '1957/1960',
      features: { 'liner-material': ['steel'] },
      marks: ['tw-anchor'],
      made: 8000,
    },
    {
      name: 'Straight shackle',
      window: '1961/1969',
      features: { shackle: ['straight'] },
      marks: ['tw-anchor', 'tw-tool'],
      made: 26000,
    },
    {
      name: 'Stepped spike',
      window: '1970/1988',
      features: { spike: ['stepped'], 'blade-steel': ['stainless'] },
      marks: ['tw-tool'],
      made: 31000,
    },
  ]);

const woods = ['curly-birch', 'bog-oak', 'reindeer'];
for (let year = 1987; year <= 1998; year++) {
  const run = 300 + ((year * 37) % 5) * 50;
  variant({
    id: `yk-${year}`,
    pattern: 'yearly',
    name: `Year ${year}`,
    kind: 'limited',
    window: String(year),
    made: { quantity: run, basis: 'documented' },
    features: {
      'grip-material': [woods[year % 3] ?? 'curly-birch'],
      coating: [year % 2 === 0 ? 'satin' : 'bright'],
      fuller: [year % 4 === 0 ? 'short' : 'none'],
      'blade-steel': [year < 1993 ? 'carbon' : 'stainless'],
      'property-mark': ['none'],
    },
    marks: ['as-yearly'],
    edition: { run, firstNumber: 1, index: year - 1986 },
    claims: [{ about: 'made', source: 'askelund-annual', page: String(year) }],
  });
}

export const demoPack: ReferencePack = {
  format: 'jutbank.reference/1',
  id: 'quayside-core',
  title: 'Quayside reference',
  revision: '1',
  sources: [...sources, ...furtherMakers.sources],
  makers: [...makers, ...furtherMakers.makers],
  features,
  patterns: [...patterns, ...furtherMakers.patterns].map((pattern) => withDrawing(withOutline(pattern))),
  codes,
  marks: [...marks, ...furtherMakers.marks],
  windows: [...windows, ...furtherMakers.windows],
  variants: [...variants, ...furtherMakers.variants],
  stories: furtherMakers.stories,
};
