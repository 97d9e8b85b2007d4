/**
 * Is what is said to be right by a share right as often? By ten bins of the confidence: of rendered strums those with the true notes and mute; of real ones,
 * for which there is no truth, the share of three copies (MP3, cut, two semitones up) in which they are heard again with the same root and kind.
 */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const BINS = 10;
const SAME_TIME_S = 0.05;
/** At the edges of a copy strums are cut off. */
const EDGE_S = 0.5;
/** As the corpus' scorer makes the copies: how their times become those of the mix, and how far they are moved up. */
const RATE = 44100;
const COPIES = [
  { name: 'mp3', scale: 1, addS: 0, up: 0 },
  { name: 'trim', scale: 1, addS: 0.377, up: 0 },
  { name: 'up2', scale: Math.round(RATE * 2 ** (2 / 12)) / RATE, addS: 0, up: 2 },
];

const readJson = (path) => JSON.parse(readFileSync(path, 'utf8'));

/** For each of the first the one of the others at the same time, undefined where there is none; both in order of time. */
function partners(strums, others) {
  let next = 0;
  return strums.map(({ timeS }) => {
    while (next < others.length && others[next].timeS < timeS - SAME_TIME_S) next++;
    return next < others.length && others[next].timeS <= timeS + SAME_TIME_S ? others[next++] : undefined;
  });
}

function isSameChord(one, other, up) {
  if (one.dead || other.dead) return one.dead === other.dead;
  return (one.rootPc + up) % 12 === other.rootPc && one.quality === other.quality;
}

function renderedStrums(songs, heard) {
  return readdirSync(songs)
    .filter((name) => name.endsWith('.truth.json'))
    .flatMap((name) => {
      const { strums } = readJson(join(heard, name.replace('.truth.json', '.json')));
      const truth = partners(strums, readJson(join(songs, name)).strums);
      return strums.map((strum, i) => {
        const isRight =
          truth[i] !== undefined &&
          strum.midi.join() === truth[i].midi.join() &&
          strum.palmMuted === truth[i].palmMuted &&
          strum.dead === truth[i].dead;
        return { said: strum.confidence, right: Number(isRight) };
      });
    });
}

function realStrums(heard) {
  return readdirSync(heard)
    .filter((name) => name.endsWith('.mix.json'))
    .flatMap((name) => {
      const { strums, durationS } = readJson(join(heard, name));
      const copies = COPIES.map((copy) => ({
        ...copy,
        path: join(heard, name.replace('.mix.', `.${copy.name}.`)),
      }))
        .filter(({ path }) => existsSync(path))
        .map(({ path, scale, addS, up }) => {
          const moved = readJson(path).strums.map((s) => ({ ...s, timeS: s.timeS * scale + addS }));
          return partners(strums, moved).map(
            (other, i) => other !== undefined && isSameChord(strums[i], other, up),
          );
        });
      return strums.flatMap(({ timeS, confidence }, i) =>
        timeS < EDGE_S || timeS > durationS - EDGE_S
          ? []
          : [{ said: confidence, right: copies.filter((copy) => copy[i]).length / copies.length }],
      );
    });
}

const mean = (values) => values.reduce((a, b) => a + b, 0) / values.length;

function binned(strums) {
  return Array.from({ length: BINS }, (_, bin) =>
    strums.filter(({ said }) => Math.min(BINS - 1, Math.floor(said * BINS)) === bin),
  );
}

/** Expected calibration error (Naeini, Cooper and Hauskrecht 2015, "Obtaining well calibrated probabilities using Bayesian binning"). */
function calibrationError(strums) {
  return binned(strums)
    .filter((some) => some.length > 0)
    .reduce(
      (sum, some) =>
        sum +
        (some.length / strums.length) *
          Math.abs(mean(some.map((s) => s.said)) - mean(some.map((s) => s.right))),
      0,
    );
}

function cells(some) {
  if (some.length === 0) return '0 | – | –';
  const [said, right] = [mean(some.map((s) => s.said)), mean(some.map((s) => s.right))];
  return `${some.length} | ${said.toFixed(2)} | ${right.toFixed(2)}`;
}

/** The table for `docs/accuracy.md`. */
export function calibrationTable(renderedSongs, renderedHeard, realHeard) {
  const [rendered, real] = [renderedStrums(renderedSongs, renderedHeard), realStrums(realHeard)];
  const [ofRendered, ofReal] = [binned(rendered), binned(real)];
  const rows = ofRendered.map(
    (some, bin) => `| ${(bin / BINS).toFixed(1)} | ${cells(some)} | ${cells(ofReal[bin])} |`,
  );
  return [
    '| said from | rendered strums | said | right | real strums | said | steady |',
    '|---|---|---|---|---|---|---|',
    ...rows,
    `| error | | | ${calibrationError(rendered).toFixed(3)} | | | ${calibrationError(real).toFixed(3)} |`,
  ].join('\n');
}
