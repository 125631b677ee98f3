/**
 * The room rules of docs/architecture.md. A room of core imports only rooms above it in `rooms`
 * (`catalogue` may use `logic` and `design`); faces import only core's public doors.
 */
const rooms = [
  'finding',
  'logic',
  'design',
  'catalogue',
  'packing',
  'board',
  'electrical',
  'planning',
  'simulation',
  'inspection',
  'job',
  'workflow',
  'card',
];
const below = rooms.slice(0, -1).map((room, i) => ({
  name: `room-${room}-looks-up-only`,
  severity: 'error',
  from: { path: `^core/src/${room}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^core/src/(${rooms.slice(i + 1).join('|')}|testing)/` },
}));

/** Rooms of web, from the top: each imports only those below it; steps import no step. */
const steps = ['design', 'pack', 'board', 'inspect', 'power', 'card', 'shelf', 'datasheet', 'search'];
const webRooms = [['shell'], steps, ['kit'], ['base'], ['store', 'workers']];
const inWeb = (names) => `^web/src/(${names.join('|')})/`;
const webBelow = webRooms.slice(1).map((names, i) => ({
  name: `web-${names.length > 2 ? 'steps' : names.join('-')}-look-down-only`,
  severity: 'error',
  from: { path: inWeb(names), pathNot: '\\.test\\.tsx?$' },
  to: { path: inWeb([...webRooms.slice(0, i + 1).flat(), 'testing']) },
}));
const stepsApart = steps.map((step) => ({
  name: `web-${step}-imports-no-step`,
  severity: 'error',
  from: { path: inWeb([step]), pathNot: '\\.test\\.tsx?$' },
  to: { path: inWeb(steps.filter((s) => s !== step)) },
}));

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    ...below,
    ...webBelow,
    ...stepsApart,
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src' },
      to: {
        path: '^(web|server|cli)/|node_modules/(react|react-dom|react-router|@chakra-ui|@emotion|@codemirror|dexie|comlink|express|commander)(/|$)',
      },
    },
    {
      name: 'core-no-node-builtins',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'faces-use-the-public-doors-of-core',
      severity: 'error',
      from: { path: '^(web|server|cli)/src' },
      to: { path: '^core/src/', pathNot: '^core/src/(index|solver|job-reader|testing/mutate)\\.ts$' },
    },
    { name: 'faces-apart', severity: 'error', from: { path: '^web/' }, to: { path: '^(server|cli)/' } },
    { name: 'server-stands-alone', severity: 'error', from: { path: '^server/' }, to: { path: '^(web|cli)/' } },
    {
      name: 'cli-takes-pictures-alone-from-web',
      severity: 'error',
      from: { path: '^cli/' },
      to: { path: '^(server/|web/(?!src/picture\\.ts$))' },
    },
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-undeclared',
      severity: 'error',
      from: { path: '^[^/]+/src' },
      to: { dependencyTypes: ['npm-no-pkg', 'npm-unknown'] },
    },
    {
      name: 'not-resolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '^virtual:|\\?(url|worker|raw)$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|coverage)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    combinedDependencies: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
};
