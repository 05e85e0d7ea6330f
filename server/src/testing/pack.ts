/** A small reference of the tests' own. */
export const testPack = {
  format: 'jutbank.reference/1',
  id: 'test-pack',
  title: 'Test pack',
  revision: '1',
  sources: [{ id: 'ledger', title: 'Works ledger', kind: 'factory-record', reliability: 0.95 }],
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', active: '1908/1994' }],
  features: [
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [
        { id: 'horn', label: 'Horn' },
        { id: 'fibre', label: 'Fibre' },
      ],
      swap: 'easy',
      effort: 'glance',
    },
    {
      id: 'lanyard',
      label: 'Lanyard',
      part: 'bolster',
      kind: 'category',
      values: [
        { id: 'ring', label: 'Ring' },
        { id: 'bar', label: 'Bar' },
      ],
      swap: 'hard',
      effort: 'glance',
    },
    { id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm', effort: 'gauge' },
  ],
  codes: [
    {
      id: 'ticks',
      maker: 'bh',
      kind: 'date',
      reads: [{ id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 }],
      rules: [{ year: { base: 1930, plus: 'ticks' } }],
    },
  ],
  marks: [
    {
      id: 'three-line',
      maker: 'bh',
      place: 'tang',
      lines: ['BRACKENHOLT', 'NORHAM'],
      window: '1919/1940',
      source: 'ledger',
      page: '41',
      codes: ['ticks'],
    },
  ],
  windows: [
    {
      id: 'w1',
      maker: 'bh',
      feature: 'lanyard',
      value: 'bar',
      window: '1934-09/1994',
      source: 'ledger',
      page: '44',
    },
  ],
  patterns: [
    {
      id: 'jack',
      maker: 'bh',
      name: 'Harbour jack',
      number: '62',
      construction: 'slipjoint',
      measures: { closed: { value: 105, tolerance: 1 } },
    },
  ],
  variants: [
    {
      id: 'first',
      pattern: 'jack',
      name: 'First form',
      kind: 'production',
      window: '1919/1934-08',
      made: { quantity: 80000, basis: 'documented' },
      features: { scales: ['horn'], lanyard: ['ring'] },
      marks: ['three-line'],
    },
    {
      id: 'second',
      pattern: 'jack',
      name: 'Second form',
      kind: 'service',
      window: '1934-09/1940',
      made: { quantity: 24000, basis: 'documented' },
      features: { scales: ['horn'], lanyard: ['bar'] },
      marks: ['three-line'],
      claims: [{ about: 'window', source: 'ledger', page: '41' }],
    },
  ],
};

export const intake = {
  title: 'Harbour jack',
  construction: 'slipjoint',
  sourceKind: 'fair',
  sourceName: 'stall by the slipway',
  sourcePlace: 'Norham blade fair',
  acquired: '2026-09-12',
  price: { amount: '58.00', currency: 'EUR' },
  sellerStatement: 'His grandfather’s.',
  cameWith: '',
  asFound: 'untouched',
};

export const csv = (rows: string[]): FormData => {
  const form = new FormData();
  form.set(
    'file',
    new Blob(
      [
        [
          'sale_date,price,currency,price_kind,venue,venue_kind,pattern,variant,condition_index',
          ...rows,
        ].join('\n'),
      ],
      { type: 'text/csv' },
    ),
    'sales.csv',
  );
  return form;
};
