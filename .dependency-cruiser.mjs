/** The arrows between floors and rooms (docs/architecture is one rule: arrows run down only). */
const floor = (name) => `^${name}/src`;

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
