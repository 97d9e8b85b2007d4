/**
 * `tsx bench/speed/one-analysis.ts FILE`: one analysis in a process of its own, from decoded samples; prints its seconds, and
 * how much memory the process held at most, MB.
 */
import { performance } from 'node:perf_hooks';
import { analyse } from '@wild-needle/core/analysis';
import { readSound } from '../quality/read-sound';

const path = process.argv[2];
if (!path) throw new Error('name a sound file: tsx bench/speed/one-analysis.ts FILE');
const signal = readSound(path);
const start = performance.now();
analyse(signal);
const seconds = (performance.now() - start) / 1000;
const peakMb = Math.round(process.resourceUsage().maxRSS / 1024);
process.stdout.write(
  `${JSON.stringify({ lengthS: signal.channels[0].length / signal.sampleRate, seconds, peakMb })}\n`,
);
