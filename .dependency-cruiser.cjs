/** Import directions of docs/architecture.md: a lint rule, so that they hold. */
const only = (name, from, allowed, comment) => ({
  name,
  comment,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^src/', pathNot: allowed },
});

/** Folders of the core from the ground floor up: each imports only what stands before it, so there is no circle of folders. */
const FLOORS = [
  'numeric',
  'quantities',
  'plot',
  'air',
  'fluid',
  'electric',
  'vehicle',
  'metrology',
  'model',
  'contract',
  'signals',
  'twin',
  'procedure',
  'passage',
  'diagnosis',
  'families',
  'records',
  'shop',
  'practice',
  'planning',
  'documents',
  'workings',
  'scenarios',
];
const floors = FLOORS.map((floor, i) => ({
  name: `core-floor-${floor}`,
  comment: 'A folder of the core imports only folders below it.',
  severity: 'error',
  from: { path: `^src/core/${floor}/`, pathNot: '\\.test\\.tsx?$' },
  to: { path: `^src/core/(${FLOORS.slice(i + 1).join('|') || 'none'})/` },
}));

module.exports = {
  forbidden: [
    ...floors,
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    only('core-imports-core', '^src/core/', ['^src/core/'], 'The core knows nothing outside itself.'),
    {
      name: 'core-packages',
      comment: 'The core may use Zod; no other package, and nothing of Node.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.tsx?$' },
      to: {
        dependencyTypesNot: ['local', 'aliased', 'aliased-tsconfig', 'aliased-tsconfig-paths'],
        pathNot: ['^src/core/', 'node_modules/zod'],
      },
    },
    only(
      'ui-imports',
      '^src/ui/',
      ['^src/ui/', '^src/core/', '^src/workers/'],
      'Interface pieces use the core and workers.',
    ),
    only('server-imports', '^src/server/', ['^src/server/', '^src/core/', '^src/devices/', '^src/workers/']),
    only('workers-imports', '^src/workers/', ['^src/workers/', '^src/core/']),
    only('devices-imports', '^src/devices/', ['^src/devices/', '^src/core/']),
    {
      name: 'family-has-one-door',
      comment: 'A family folder is entered by its index only.',
      severity: 'error',
      from: { pathNot: ['^src/core/families/([^/]+)/', '\\.test\\.tsx?$'] },
      to: { path: '^src/core/families/[^/]+/', pathNot: '/index\\.ts$' },
    },
    {
      name: 'families-apart',
      severity: 'error',
      from: { path: '^src/core/families/([^/]+)/' },
      to: { path: '^src/core/families/([^/]+)/', pathNot: '^src/core/families/$1/' },
    },
    {
      name: 'workings-name-no-family',
      comment: 'A calculation that asks one family is the families’ own.',
      severity: 'error',
      from: { path: '^src/core/workings/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/core/families/', pathNot: '/(registry|bench-members|workings)\\.ts$' },
    },
    {
      name: 'diagnosis-knows-no-family',
      severity: 'error',
      from: { path: '^src/core/diagnosis/' },
      to: { path: '^src/core/families/' },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.next/' },
    tsPreCompilationDeps: true,
  },
};
