/**
 * `npm run bench:corpus -- [FOLDER]`: renders the corpus with exact truth that lies beside the checkout in
 * `../shared/corpus` and scores the analysis command on it. FOLDER keeps what was rendered for the next run.
 * The result goes to `bench/quality/corpus.json`; compare it with `git diff`.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const ROOT = join(import.meta.dirname, '../..');
const CORPUS = resolve(ROOT, '../shared/corpus');
/** The Debian packages that rendering and scoring need are listed in the corpus' own README. */
const PYTHON = '/usr/bin/python3';

function run(args) {
  const { status } = spawnSync(PYTHON, args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
}

if (!existsSync(join(CORPUS, 'score_all.py'))) {
  process.stderr.write(
    'The corpus is not here: this benchmark needs ../shared/corpus beside the checkout.\n',
  );
  process.exit(1);
}
const folder = resolve(process.argv[2] ?? join(tmpdir(), 'wild-needle-corpus'));
mkdirSync(folder, { recursive: true });
const isRendered = readdirSync(folder).length > 0;
if (!isRendered) run([join(CORPUS, 'make_corpus.py'), '--out', folder]);
const predictions = `${folder}-heard`;
mkdirSync(predictions, { recursive: true });
const json = join(predictions, 'result.json');
const command = 'npm run -s analyse -- {audio}';
run([
  join(CORPUS, 'score_all.py'),
  folder,
  '--cmd',
  command,
  '--by-kind',
  '--save',
  predictions,
  '--json',
  json,
]);
writeFileSync(
  join(import.meta.dirname, 'corpus.json'),
  `${JSON.stringify(JSON.parse(readFileSync(json, 'utf8')), null, 1)}\n`,
);
