/**
 * `tsx training/train-meter.ts`: learns by what readings of pulse, meter and the one are ranked, a log-linear model and networks each from
 * songs of its own; prints how often the first reading is right on songs not seen, and writes `core/src/mir/meter/meter.json`.
 */
import { scoreMeters, type MeterWeights } from '@wild-needle/core/mir';
import { fitLogLinear } from './meter-log-linear';
import { trainMeterNetworks } from './meter-networks';
import { hasRight, readReadings, type SongReadings } from './meter-readings';
import { seedsOf, writeWeights } from './songs';

/** The log-linear model has few weights, and reads each song in hundreds of ways. */
const PLAIN_SONGS = 300;
const ROUGH_SONGS = 150;

const indexOfMax = (scores: Float32Array): number =>
  scores.indexOf(scores.reduce((most, score) => Math.max(most, score), -Infinity));

function firstRight(songs: readonly SongReadings[], weights: MeterWeights): string {
  const right = songs.filter(
    ({ readings, isRight }) => isRight[indexOfMax(scoreMeters(readings, weights))],
  ).length;
  return `${right} of ${songs.length} right, ${songs.filter(hasRight).length} have a right reading`;
}

const [plain, rough] = [seedsOf('plain validation'), seedsOf('rough validation')];
const drawn = readReadings([
  ...plain,
  ...rough,
  ...seedsOf('plain').slice(0, PLAIN_SONGS),
  ...seedsOf('rough').slice(0, ROUGH_SONGS),
]);
const unseen = plain.length + rough.length;
const logLinear = fitLogLinear(drawn.slice(unseen));
const networks = trainMeterNetworks(readReadings(seedsOf('counted')).filter(hasRight));
const weights: MeterWeights = { logLinear, ...networks };
process.stdout.write(
  `unseen plain songs: ${firstRight(drawn.slice(0, plain.length), weights)}\n` +
    `unseen rough songs: ${firstRight(drawn.slice(plain.length, unseen), weights)}\n` +
    `unseen counted songs: ${firstRight(readReadings(seedsOf('counted validation')), weights)}\n`,
);
writeWeights('meter', weights);
