/**
 * `tsx training/fit-doubt.ts`: how far the judge should believe the networks, fitted on the validation songs, which no network has
 * learned from: in one strum of ten something is written wrong at random, and each way to be wrong gets a line from the log-odds of
 * the evidence to those of the doubt (logistic regression; Platt 1999, "Probabilistic outputs for support vector machines").
 * Prints the lines for `core/src/check/judge.ts`.
 */
import { gatherEvidence, type StrumEvidence, type WrittenStrum } from '@wild-needle/core/check';
import { logistic, logOdds } from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import { readSong, seedsOf } from './songs';
import { spoilTab, type Wrong } from './spoiled-tab';

const LEAST = 1e-4;
/** Each song is spoiled so often, otherwise every time. */
const ROUNDS = 3;
interface Example {
  readonly x: number;
  readonly y: boolean;
}

/** Base and slope by Newton's method. */
function fit(examples: readonly Example[]): { readonly base: number; readonly slope: number } {
  let [base, slope] = [-2, 0.5];
  for (let round = 0; round < 30; round++) {
    const [g, h] = [
      [0, 0],
      [1e-3, 0, 1e-3],
    ];
    for (const { x, y } of examples) {
      const p = logistic(base + slope * x);
      const [error, weight] = [Number(y) - p, p * (1 - p)];
      g[0] += error;
      g[1] += error * x;
      h[0] += weight;
      h[1] += weight * x;
      h[2] += weight * x * x;
    }
    const determinant = h[0] * h[2] - h[1] * h[1];
    base += (h[2] * g[0] - h[1] * g[1]) / determinant;
    slope += (h[0] * g[1] - h[1] * g[0]) / determinant;
  }
  return { base, slope };
}

const examples = { notes: [] as Example[], mute: [] as Example[], struck: [] as Example[] };
const against = (agreeing: number): number => -logOdds(agreeing, LEAST);
function take({ notes, kind, struck }: StrumEvidence, wrong: Wrong): void {
  examples.struck.push({ x: against(struck), y: wrong === 'struck' });
  if (wrong === 'struck' || struck < 0.5) return;
  examples.mute.push({ x: against(kind), y: wrong === 'mute' });
  if (notes !== null && wrong !== 'mute') examples.notes.push({ x: against(notes), y: wrong === 'notes' });
}

for (const seed of seedsOf('plain validation', 'rough validation')) {
  const { signal, truth } = readSong(seed);
  const right = truth.strums.map((s, i): WrittenStrum => ({
    timeS: s.timeS,
    endS: truth.strums[i + 1]?.timeS ?? s.timeS + 1,
    midi: s.midi,
    palmMuted: s.palmMuted,
    dead: s.dead,
  }));
  for (let round = 0; round < ROUNDS; round++) {
    const random = createRandom(seed * 10 + round);
    const spoiled = spoilTab(random, right);
    const { strums } = gatherEvidence(
      signal,
      spoiled.map((s) => s.strum),
      { referenceCents: truth.offsetCents },
    );
    strums.forEach((evidence, i) => take(evidence, spoiled[i].wrong));
  }
  process.stderr.write(`${seed} `);
}
for (const [name, some] of Object.entries(examples)) {
  const { base, slope } = fit(some);
  const wrong = some.filter(({ y }) => y).length;
  process.stdout.write(
    `${name}: { base: ${base.toFixed(2)}, slope: ${slope.toFixed(2)} }, ${wrong} wrong of ${some.length}\n`,
  );
}
