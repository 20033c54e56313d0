/** The imports run one way: core ← contract ← server, app; a folder is entered by its index. */
const outside = (name) => ({ path: `^(${name})/` });

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: { path: '^core/' },
      to: outside('contract|server|app|demo|bench|e2e'),
    },
    {
      name: 'core-touches-no-system',
      severity: 'error',
      from: { path: '^core/src/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-knows-core-alone',
      severity: 'error',
      from: { path: '^contract/' },
      to: outside('server|app|demo|bench|e2e'),
    },
    {
      name: 'app-never-imports-server',
      severity: 'error',
      from: { path: '^app/' },
      to: outside('server|demo|bench|e2e'),
    },
    {
      name: 'server-never-imports-app-or-demo',
      severity: 'error',
      from: { path: '^server/src/' },
      to: outside('app|demo|bench|e2e'),
    },
    {
      name: 'folders-are-entered-by-their-index',
      severity: 'error',
      from: { path: '^(core/src|server/src|app)/([^/]+)/', pathNot: '\\.test\\.tsx?$|^app/(app|test|kit)/' },
      to: {
        path: '^(core/src|server/src|app)/([^/]+)/.+',
        pathNot: ['^$1/$2/', '/index\\.ts$', '^core/src/floor/arbitraries\\.ts$', '^server/src/platform/database/'],
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'dist|node_modules' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
};
