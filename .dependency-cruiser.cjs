/** The imports run one way: core ← contract ← server, app; a folder is entered by its index. */
/** Folders that are entered by their index: those of a group one by one. */
const room =
  'core/src/(?:deciding|walking|handling|reading)/[^/]+|core/src/(?:calendar|random|solver|planner)|server/src/(?:desk|floor|bench|dock|setup)/[^/]+|server/src/(?:platform|standins|stock|tables)|app/[^/]+';
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
      name: 'platform-imports-nothing-upwards',
      severity: 'error',
      from: { path: '^server/src/platform/' },
      to: { path: '^server/src/', pathNot: '^server/src/(platform|tables)/' },
    },
    {
      name: 'stand-ins-are-known-to-the-server-alone',
      severity: 'error',
      from: { path: '^server/src/(desk|floor|bench|dock|setup|stock|platform)/' },
      to: { path: '^server/src/standins/' },
    },
    {
      name: 'folders-are-entered-by-their-index',
      severity: 'error',
      from: { path: `^(${room})/`, pathNot: '\\.test\\.tsx?$|^app/(app|test|kit)/' },
      to: {
        path: `^(${room})/.+`,
        pathNot: [
          '^$1/',
          '/index\\.ts$',
          '^core/src/walking/floor/arbitraries\\.ts$',
          '^server/src/platform/database/',
        ],
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
