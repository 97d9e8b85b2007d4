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
  // one level above hearing: which tunings and voicings could have played what was heard
  analysis: ['units', 'theory', 'guitar', 'mir'],
  // from heard to written, without any signal processing
  draft: ['units', 'theory', 'guitar', 'riff'],
  // how a song lies on paper, without drawing it
  sheet: ['units', 'theory', 'guitar', 'riff'],
  // the parts of a band: how loud each is, and how they are stored
  parts: ['units'],
  // a band taken apart into them
  separation: ['units', 'dsp', 'parts'],
  playback: ['units', 'dsp', 'mir', 'riff', 'synth', 'parts'],
  // recordings of one song laid along each other
  alignment: ['units', 'dsp'],
  check: ['units', 'dsp', 'theory', 'guitar', 'mir', 'riff'],
  practice: ['units', 'theory', 'guitar', 'riff'],
  // a player judged while playing, and one who is not there
  live: ['units', 'dsp', 'riff', 'synth', 'check', 'mir', 'practice'],
};
// These may name the result types of others, so that comparing never pulls signal processing into the main bundle.
const TYPES_ONLY = { practice: ['mir', 'check'], draft: ['mir', 'analysis'] };
const forbidden = Object.entries(CORE).map(([f, ok]) => ({
  name: `core-${f}`,
  severity: 'error',
  from: { path: `^core/src/${f}/` },
  to: {
    pathNot: [
      `^core/src/(${[f, ...ok, ...(TYPES_ONLY[f] ?? [])].join('|')})/`,
      'node_modules',
      '/test-[a-z-]+\\.ts$',
    ],
    path: '^(core|contract|server|web)/',
  },
}));
for (const [f, types] of Object.entries(TYPES_ONLY)) {
  forbidden.push({
    name: `core-${f}-types-only`,
    severity: 'error',
    from: { path: `^core/src/${f}/` },
    to: { path: `^core/src/(${types.join('|')})/`, dependencyTypesNot: ['type-only'] },
  });
}
// The hearing is a pipeline: a step knows the words that all share (types, what is confirmed) and the steps named here.
const HEARING = {
  net: [],
  onsets: [],
  strokes: ['net', 'onsets'],
  chords: ['net'],
  meter: ['net', 'onsets'],
  form: ['net', 'onsets'],
};
for (const [f, ok] of Object.entries(HEARING)) {
  forbidden.push({
    name: `mir-${f}`,
    severity: 'error',
    from: { path: `^core/src/mir/${f}/`, pathNot: '\\.spec\\.ts$|/test-[a-z-]+\\.ts$' },
    to: {
      path: '^core/src/mir/',
      pathNot: ['^core/src/mir/(types|confirmed)\\.ts$', `^core/src/mir/(${[f, ...ok].join('|')})/`],
    },
  });
}
// On the page: recording and open song know no transport, features reach into no frame.
const PAGE = {
  recording: ['api', 'shared'],
  'open-song': ['api', 'shared', 'recording'],
  transport: ['shared', 'state', 'open-song', 'recording'],
  // How written strums are drawn, wherever they are.
  tab: ['shared'],
  // The guitar on its way in.
  input: ['api', 'shared', 'transport'],
  features: ['input', 'api', 'shared', 'state', 'open-song', 'recording', 'transport', 'tab'],
  'song-frame': ['api', 'shared', 'state', 'open-song', 'recording', 'transport'],
};
for (const [f, ok] of Object.entries(PAGE)) {
  forbidden.push({
    name: `web-${f}`,
    severity: 'error',
    from: { path: `^web/src/app/${f}/` },
    to: { path: '^web/src/app/', pathNot: `^web/src/app/(${[f, ...ok].join('|')})/` },
  });
}
forbidden.push(
  { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
  {
    // Folders of the core, of the hearing and of the page, not only files. The index of a folder is its door, and counts as it.
    name: 'no-circle-of-folders',
    severity: 'error',
    scope: 'folder',
    // Slices of the state listen to each other's events.
    from: { path: '^(core/src|contract/src|web/src/app)', pathNot: '^web/src/app/state' },
    to: { circular: true },
  },
  {
    name: 'core-no-node',
    severity: 'error',
    from: { path: '^core/src', pathNot: '\\.spec\\.ts$' },
    to: { dependencyTypes: ['core'] },
  },
  {
    name: 'core-no-npm',
    severity: 'error',
    from: { path: '^core/src', pathNot: '\\.spec\\.ts$|/test-[a-z-]+\\.ts$' },
    to: {
      path: '^node_modules/',
      pathNot:
        '^node_modules/(fft\\.js|quickselect|d3-array|tonal|@tonaljs|midi-file|papaparse|fast-xml-builder|saxes|fflate)/',
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
    // Limits, enumerations and tables stand once, in the core; what computes stays out of the contract.
    from: { path: '^contract/', pathNot: '\\.spec\\.ts$' },
    to: {
      path: '^(core|server|web)/',
      pathNot: '^core/src/(units|theory|guitar|riff|formats|practice|parts)/index\\.ts$',
      dependencyTypesNot: ['type-only'],
    },
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
    // The bench of the screen drives the application as the end-to-end tests do, that of faults asks over HTTP, that of separation loads the network as the server does.
    name: 'bench-checks-core',
    severity: 'error',
    from: { path: '^(bench/(?!screen/|faults/|separation/)|core/checks|training)/' },
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
    to: {
      path: '^core/src/',
      pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$', '/test-[a-z-]+\\.ts$'],
    },
  },
  {
    name: 'ui-shared-no-state',
    severity: 'error',
    from: { path: '^web/src/app/shared/' },
    to: { path: '^web/src/app/(?!shared/)' },
  },
  {
    name: 'dsp-in-workers-only',
    severity: 'error',
    from: { path: '^web/src/app/', pathNot: '\\.(worker|spec)\\.ts$' },
    to: {
      path: '^core/src/(dsp|mir|check|synth|analysis|playback|live)/',
      dependencyTypesNot: ['type-only'],
    },
  },
  {
    name: 'dsp-in-audio-only',
    severity: 'error',
    from: { path: '^server/src/(?!audio/)', pathNot: '\\.spec\\.ts$' },
    to: { path: '^core/src/(dsp|mir|check|synth|analysis|playback)/', dependencyTypesNot: ['type-only'] },
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
