/**
 * `npm run bench:corpus -- [FOLDER]`: scores the analysis command on rendered songs with exact truth and on real
 * recordings with a chart, and writes `docs/accuracy.md`. The corpus lies in `../shared/corpus` beside the checkout; songs
 * are rendered and unpacked into FOLDER, which keeps them for the next run.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { sectionsBut } from './accuracy-sections.mjs';
import { calibrationTable } from './calibration.mjs';

const ROOT = join(import.meta.dirname, '../..');
const CORPUS = resolve(ROOT, '../shared/corpus');
/** The Debian packages that rendering and scoring need are listed in the corpus' own README. */
const PYTHON = '/usr/bin/python3';
const ANALYSE = 'npm run -s analyse -- {audio}';

/** Columns of the table: heading and key of the scorer. */
const COLUMNS = [
  ['onset F1', 'onsetF1'],
  ['root of all', 'rootRecall'],
  ['chord of all', 'chordRecall'],
  ['note set of all', 'noteSetRecall'],
  ['note F1', 'noteF1'],
  ['mute F1', 'palmMuteF1'],
  ['dead F1', 'deadF1'],
  ['WCSR', 'wcsr'],
  ['tempo', 'tempoAcc1'],
  ['beat F1', 'beatF1'],
  ['downbeat F1', 'downbeatF1'],
  ['cents off', 'refOffsetErrCents'],
  ['tuning', 'tuningExact'],
  ['in 3', 'tuningTop3'],
  ['voicing', 'voicingTop1'],
  ['in 3', 'voicingTop3'],
  ['boundary 0.5 s', 'sectionF05'],
  ['3 s', 'sectionF3'],
  ['labels', 'sectionPairF'],
];

function run(args) {
  const { status } = spawnSync(PYTHON, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
}

function scoreRendered(folder) {
  const songs = join(folder, 'rendered');
  mkdirSync(songs, { recursive: true });
  if (readdirSync(songs).length === 0) run([join(CORPUS, 'make_corpus.py'), '--out', songs]);
  const heard = join(folder, 'rendered-heard');
  mkdirSync(heard, { recursive: true });
  const json = join(heard, 'result.json');
  const scorer = join(CORPUS, 'score_all.py');
  run([scorer, songs, '--cmd', ANALYSE, '--by-kind', '--save', heard, '--json', json]);
  return JSON.parse(readFileSync(json, 'utf8')).rows;
}

/** Package of real songs with the guitar on its own track, unpacked by the corpus' own script. */
const REAL_PACKAGE = 'fretsonfire-songs-sectoid';

function scoreReal(folder) {
  const songs = join(folder, 'real');
  mkdirSync(songs, { recursive: true });
  if (readdirSync(songs).length === 0) {
    run([join(CORPUS, 'real/prepare.py'), '--package', REAL_PACKAGE, '--out', join(songs, 'a')]);
  }
  const heard = join(folder, 'real-heard');
  mkdirSync(heard, { recursive: true });
  const json = join(heard, 'result.json');
  run([join(CORPUS, 'real/score_real.py'), songs, '--cmd', ANALYSE, '--save', heard, '--json', json]);
  return JSON.parse(readFileSync(json, 'utf8')).rows;
}

/** Rows of the table of real recordings: what is measured, key of the scorer, goal. */
const REAL = [
  ['chart onsets that the stem confirms, found in the mix', 'mixOnsetAgreedR', 0.95],
  ['onset F1 in the mix against the chart', 'mixOnsetF1', null],
  ['the same by chance', 'mixOnsetF1Chance', null],
  ['onset F1 in the stem', 'stemOnsetF1', null],
  ['tempo', 'tempoAcc1', 1],
  ['beats at any level', 'beatF1AnyLevel', 0.95],
  ['strums of the stem found in the mix, time alone', 'stemMixTime', null],
  ['… with the same root and kind', 'stemMix', 0.85],
  ['two semitones up: the same strums two semitones up', 'up2', 0.95],
  ['as MP3 of 96 kbit/s: the same strums', 'mp3', 0.97],
  ['0.377 s cut off: the same strums', 'trim', 0.97],
];

function realTable(rows) {
  const lines = REAL.map(([what, key, goal]) => `| ${what} | ${mean(rows, key)} | ${goal ?? ''} |`);
  return ['| on the real recordings | mean | wanted |', '|---|---|---|', ...lines].join('\n');
}

function mean(rows, key) {
  const values = rows.map((row) => row.metrics[key]).filter((v) => typeof v === 'number');
  if (values.length === 0) return '–';
  const value = values.reduce((a, b) => a + b, 0) / values.length;
  return value.toFixed(key === 'refOffsetErrCents' ? 1 : 2);
}

function table(rows) {
  const mixes = [...new Set(rows.map((row) => row.mix))].sort();
  const groups = [['all', rows], ...mixes.map((mix) => [mix, rows.filter((row) => row.mix === mix)])];
  const head = `| | ${groups.map(([name, some]) => `${name} (${some.length})`).join(' | ')} |`;
  const lines = COLUMNS.map(
    ([heading, key]) => `| ${heading} | ${groups.map(([, some]) => mean(some, key)).join(' | ')} |`,
  );
  return [head, `|---|${groups.map(() => '---').join('|')}|`, ...lines].join('\n');
}

function kindTable(rows) {
  const kinds = new Map();
  for (const { byKind } of rows) {
    for (const [kind, { n, matched, chordOk }] of Object.entries(byKind)) {
      const sum = kinds.get(kind) ?? { n: 0, matched: 0, chordOk: 0 };
      kinds.set(kind, { n: sum.n + n, matched: sum.matched + matched, chordOk: sum.chordOk + chordOk });
    }
  }
  const lines = [...kinds]
    .sort((a, b) => b[1].n - a[1].n)
    .map(
      ([kind, { n, matched, chordOk }]) =>
        `| ${kind} | ${n} | ${(matched / n).toFixed(2)} | ${(chordOk / n).toFixed(2)} |`,
    );
  return ['| kind | strums | found | root and kind right |', '|---|---|---|---|', ...lines].join('\n');
}

if (!existsSync(join(CORPUS, 'score_all.py'))) {
  process.stderr.write(
    'The corpus is not here: this benchmark needs ../shared/corpus beside the checkout.\n',
  );
  process.exit(1);
}
const folder = resolve(process.argv[2] ?? join(tmpdir(), 'wild-needle-corpus'));
const rows = scoreRendered(folder);
const realRows = scoreReal(folder);
const others = sectionsBut(['By kind of chord', 'Real recordings', 'What the confidence means']);
const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: ROOT, encoding: 'utf8' }).trim();
writeFileSync(
  join(ROOT, 'docs/accuracy.md'),
  `# How well it hears

Means over ${rows.length} rendered songs with exact truth (solo guitar, band, dense band), scored as their scorer says:
onsets within 50 ms, beats and downbeats within 70 ms, tempo within 4 %. "Of all" counts strums that were not found as
wrong. The songs come from another generator than the training songs, but their guitars from one of the soundfonts that
training used too: expect less on real records (below).

Made by \`npm run bench:corpus\` on ${new Date().toISOString().slice(0, 10)}, on the tree after commit ${commit}.

${table(rows)}

## By kind of chord

${kindTable(rows)}

## Real recordings

${realRows.length} recorded rock songs with a guitar stem and a simplified, quantised chart; 90 s of each. There is no truth
for their chords: the last four rows say how steady the answers are. Steady is not right, but unsteady is wrong.

${realTable(realRows)}

## What the confidence means

Strums by the confidence that is said of them: how many of the rendered ones have the true notes and mute, and in how many of three copies (MP3, cut, two
semitones up) the real ones are heard again with the same root and kind. Steady is more than right can be less: what is heard wrong each time is steady too.

${calibrationTable(join(folder, 'rendered'), join(folder, 'rendered-heard'), join(folder, 'real-heard'))}

For orientation, general-purpose programs on the rendered songs, as measured by those who made them: aubio 0.4.9 onset F1
.74, tempo .80, beats .65; essentia.js 0.1.3 onset F1 .78, chord of all .52, WCSR .58, tempo .80, beats .83;
basic-pitch 1.0.1 onset F1 .59, chord of all .45, note F1 .47.

${others}`,
);
