// from-folder -> what it may import (everything else in the repository is forbidden)
const CORE = {
  units: [],
  dsp: ['units'],
  theory: ['units'],
  guitar: ['units', 'theory'],
  mir: ['units', 'dsp', 'theory'],
  riff: ['units', 'theory', 'guitar'],
  formats: ['units', 'theory', 'guitar', 'riff'],
  synth: ['units', 'dsp', 'theory', 'guitar', 'riff'],
  // one level above hearing and fingering: both are needed for a tab
  analysis: ['units', 'theory', 'guitar', 'mir', 'riff'],
  check: ['units', 'dsp', 'theory', 'guitar', 'mir', 'riff'],
  practice: ['units', 'theory', 'guitar', 'riff'],
};
// practice may name mir's result types, so that comparing never pulls DSP into the main bundle
const TYPES_ONLY = { practice: ['type-only'] };
const forbidden = Object.entries(CORE).map(([f, ok]) => ({
  name: `core-${f}`,
  severity: 'error',
  from: { path: `^core/src/${f}/` },
  to: {
    pathNot: [`^core/src/(${[f, ...ok].join('|')})/`, 'node_modules'],
    path: '^(core|contract|server|web)/',
    ...(TYPES_ONLY[f] && { dependencyTypesNot: TYPES_ONLY[f] }),
  },
}));
forbidden.push(
  { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
  {
    name: 'core-no-node',
    severity: 'error',
    from: { path: '^core/src', pathNot: '\\.spec\\.ts$' },
    to: { dependencyTypes: ['core'] },
  },
  {
    name: 'core-no-npm',
    severity: 'error',
    from: { path: '^core/src', pathNot: '\\.spec\\.ts$' },
    to: {
      path: '^node_modules/',
      pathNot: '^node_modules/(fft\\.js|quickselect|tonal|@tonaljs|midi-file|fast-xml-parser|fflate)/',
    },
  },
  {
    name: 'fft-in-dsp',
    severity: 'error',
    from: { path: '^core/src/(?!dsp/)' },
    to: { path: 'node_modules/fft\\.js' },
  },
  {
    name: 'tonal-in-theory',
    severity: 'error',
    from: { path: '^core/src/(?!theory/)' },
    to: { path: 'node_modules/(tonal|@tonaljs)/' },
  },
  {
    name: 'contract',
    severity: 'error',
    from: { path: '^contract/' },
    to: { path: '^(core|server|web)/', dependencyTypesNot: ['type-only'] },
  },
  {
    name: 'contract-npm',
    severity: 'error',
    from: { path: '^contract/', pathNot: '\\.spec\\.ts$' },
    to: { path: '^node_modules/', pathNot: '^node_modules/zod/' },
  },
  { name: 'no-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  {
    name: 'e2e-contract-only',
    severity: 'error',
    from: { path: '^e2e/' },
    to: { path: '^(core|server|web|demo|bench)/' },
  },
  {
    name: 'demo-core-contract',
    severity: 'error',
    from: { path: '^demo/' },
    to: { path: '^(server|web|e2e|bench)/' },
  },
  {
    // The screen's bench drives the application as the end-to-end tests do.
    name: 'bench-checks-core',
    severity: 'error',
    from: { path: '^(bench/(?!screen/)|core/checks|training)/' },
    to: { path: '^(contract|server|web|e2e|demo)/' },
  },
  { name: 'server-not-web', severity: 'error', from: { path: '^server/' }, to: { path: '^web/' } },
  { name: 'web-not-server', severity: 'error', from: { path: '^web/' }, to: { path: '^server/' } },
  {
    name: 'features-apart',
    severity: 'error',
    from: { path: '^(server/src|web/src/app)/features/([^/]+)/' },
    to: { path: '^$1/features/', pathNot: '^$1/features/$2/' },
  },
  {
    name: 'core-by-door',
    severity: 'error',
    from: { path: '^core/src/([^/]+)/' },
    to: { path: '^core/src/', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
  },
  {
    name: 'ui-shared-no-state',
    severity: 'error',
    from: { path: '^web/src/app/shared/' },
    to: { path: '^web/src/app/(features|api|audio|workers|shell)/' },
  },
  {
    name: 'dsp-in-workers-only',
    severity: 'error',
    from: { path: '^web/src/app/(?!workers/)' },
    to: { path: '^core/src/(dsp|mir|check|synth|analysis)/', dependencyTypesNot: ['type-only'] },
  },
  {
    name: 'dsp-in-jobs-only',
    severity: 'error',
    from: { path: '^server/src/(?!jobs/)', pathNot: '\\.spec\\.ts$' },
    to: { path: '^core/src/(dsp|mir|check|synth|analysis)/', dependencyTypesNot: ['type-only'] },
  },
  {
    name: 'no-stray-workspace',
    severity: 'error',
    from: { path: '^(core|contract|server|web)/', pathNot: '\\.spec\\.ts$' },
    to: { path: '^(e2e|bench|demo|training)/' },
  },
  {
    name: 'db-behind-stores',
    severity: 'error',
    from: { path: '^server/src/features/', pathNot: '\\.(store|factory|spec)\\.ts$' },
    to: { path: '^server/src/db/' },
  },
  {
    name: 'no-tests-in-source',
    severity: 'error',
    from: { pathNot: '\\.spec\\.ts$|^(e2e|bench|demo|core/checks)/' },
    to: { path: '\\.spec\\.ts$|^(e2e|bench|demo|core/checks)/|\\.fake\\.ts$' },
  },
);
module.exports = {
  forbidden,
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(core|contract|server|web|e2e|demo|bench|training)/dist/' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      mainFields: ['module', 'main'],
      extensions: ['.ts', '.js', '.mjs', '.d.ts'],
    },
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
