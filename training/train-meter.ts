/**
 * `tsx training/train-meter.ts`: learns by what readings of pulse, meter and the one are ranked, from songs that are counted as people count;
 * prints how often the first reading is right on songs not seen, and writes `core/src/mir/meter/meter.json`.
 */
import { scoreMeters, type MeterWeights } from '@wild-needle/core/mir';
import { trainMeterNetworks } from './meter-networks';
import { hasRight, readReadings, type SongReadings } from './meter-readings';
import { seedsOf, writeWeights } from './songs';

const indexOfMax = (scores: Float32Array): number =>
  scores.indexOf(scores.reduce((most, score) => Math.max(most, score), -Infinity));

function firstRight(songs: readonly SongReadings[], weights: MeterWeights): string {
  const right = songs.filter(
    ({ readings, isRight }) => isRight[indexOfMax(scoreMeters(readings, weights))],
  ).length;
  return `${right} of ${songs.length} right, ${songs.filter(hasRight).length} have a right reading`;
}

const weights = trainMeterNetworks(readReadings(seedsOf('counted')).filter(hasRight));
writeWeights('meter', weights);
for (const kind of ['counted validation', 'plain validation', 'rough validation'] as const)
  process.stdout.write(`${kind}: ${firstRight(readReadings(seedsOf(kind)), weights)}\n`);
