import { describe, expect, it } from 'vitest';
import type { AnalysedStrum } from '../analysis';
import { keepVariation, PLAIN_SECTION, PLAIN_SONG, type Riff, type SongDocument, type Strum } from '../riff';
import { TICKS_PER_QUARTER } from '../units';
import { canTake, suggestionsFor, takeSuggestion, type Suggestion } from './heard-again';
import type { HeardStroke } from './place';
import { AS_WRITTEN, fifth, heardAs, RIFF, withAt, without } from './test-riff';

/** The riff of the tests, with nothing of it checked, three times over; half a second to the beat. */
const DRAFT: Riff = { ...RIFF, strums: RIFF.strums.map((s) => ({ ...s, trust: 'heard' as const })) };
const BEAT_S = 0.5;
const PASS_S = 8 * BEAT_S;
const PASSES = 3;
const songOf = (riff: Riff): SongDocument => ({
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 8 * PASSES + 1 }, (_, i) => BEAT_S * i),
    bars: Array.from({ length: 2 * PASSES }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
  },
  riffs: [riff],
  sections: [
    { ...PLAIN_SECTION, id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: PASSES, transpose: 0 },
  ],
});
const SONG = songOf(DRAFT);
const ALL = { startS: 0, endS: PASSES * PASS_S };

/** The recording, pass by pass. */
const record = (...passes: readonly (readonly HeardStroke[])[]): AnalysedStrum[] =>
  passes.flatMap((strokes, pass) =>
    strokes.map(({ ticks, endTicks, ...heard }) => ({
      ...heard,
      timeS: pass * PASS_S + (ticks / TICKS_PER_QUARTER) * BEAT_S,
      endS: pass * PASS_S + (endTicks / TICKS_PER_QUARTER) * BEAT_S,
      rootPc: 0,
      quality: '5',
      alternatives: [],
      name: '',
      voicings: [],
    })),
  );
const three = (strokes: readonly HeardStroke[]): AnalysedStrum[] => record(strokes, strokes, strokes);
const again = (before: readonly HeardStroke[], now: readonly HeardStroke[], song = SONG): Suggestion[] =>
  suggestionsFor(song, three(before), three(now), ALL);
const words = (suggestions: readonly Suggestion[]): string[] =>
  suggestions.map((s) => `${s.kind} ${s.strumId ?? Math.round(s.ticks)} ${s.passes}/${s.of}`);
const C5 = withAt(3, { midi: [48, 55] });
const F5 = withAt(3, { midi: [41, 48] });
const MORE = [...AS_WRITTEN.slice(0, 4), heardAs(3360, 45), ...AS_WRITTEN.slice(4)];
const take = (suggestion: Suggestion, song = SONG): readonly Strum[] =>
  takeSuggestion(song, suggestion, () => 'new').riffs[0].strums;

describe('a song that was heard again', () => {
  it('suggests what most passes contradict now and did not before', () => {
    const before = three(AS_WRITTEN);
    const suggested = (...now: readonly (readonly HeardStroke[])[]): string[] =>
      words(suggestionsFor(SONG, before, record(...now), ALL));
    expect(suggested(C5, C5, AS_WRITTEN)).toEqual(['chord d 2/3']);
    expect(suggested(C5, AS_WRITTEN, AS_WRITTEN)).toEqual([]);
    // Passes that contradict it in different ways agree on nothing.
    expect(suggested(C5, F5, AS_WRITTEN)).toEqual([]);
    // What was known before is no news, unless it sounds otherwise now.
    expect(again(C5, C5)).toEqual([]);
    expect(words(again(F5, C5))).toEqual(['chord d 3/3']);
  });

  it('asks the passes that were heard again, and no others', () => {
    const [before, now] = [three(AS_WRITTEN), record(AS_WRITTEN, C5, AS_WRITTEN)];
    const inSpan = (startS: number, endS: number): string[] =>
      words(suggestionsFor(SONG, before, now, { startS, endS }));
    expect(inSpan(PASS_S, 2 * PASS_S)).toEqual(['chord d 1/1']);
    // A loop of a bar, and one that reaches over a little into the next pass.
    expect(inSpan(PASS_S, 1.5 * PASS_S)).toEqual(['chord d 1/1']);
    expect(inSpan(PASS_S - 0.1, 2 * PASS_S + 0.1)).toEqual(['chord d 1/1']);
    expect(inSpan(0, PASS_S)).toEqual([]);
  });

  it('suggests strokes that came and went, mutes, and an early end', () => {
    expect(words(again(AS_WRITTEN, MORE))).toEqual(['extra 3360 3/3']);
    expect(words(again(AS_WRITTEN, without(1)))).toEqual(['missing b 3/3']);
    expect(words(again(AS_WRITTEN, withAt(0, { palmMuted: true })))).toEqual(['mute a 3/3']);
    expect(words(again(AS_WRITTEN, without(4, 5)))).toEqual(['early-end e 3/3']);
  });

  it('is written as it is heard now', () => {
    const [chord] = again(AS_WRITTEN, C5);
    expect(take(chord)[3]).toMatchObject({
      id: 'd',
      frets: [
        { string: 5, fret: 3 },
        { string: 4, fret: 5 },
      ],
    });
    const [high] = again(AS_WRITTEN, withAt(3, { midi: [84] }));
    expect(take(high)[3].frets).toEqual([{ string: 1, fret: 20 }]);
    const [mute] = again(AS_WRITTEN, withAt(0, { palmMuted: true }));
    expect(take(mute)[0]).toMatchObject({ palmMute: true, frets: fifth(3) });
    const ids = (suggestion: Suggestion): string =>
      take(suggestion)
        .map((s) => s.id)
        .join('');
    expect(ids(again(AS_WRITTEN, without(1))[0])).toBe('acdef');
    expect(ids(again(AS_WRITTEN, MORE)[0])).toBe('abcdnewef');
    expect(ids(again(AS_WRITTEN, without(4, 5))[0])).toBe('abcd');
  });

  it('never touches what was checked by ear, and is done once', () => {
    const checked = songOf(RIFF);
    for (const now of [C5, without(1), without(4, 5), withAt(0, { palmMuted: true })]) {
      expect(again(AS_WRITTEN, now, checked)).toEqual([]);
      const [suggestion] = again(AS_WRITTEN, now);
      expect(canTake(checked, suggestion)).toBe(false);
      expect(canTake(SONG, suggestion)).toBe(true);
      expect(
        canTake(
          takeSuggestion(SONG, suggestion, () => 'new'),
          suggestion,
        ),
      ).toBe(false);
    }
    const [extra] = again(AS_WRITTEN, MORE);
    expect(
      canTake(
        takeSuggestion(SONG, extra, () => 'new'),
        extra,
      ),
    ).toBe(false);
    expect(canTake({ ...SONG, riffs: [] }, extra)).toBe(false);
  });

  it('leaves passes that play a variation to the variation', () => {
    const ending = { ...DRAFT.strums[5], id: 'v' };
    const variation = {
      id: 'v1',
      name: 'Ending 2',
      fromTicks: 3840,
      toTicks: 7680,
      strums: [ending],
      guitar2: [],
    };
    const song = keepVariation(SONG, 's', 2, variation);
    const last = AS_WRITTEN.filter((_, i) => i !== 4);
    const found = suggestionsFor(
      song,
      record(AS_WRITTEN, AS_WRITTEN, last),
      record(AS_WRITTEN, AS_WRITTEN, last.with(-1, heardAs(5750, 48))),
      ALL,
    );
    expect(words(found)).toEqual(['chord v 1/1']);
    const after = takeSuggestion(song, found[0], () => 'new').riffs[0];
    expect(after.strums).toEqual(DRAFT.strums);
    expect(after.variations[0].strums[0].frets).not.toEqual(ending.frets);
  });
});
