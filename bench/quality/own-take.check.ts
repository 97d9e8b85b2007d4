/**
 * The gate in CI for judging a take: a guitar played by fluidsynth with planted mistakes, a device's delay, and a hand that is not a machine.
 * Floors stand well under what was measured.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { gatherEvidence, type WrittenStrum } from '@wild-needle/core/check';
import { judgeTake, placeTake, type JudgedTake } from '@wild-needle/core/practice';
import { createRandom, gaussian } from '@wild-needle/core/units';
import { readSound } from './read-sound';
import { midiOf, OVERDRIVEN_GUITAR, playMidi, type Note } from './play-midi';

const SOUNDFONT = '/usr/share/sounds/sf2/sf_GMbank.sf2';
const BEAT_S = 0.5;
const LEAD_S = 2;
const DELAY_S = 0.06;
const JITTER_S = 0.012;
/** Semitones over E of each strum, one a beat, eight bars. */
const ROOTS = Array.from({ length: 8 }, (_, bar) => [0, 3, 5, bar % 2 === 0 ? 7 : 10]).flat();
const MISSED = new Set([5, 14, 22]);
const WRONG = new Set([9, 18, 27]);
/** Struck beside what is written, beats. */
const EXTRA = [3.5, 11.5, 24.5];

const fifth = (root: number): number[] => [40 + root, 47 + root, 52 + root];
const writtenS = (strum: number): number => LEAD_S + strum * BEAT_S;
const WRITTEN: readonly WrittenStrum[] = ROOTS.map((root, n) => ({
  timeS: writtenS(n),
  endS: writtenS(n + 1) - 0.02,
  midi: fifth(root),
  palmMuted: false,
  dead: false,
}));

function judge(path: string, beatsS: readonly number[]): JudgedTake {
  const signal = readSound(path);
  const [samples] = signal.channels;
  const take = { samples, sampleRate: signal.sampleRate, beatsS, delayS: DELAY_S };
  let placed = placeTake(WRITTEN, take, []);
  const evidence = gatherEvidence(
    signal,
    (strokes) => (placed = placeTake(WRITTEN, take, strokes)).played,
    {},
  );
  return judgeTake(WRITTEN, placed, evidence);
}

describe('a take with planted mistakes, played by fluidsynth', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wild-needle-take-'));
  let judged: JudgedTake;
  afterAll(() => rmSync(folder, { recursive: true }));

  beforeAll(() => {
    const random = createRandom(5);
    const strum = (atS: number, endS: number, midi: readonly number[]): Note[] =>
      midi.map((key, i) => ({ channel: 0, key, velocity: 100, fromS: atS + 0.003 * i, toS: endS }));
    const played = ROOTS.flatMap((root, n) => {
      if (MISSED.has(n)) return [];
      const atS = writtenS(n) + DELAY_S + JITTER_S * gaussian(random);
      // An extra stroke cuts off what rings.
      const cut = EXTRA.find((beat) => beat > n && beat < n + 1);
      const endS = DELAY_S + (cut === undefined ? writtenS(n + 1) : LEAD_S + cut * BEAT_S) - 0.03;
      return strum(atS, endS, fifth(WRONG.has(n) ? root + 1 : root));
    });
    const beside = EXTRA.flatMap((beat) => {
      const atS = LEAD_S + beat * BEAT_S + DELAY_S;
      return strum(atS, atS + 0.2, fifth(ROOTS[Math.floor(beat)]));
    });
    const path = playMidi(SOUNDFONT, folder, 'take', midiOf([...played, ...beside], [OVERDRIVEN_GUITAR], 0));
    const beatsS = Array.from({ length: ROOTS.length + 4 }, (_, beat) => writtenS(beat - 4));
    judged = judge(path, beatsS);
  }, 60_000);

  it('is played where it was played, and missed where it was left out', () => {
    const wrong = judged.strums.filter(({ played }, n) => played === MISSED.has(n)).length;
    expect(wrong).toBeLessThanOrEqual(1);
  });

  it('is late by what the hand was late, to 12 ms', () => {
    const offsets = judged.strums.flatMap(({ offsetS }) => (offsetS === null ? [] : [Math.abs(offsetS)]));
    const median = offsets.sort((a, b) => a - b)[Math.floor(offsets.length / 2)];
    expect(median).toBeLessThan(JITTER_S + 0.012);
  });

  it('has wrong notes where they were played, and hardly anywhere else', () => {
    const right = judged.strums.map(({ played, right: share }) => !played || share >= 0.5);
    expect([...WRONG].filter((n) => right[n]).length).toBeLessThanOrEqual(1);
    expect(right.filter((isRight, n) => !isRight && !WRONG.has(n)).length).toBeLessThanOrEqual(2);
  });

  it('has strokes that nobody wrote, two of three at least', () => {
    const found = EXTRA.filter((beat) =>
      judged.extraS.some((timeS) => Math.abs(timeS - (LEAD_S + beat * BEAT_S)) < 0.06),
    );
    expect(found.length).toBeGreaterThanOrEqual(2);
    expect(judged.extraS.length).toBeLessThanOrEqual(5);
  });
});
