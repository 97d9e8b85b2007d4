/**
 * `npm run bench:speed`: how many seconds of stereo sound the core works through in one, on one core; medians of five
 * runs on a made recording, written to `bench/speed/results.json`.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { analyse } from '@wild-needle/core/analysis';
import { isolate, median, type Isolation } from '@wild-needle/core/dsp';
import {
  candidateVoicings,
  chooseVoicings,
  placeShape,
  POWER_SHAPES,
  soundingNotes,
  STANDARD_TUNING,
  rankFingerings,
} from '@wild-needle/core/guitar';
import { ANALYSIS_SAMPLE_RATE, createRandom } from '@wild-needle/core/units';
import { judgingCosts } from './judging-live';

const SECONDS = 60;
const RUNS = 5;

/** Power chords left and right, a fifth apart in time, with noise on the beats. */
function recording(sampleRate: number): [Float32Array, Float32Array] {
  const random = createRandom(4);
  return [0, 0.012].map((lateS) =>
    Float32Array.from({ length: SECONDS * sampleRate }, (_, n) => {
      const timeS = n / sampleRate - lateS;
      const strum = Math.floor(timeS / 0.25);
      const since = timeS - strum * 0.25;
      const hz = 82.41 * 2 ** ([0, 0, 3, 5][((strum % 16) + 16) % 4] / 12);
      const strings = [1, 1.498, 2].reduce((s, r) => s + Math.sin(2 * Math.PI * hz * r * timeS), 0);
      const hit = strum % 2 === 0 ? 0.4 * (2 * random() - 1) * Math.exp(-since / 0.02) : 0;
      return 0.5 * Math.tanh(4 * strings * Math.exp(-since / 0.4)) + hit;
    }),
  ) as [Float32Array, Float32Array];
}

/** Seconds of sound per second of work. */
function timesRealTime(work: () => void): number {
  work();
  const ratios = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    work();
    return SECONDS / ((performance.now() - start) / 1000);
  });
  return Math.round(10 * (median(ratios) ?? 0)) / 10;
}

const CENTRE = { position: 0, width: 0.5, isInside: true };
const ISOLATIONS: Readonly<Record<string, Isolation>> = {
  centre: { pan: CENTRE, band: null, isWithoutHits: false },
  body: { pan: null, band: [90, 1300], isWithoutHits: false },
  'fewer drums': { pan: null, band: null, isWithoutHits: true },
  'centre, fewer drums': { pan: CENTRE, band: null, isWithoutHits: true },
};

const FULL_RATE = 44_100;
const full = recording(FULL_RATE);
const low = recording(ANALYSIS_SAMPLE_RATE);
const results: Record<string, number> = {};
for (const [name, isolation] of Object.entries(ISOLATIONS)) {
  results[name] = timesRealTime(() => void isolate(full, FULL_RATE, isolation, 0, full[0].length));
}
results['the whole analysis'] = timesRealTime(
  () => void analyse({ channels: low, sampleRate: ANALYSIS_SAMPLE_RATE }),
);
/** A song of 300 strums in changing shapes. */
const riff = Array.from({ length: 300 }, (_, i) => {
  const root = { string: 6 - (i % 2), fret: [0, 3, 5, 7, 8, 10][i % 6] };
  return placeShape(POWER_SHAPES[i % 7], root, STANDARD_TUNING) ?? [{ string: 6, fret: 0 }];
});
const heard = (midi: number): number => (midi % 7 === 0 ? 0.9 : 0.1);
const options = { tuning: STANDARD_TUNING, heard, ownShapes: [], alternatives: [] };

function milliseconds(work: () => void): number {
  work();
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  });
  return median(times) ?? 0;
}
const share = (ms: number, budgetMs: number): number => Math.round((1000 * ms) / budgetMs) / 1000;
const budgets = {
  'ways of one strum of 300, share of 20 ms': share(
    milliseconds(() => void rankFingerings(riff, 150, options)),
    20,
  ),
  'path through 300 strums, share of 1 s': share(
    milliseconds(
      () =>
        void chooseVoicings(
          riff.map((f) => candidateVoicings(soundingNotes(STANDARD_TUNING, f), STANDARD_TUNING)),
        ),
    ),
    1000,
  ),
};
const judging = judgingCosts();
const live = {
  'judging live, share of a core': Math.round(1000 * judging.shareOfCore) / 1000,
  'latest answer, beats after its strum': Math.round(100 * judging.latestAnswerBeats) / 100,
};
const made = {
  command: 'npm run bench:speed',
  date: new Date().toISOString().slice(0, 10),
  unit: 'times real time, one core, median of 5',
};
writeFileSync(
  join(import.meta.dirname, 'results.json'),
  `${JSON.stringify({ ...made, results, budgets, live }, null, 2)}\n`,
);
process.stdout.write(`${JSON.stringify({ results, budgets, live }, null, 2)}\n`);
