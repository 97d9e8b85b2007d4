/**
 * `npm run bench:takes -- [FOLDER]`: is a player judged rightly? The corpus renders takes of a player who plays along with a tab, slips
 * included; the answers of `npm run -s judge` are scored as its scorer says, and the table in `docs/accuracy.md` is written anew. Needs
 * `../shared/corpus` beside the checkout; takes are kept in FOLDER.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { writeSection } from './accuracy-sections.mjs';

const ROOT = join(import.meta.dirname, '../..');
const TAKES = resolve(ROOT, '../shared/corpus/takes');
const PYTHON = '/usr/bin/python3';
/** Sets of takes: nothing was chosen by looking at the third. */
const SEEDS = ['2290', '7351', '8833'];
const JUDGE = 'npm run -s judge -- {take} {written} {latency}';

function run(args) {
  const { status } = spawnSync(PYTHON, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
}

function scores(folder, seed) {
  const takes = join(folder, `takes-${seed}`);
  mkdirSync(takes, { recursive: true });
  if (readdirSync(takes).length === 0) run([join(TAKES, 'make_takes.py'), '--out', takes, '--seed', seed]);
  const answers = join(folder, `judged-${seed}`);
  mkdirSync(answers, { recursive: true });
  const json = join(answers, 'result.json');
  run([join(TAKES, 'run_takes.py'), takes, '--cmd', JUDGE, '--save', answers, '--json', json]);
  return JSON.parse(readFileSync(json, 'utf8'));
}

const share = (value) => (typeof value === 'number' ? value.toFixed(2) : '–');
const ms = (value) => (typeof value === 'number' ? value.toFixed(1) : '–');

/** Rows: what is measured, its figure, the goal. */
const ROWS = [
  ['F1 of strums played', (v) => share(v.playedF1), '≥ .99'],
  ['F1 of strums missed', (v) => share(v.missedF1), '≥ .95'],
  ['F1 of strums too many', (v) => share(v.extraF1), '≥ .88'],
  ['offset and delay together, mean error, ms', (v) => ms(v.rawErrMs), '≤ 3.5'],
  ['offset alone where the delay can be known, ms', (v) => ms(v.offsetErrMs), '≤ 7'],
  ['delay where it can be heard, ms', (v) => ms(v.latencyErrMs), '≤ 8'],
  ['area under the curve, right against wrong notes', (v) => share(v.rightAuc), '≥ .98'],
  ['right strums called wrong', (v) => share(v.rightCalledWrong), '≤ .03'],
  ['wrong strums called wrong', (v) => share(v.wrongFound), ''],
  ['mutes told right', (v) => share(v.muteAcc), '≥ .97'],
];

if (!existsSync(join(TAKES, 'run_takes.py'))) {
  process.stderr.write(
    'The corpus is not here: this benchmark needs ../shared/corpus beside the checkout.\n',
  );
  process.exit(1);
}
const folder = resolve(process.argv[2] ?? join(tmpdir(), 'wild-needle-corpus'));
const results = SEEDS.map((seed) => scores(folder, seed));
const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { cwd: ROOT, encoding: 'utf8' }).trim();
const rows = ROWS.map(([what, of, goal]) => `| ${what} | ${results.map(of).join(' | ')} | ${goal} |`);
writeSection(
  'What a player has played',
  `Takes of a player with planted mistakes, twelve a set (seeds ${SEEDS.join(', ')}; nothing was chosen by looking at the third). Made by \`npm run bench:takes\` on ${new Date().toISOString().slice(0, 10)}, on the tree after commit ${commit}.

| | first set | second set | third set | goal |
|---|---|---|---|---|
${rows.join('\n')}`,
);
