import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseTuning, STANDARD_TUNING } from '../guitar';
import { PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, strumNotes, type SongDocument, type Strum } from '../riff';
import { makeVersion, SHEET_VERSIONS, standardFor } from './versions';

const strum = (
  id: string,
  startTicks: number,
  frets: readonly [number, number][],
  more: Partial<Strum> = {},
): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 480,
  frets: frets.map(([string, fret]) => ({ string, fret })),
  trust: 'heard',
  ...more,
});
const FIFTH_BELOW = strum('inverted', 960, [
  [5, 5],
  [4, 5],
]);
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  riffs: [
    {
      ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A', bars: [{ beats: 4, unit: 4 }] },
      strums: [
        strum('three', 0, [
          [6, 3],
          [5, 5],
          [4, 5],
        ]),
        strum(
          'muted',
          480,
          [
            [6, 0],
            [5, 2],
          ],
          { palmMute: true },
        ),
        FIFTH_BELOW,
        strum('dead', 1440, [], { dead: true }),
      ],
    },
  ],
};
/** What sounds, in order: a version must sound right. */
const sounds = ({ riffs, tuning }: SongDocument): string[] =>
  riffs[0].strums.map((s) =>
    s.dead ? 'dead' : `${strumNotes(s, tuning).join(' ')}${s.palmMute ? ' muted' : ''}`,
  );

describe('a version of the tab', () => {
  it.each([
    ['as-written', ['43 50 55', '40 47 muted', '50 55', 'dead'], 0, 0],
    ['two-strings', ['43 50', '40 47 muted', '50 55', 'dead'], 1, 0],
    // Of a fifth with its root on top, the root.
    ['one-string', ['43', '40 muted', '55', 'dead'], 3, 0],
    ['no-mutes', ['43 50 55', '40 47', '50 55'], 1, 1],
  ] as const)('%s sounds right, and says what changed', (version, expected, changed, gone) => {
    const made = makeVersion(SONG, version);
    expect(sounds(made.document)).toEqual(expected);
    expect([made.changed, made.gone, made.lost]).toEqual([changed, gone, 0]);
  });

  it('in standard tuning sounds as it did, but for what that tuning lacks', () => {
    const dropped = { ...SONG, tuning: parseTuning('D2,A2,D3,G3,B3,E4') };
    const made = makeVersion(dropped, 'standard-tuning');
    expect(made.document.tuning).toEqual(STANDARD_TUNING);
    const before = sounds(dropped)[0].split(' ').map(Number);
    expect(sounds(made.document)[0].split(' ').map(Number)).toEqual(before.filter((n) => n >= 40));
    expect(made.lost).toBeGreaterThan(0);
  });

  it('with a capo sounds as it did, on open strings', () => {
    const high = (frets: readonly [number, number][]): Strum => strum(JSON.stringify(frets), 0, frets);
    const at = [
      high([
        [6, 3],
        [5, 5],
      ]),
      {
        ...high([
          [5, 3],
          [4, 5],
        ]),
        startTicks: 960,
      },
    ];
    const song = { ...SONG, riffs: [{ ...SONG.riffs[0], strums: at }] };
    const made = makeVersion(song, 'with-capo');
    expect(made.document.tuning.capo).toBe(3);
    expect(sounds(made.document)).toEqual(sounds(song));
    expect(made.document.riffs[0].strums.every((s) => s.frets.some((f) => f.fret === 0))).toBe(true);
  });

  it('gives guitars of other sizes the standard of their size', () => {
    expect(standardFor(parseTuning('B1,E2,A2,D3,G3,B3,E4')).stringsMidi).toEqual([
      35, 40, 45, 50, 55, 59, 64,
    ]);
    expect(standardFor(parseTuning('A2,D3,G3,B3,E4')).stringsMidi).toEqual([45, 50, 55, 59, 64]);
  });

  it('for one guitar has the notes of both where a hand reaches, and what the second plays alone', () => {
    const [riff] = SONG.riffs;
    const guitar2 = [
      strum('octave', 0, [[3, 0]]),
      strum('far', 480, [[1, 20]]),
      strum('alone', 1920, [
        [5, 2],
        [4, 4],
      ]),
      strum('high', 2400, [[1, 20]]),
    ];
    const two = { ...SONG, guitar2: STANDARD_TUNING, riffs: [{ ...riff, guitar2 }] };
    const made = makeVersion(two, 'one-guitar');
    expect(made.document.guitar2).toBeNull();
    // The octave is struck along, the lone strum taken over; what lies too far is left out.
    expect([made.taken, made.gone]).toEqual([3, 1]);
    expect(sounds(made.document)).toEqual(['43 50 55', '40 47 muted', '50 55', 'dead', '47 54', '84']);
  });

  it('never writes a note that the song does not have', () => {
    const fret = fc.integer({ min: 0, max: 12 });
    const frets = fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: 6 }), fret), {
      selector: ([string]) => string,
      minLength: 1,
      maxLength: 4,
    });
    fc.assert(
      fc.property(frets, fc.constantFrom(...SHEET_VERSIONS), fc.boolean(), (some, version, palmMute) => {
        const [riff] = SONG.riffs;
        const song = {
          ...SONG,
          riffs: [{ ...riff, strums: [strum('x', 0, some, { palmMute })] }],
        };
        const { document } = makeVersion(song, version);
        const [before, after] = [song, document].map((d) =>
          d.riffs[0].strums.flatMap((s) => strumNotes(s, d.tuning)),
        );
        // Under a capo the lowest notes are lost, and said to be.
        if (version !== 'with-capo') expect(after.length).toBeGreaterThan(0);
        expect(after.every((note) => before.includes(note))).toBe(true);
      }),
    );
  });
});
