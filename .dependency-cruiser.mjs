/** The arrows between floors and rooms (docs/architecture is one rule: arrows run down only). */
const floor = (name) => `^${name}/src`;
/** Parts of the work that stand side by side; what two of them share goes down to the rooms below. */
const STAGES = '(intake|bench|condition|worth|provenance|listing|sale|fair|training)';
/** What lies above each room of the server and of the screens, from the ground up. */
const above = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from },
  to: { path: to },
});

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'unresolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true },
    },
    {
      name: 'core-is-pure',
      comment: 'core computes: no I/O, no interface, no database',
      severity: 'error',
      from: { path: floor('core'), pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(contract|server|web|standins|demo|e2e|scripts)/|node_modules/(express|mysql2|react|zod)/',
      },
    },
    {
      name: 'core-no-node',
      severity: 'error',
      from: { path: floor('core'), pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-rests-on-core',
      severity: 'error',
      from: { path: floor('contract') },
      to: { path: '^(server|web|standins|demo|e2e|scripts)/' },
    },
    {
      name: 'server-knows-no-screen',
      severity: 'error',
      from: { path: floor('server') },
      to: { path: '^(web|demo|e2e)/' },
    },
    {
      name: 'web-knows-no-server',
      severity: 'error',
      from: { path: floor('web') },
      to: { path: '^(server|standins|demo|e2e)/' },
    },
    {
      name: 'standins-stand-alone',
      severity: 'error',
      from: { path: floor('standins') },
      to: { path: '^(server|web|demo|e2e)/' },
    },
    {
      name: 'demo-goes-in-through-the-routes',
      severity: 'error',
      from: { path: floor('demo') },
      to: { path: '^(server|web|e2e)/' },
    },
    {
      name: 'stages-stand-side-by-side',
      comment: 'no stage imports another: what two share goes down',
      severity: 'error',
      from: { path: `^(server|web)/src/${STAGES}/` },
      to: { path: `^$1/src/${STAGES}/`, pathNot: '^$1/src/$2/' },
    },
    above(
      'pieces-below-the-stages',
      '^(server|web)/src/pieces/',
      `^(server|web)/src/(${STAGES}|series|app)/`,
    ),
    above('series-below-the-stages', '^(server|web)/src/series/', `^(server|web)/src/(${STAGES}|app)/`),
    above(
      'market-below-the-pieces',
      '^(server|web)/src/market/',
      `^(server|web)/src/(${STAGES}|series|pieces|app)/`,
    ),
    above(
      'reference-below-the-market',
      '^(server|web)/src/reference/',
      `^(server|web)/src/(${STAGES}|series|pieces|market|app)/`,
    ),
    above(
      'machinery-knows-no-room',
      '^server/src/(db|http|threads|clock|pdf|ledger|outside)/',
      `^server/src/(${STAGES}|series|pieces|market|reference|shop|rules|app)/`,
    ),
    above('web-ground-knows-no-room', '^web/src/base/', '^web/src/(?!base/|testing/)'),
    above('web-parts-know-no-room', '^web/src/parts/', '^web/src/(?!base/|parts/|testing/)'),
    above('roof-carries-nothing', '^(server|web)/src/(?!app/|main|testing/)', '^(server|web)/src/app/'),
    {
      name: 'rooms-talk-through-their-index',
      comment: 'a room is entered by its index.ts, or not at all',
      severity: 'error',
      from: { path: '^(core|server|contract)/src/([^/]+)/' },
      to: { path: '^$1/src/([^/]+)/', pathNot: ['^$1/src/$2/', '^$1/src/[^/]+/index\\.ts$'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
