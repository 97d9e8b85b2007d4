/**
 * `tsx training/train-chords.ts SEED`: trains one of the networks that name the notes of a strum on the generated songs, prints
 * its scores on songs it has not seen, and keeps it in `.cache/training`; so they learn on cores of their own. Without a seed: puts
 * those of all seeds together and writes `core/src/mir/chords/chords.json`.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  CHORD_SHAPES,
  createChordEnsemble,
  SHAPES,
  LOWEST_BASS,
  type ChordNetworkWeights,
} from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import { chordExamples } from './chord-examples';
import { ChordTraining, type ChordExample } from './nets/chord-training';
import { shuffled } from './nets/dense';
import { seedsOf, writeWeights } from './songs';

const HIDDEN = 64;
/** Values that each lowest note tells the others. */
const BOTTLENECK = 24;
const BATCH = 32;
const ROUNDS = 5;
const RATE = 1.5e-3;
const DECAY = 3e-3;
/** So that no unit relies on one amplifier. */
const DROPOUT = 0.25;
/** What codecs and rooms do: a third of the mean of a spectrum of 300 values. */
const NOISE = 0.02;
/** Validation strums that are tried between rounds. */
const TRIED = 2500;

/** One member of the ensemble for each; they differ in nothing else. */
const SEEDS = [9, 10];

function memberFile(seed: number): string {
  return join(import.meta.dirname, `../.cache/training/chords-${seed}.json`);
}

/** With the very networks that the analysis uses. */
function score(
  name: string,
  members: readonly ChordNetworkWeights[],
  examples: readonly ChordExample[],
): void {
  const answer = createChordEnsemble({ members });
  const right = { bass: 0, root: 0, notes: 0, logLoss: 0 };
  const byShape = CHORD_SHAPES.map(() => [0, 0]);
  const step = Math.max(1, Math.floor(examples.length / TRIED));
  const tried = examples.filter((_, i) => i % step === 0);
  for (const { mid, side, bass, shape } of tried) {
    const { logProbabilities } = answer(mid, side);
    const best = logProbabilities.indexOf(logProbabilities.reduce((a, b) => Math.max(a, b)));
    const [heardBass, heardShape] = [LOWEST_BASS + Math.floor(best / SHAPES), best % SHAPES];
    const rootOf = (b: number, f: number): number => (b + CHORD_SHAPES[f].rootAbove) % 12;
    const isRight = heardBass === bass && heardShape === shape;
    if (heardBass === bass) right.bass++;
    if (rootOf(heardBass, heardShape) === rootOf(bass, shape)) right.root++;
    if (isRight) right.notes++;
    right.logLoss -= logProbabilities[(bass - LOWEST_BASS) * SHAPES + shape] / tried.length;
    byShape[shape][0]++;
    if (isRight) byShape[shape][1]++;
  }
  const share = (n: number): string => (n / tried.length).toFixed(3);
  process.stdout.write(
    `${name}: root ${share(right.root)} lowest note ${share(right.bass)} notes ${share(right.notes)} ` +
      `log loss ${right.logLoss.toFixed(3)} of ${tried.length}\n  ` +
      byShape.map(([n, ok], f) => `${CHORD_SHAPES[f].notes?.join('.') ?? 'other'} ${ok}/${n}`).join('  ') +
      '\n',
  );
}

function train(
  seed: number,
  training: readonly ChordExample[],
  scoreUnseen: (members: readonly ChordNetworkWeights[]) => void,
): ChordNetworkWeights {
  const random = createRandom(seed);
  const network = new ChordTraining({
    hidden: HIDDEN,
    bottleneck: BOTTLENECK,
    batch: BATCH,
    dropout: DROPOUT,
    noise: NOISE,
    random,
  });
  for (let round = 0; round < ROUNDS; round++) {
    const order = shuffled(training.length, random);
    let loss = 0;
    for (let from = 0; from + BATCH <= training.length; from += BATCH) {
      const batch = Array.from(order.subarray(from, from + BATCH), (i) => training[i]);
      loss += network.learn(batch);
      // Falls to zero by half a cosine (Loshchilov and Hutter 2017).
      const done = (round + from / training.length) / ROUNDS;
      const rate = RATE * 0.5 * (1 + Math.cos(Math.PI * done));
      network.step(rate, DECAY);
    }
    process.stdout.write(`round ${round + 1}, loss ${(loss / training.length).toFixed(4)}\n`);
    scoreUnseen([network.weights()]);
  }
  return network.weights();
}

const unseen = (['plain validation', 'rough validation'] as const).map((kind) => ({
  kind,
  examples: seedsOf(kind).flatMap(chordExamples),
}));
const scoreUnseen = (members: readonly ChordNetworkWeights[]): void => {
  for (const { kind, examples } of unseen) score(kind, members, examples);
};
const [wanted] = process.argv.slice(2).map(Number);
if (wanted !== undefined) {
  const training = seedsOf('plain', 'rough').flatMap(chordExamples);
  process.stdout.write(`${training.length} strums to learn from\n`);
  writeFileSync(memberFile(wanted), JSON.stringify(train(wanted, training, scoreUnseen)));
} else {
  const members = SEEDS.map(
    (seed) => JSON.parse(readFileSync(memberFile(seed), 'utf8')) as ChordNetworkWeights,
  );
  scoreUnseen(members);
  writeWeights('chords', { members });
}
