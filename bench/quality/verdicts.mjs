/**
 * `npm run bench:verdicts -- [FOLDER]`: does the judge tell strums that are written wrong from right ones? The corpus plants errors into
 * true tabs of its rendered songs; the answers of `npm run -s verdicts` are scored as its scorer says, and the table in
 * `docs/accuracy.md` is written anew. Needs `../shared/corpus` beside the checkout; songs are kept in FOLDER, where
 * `npm run bench:corpus` keeps them too.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { writeSection } from './accuracy-sections.mjs';

const ROOT = join(import.meta.dirname, '../..');
const CORPUS = resolve(ROOT, '../shared/corpus');
const PYTHON = '/usr/bin/python3';
const SEED = '1187';
const VERDICTS = 'npm run -s verdicts -- {audio} {written}';

function run(args) {
  const { status } = spawnSync(PYTHON, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
}

const isEmpty = (folder) => {
  mkdirSync(folder, { recursive: true });
  return readdirSync(folder).length === 0;
};

function scores(folder) {
  const [songs, planted, answers] = ['rendered', 'planted', 'verdicts'].map((name) => join(folder, name));
  if (isEmpty(songs)) run([join(CORPUS, 'make_corpus.py'), '--out', songs]);
  if (isEmpty(planted)) run([join(CORPUS, 'check/plant.py'), songs, '--out', planted, '--seed', SEED]);
  mkdirSync(answers, { recursive: true });
  const json = join(answers, 'result.json');
  const scorer = join(CORPUS, 'check/run_check.py');
  run([scorer, planted, '--songs', songs, '--cmd', VERDICTS, '--save', answers, '--json', json]);
  return JSON.parse(readFileSync(json, 'utf8'));
}

const share = (value) => (typeof value === 'number' ? value.toFixed(3) : '–');
/** Kinds with so many plants have a goal of their own. */
const ENOUGH = 10;

/** Rows: what is measured, its figure in a variant, the goal. */
const ROWS = [
  ['area under the curve of doubt', (v) => v.auc, '≥ .985'],
  ['… across songs', (v) => v.aucPooled, ''],
  [
    'worst kind of error with at least ten plants',
    (v) => Math.min(...Object.values(v.byKind ?? {}).flatMap(({ n, auc }) => (n >= ENOUGH ? [auc] : []))),
    '≥ .90',
  ],
  ['planted among the first N of the list', (v) => v.rPrecision, '≥ .90'],
  ['share of the list until 90 % are seen', (v) => v.look90Share, '≤ .14'],
  ['calibration error', (v) => v.calibration?.ece, '≤ .05'],
  [
    'right strums said to clash or to be missing',
    (v) => v.falseAlarms.clashes + v.falseAlarms.missing,
    '≤ .02',
  ],
  ['strums left out that are found', (v) => v.extra.found, ''],
  ['offset of strums at the wrong time told right', (v) => v.heard.offsetOfWrongTimes, ''],
];

function table({ belief, slips, clean }) {
  const lines = ROWS.map(([what, of, goal]) => {
    const cell = (variant) => (variant === clean && !what.startsWith('right') ? '–' : share(of(variant)));
    return `| ${what} | ${cell(belief)} | ${cell(slips)} | ${cell(clean)} | ${goal} |`;
  });
  return ['| | in every pass | in one place | none planted | goal |', '|---|---|---|---|---|', ...lines].join(
    '\n',
  );
}

if (!existsSync(join(CORPUS, 'check/run_check.py'))) {
  process.stderr.write(
    'The corpus is not here: this benchmark needs ../shared/corpus beside the checkout.\n',
  );
  process.exit(1);
}
const result = scores(resolve(process.argv[2] ?? join(tmpdir(), 'wild-needle-corpus')));
const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: ROOT, encoding: 'utf8' }).trim();
const kinds = Object.entries(result.belief.byKind)
  .map(([kind, { n, auc, named }]) => `| ${kind} | ${n} | ${share(auc)} | ${share(named)} |`)
  .join('\n');
writeSection(
  'What is written wrong',
  `Errors planted into the tabs of the rendered songs (seed ${SEED}): the same one in every pass of a riff, which nobody can find who only
reads the tab; and each for itself. Made by \`npm run bench:verdicts\` on ${new Date().toISOString().slice(0, 10)}, on the tree after commit ${commit}.

${table(result)}

Planted in every pass, by kind (groups first):

| kind | planted | area under the curve | kind named |
|---|---|---|---|
${kinds}`,
);
