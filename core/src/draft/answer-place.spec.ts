import { describe, expect, it } from 'vitest';
import {
  keepVariation,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  strumsInPasses,
  type SongDocument,
  type Strum,
} from '../riff';
import {
  changePassTo,
  changeRiffTo,
  fretsNear,
  keepWritten,
  leaveDoubtful,
  placesOfStrum,
  type AskedPlace,
  type HeardThere,
} from './answer-place';

const strum = (id: string, startTicks: number, fret: number): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 960,
  frets: [
    { string: 6, fret },
    { string: 5, fret: fret + 2 },
    { string: 4, fret: fret + 2 },
  ],
  trust: 'heard',
});
/** Two bars of riff, three passes. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: {
    beatsS: Array.from({ length: 25 }, (_, i) => i / 2),
    bars: Array.from({ length: 6 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
  },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'a',
      letter: 'A',
      name: 'Riff A',
      bars: [
        { beats: 4, unit: 4 },
        { beats: 4, unit: 4 },
      ],
      strums: [strum('s0', 0, 3), strum('s1', 1920, 5), strum('s2', 3840, 7)],
    },
  ],
  sections: [{ ...PLAIN_SECTION, id: 'v', name: 'Verse', riffId: 'a', startBar: 0, passes: 3, transpose: 0 }],
};
const at = (pass: number, strumId: string | null, ticks: number): AskedPlace => ({
  sectionId: 'v',
  pass,
  ticks,
  strumId,
});
const D5: HeardThere = { midi: [50, 57, 62], palmMuted: false, dead: false };
let made = 0;
const newId = (): string => `new-${made++}`;
/** What sounds in each pass, by its notes. */
const passes = (song: SongDocument): string[] =>
  [0, 1, 2].map((pass) =>
    strumsInPasses(song)
      .filter((s) => s.pass.index === pass)
      .map((s) => `${s.ticks}:${s.written}`)
      .join(', '),
  );
const AS_WRITTEN = '0:open 43 50 55, 1920:open 45 52 57, 3840:open 47 54 59';

describe('an answer to what is asked about one place', () => {
  it('keeps what is written and settles the place, in this pass alone', () => {
    const kept = keepWritten(SONG, [at(1, 's1', 1920)], () => false);
    expect(kept.riffs).toBe(SONG.riffs);
    expect(
      strumsInPasses(kept)
        .filter((s) => s.settled === 'kept')
        .map((s) => s.id),
    ).toEqual(['v/1/s1']);
  });

  it('counts a strum as checked when no pass leaves it open any more', () => {
    const agrees = ({ pass }: AskedPlace): boolean => pass !== 2;
    const once = keepWritten(SONG, [at(0, 's1', 1920)], agrees);
    expect(once.riffs[0].strums[1].trust).toBe('heard');
    const twice = keepWritten(once, [at(2, 's1', 1920)], agrees);
    expect(twice.riffs[0].strums[1].trust).toBe('checked');
  });

  it('asks again once something else is written there', () => {
    const kept = keepWritten(SONG, [at(1, 's1', 1920)], () => false);
    const changed = changeRiffTo(kept, at(0, 's1', 1920), { heard: D5, ticks: 1920 }, newId);
    const settled = strumsInPasses(changed).filter((s) => s.settled !== null);
    expect(settled.map((s) => s.id)).toEqual(['v/0/s1']);
  });

  it('leaves a strum for later, and says so on it', () => {
    const later = leaveDoubtful(SONG, at(0, 's2', 3840));
    expect(later.riffs[0].strums[2].trust).toBe('doubtful');
    expect(strumsInPasses(later).find((s) => s.id === 'v/0/s2')?.settled).toBe('doubtful');
  });

  it('writes what is heard into the riff, for all passes, where the hand is', () => {
    const changed = changeRiffTo(
      SONG,
      at(1, 's1', 1920),
      { heard: { ...D5, midi: [46, 53, 58] }, ticks: 1920 },
      newId,
    );
    expect(changed.riffs[0].strums[1].frets).toEqual([
      { string: 6, fret: 6 },
      { string: 5, fret: 8 },
      { string: 4, fret: 8 },
    ]);
    expect(new Set(passes(changed))).toEqual(new Set([AS_WRITTEN.replace('45 52 57', '46 53 58')]));
  });

  it('writes it as a variation of this pass, and the riff stays as it is', () => {
    const changed = changePassTo(
      SONG,
      at(1, 's1', 1920),
      { heard: D5, ticks: 1920 },
      { name: 'Other', newId },
    );
    const [first, second, third] = passes(changed);
    expect([first, third]).toEqual([AS_WRITTEN, AS_WRITTEN]);
    expect(second).toBe(AS_WRITTEN.replace('45 52 57', '50 57 62'));
    expect(changed.riffs[0].variations[0]).toMatchObject({ name: 'Other', fromTicks: 0, toTicks: 3840 });
    expect(
      strumsInPasses(changed)
        .filter((s) => s.settled === 'kept')
        .map((s) => s.ticks),
    ).toEqual([1920]);
  });

  it('uses the same variation for the same change in another pass', () => {
    const instead = { heard: D5, ticks: 1920 };
    const once = changePassTo(SONG, at(1, 's1', 1920), instead, { name: 'Other', newId });
    const twice = changePassTo(once, at(2, 's1', 1920), instead, { name: 'Another', newId });
    expect(twice.riffs[0].variations).toHaveLength(1);
    expect(twice.sections[0].answers.map((a) => a.variationId)).toEqual([
      once.riffs[0].variations[0].id,
      once.riffs[0].variations[0].id,
    ]);
  });

  it('adds a second change to the variation that a pass plays already', () => {
    const once = changePassTo(SONG, at(1, 's1', 1920), { heard: D5, ticks: 1920 }, { name: 'Other', newId });
    const twice = changePassTo(
      once,
      at(1, 's2', 3840),
      { heard: null, ticks: 3840 },
      { name: 'More', newId },
    );
    expect(passes(twice)[1]).toBe('0:open 43 50 55, 1920:open 50 57 62');
    expect(passes(twice)[2]).toBe(AS_WRITTEN);
  });

  it.each([
    [
      'takes a strum out that is not there',
      at(0, 's1', 1920),
      { heard: null, ticks: 1920 },
      '0:open 43 50 55, 3840:open 47 54 59',
    ],
    [
      'moves one that is struck elsewhere',
      at(0, 's1', 1920),
      { heard: { midi: [45, 52, 57], palmMuted: false, dead: false }, ticks: 1440 },
      '0:open 43 50 55, 1440:open 45 52 57, 3840:open 47 54 59',
    ],
    [
      'writes one that is missing',
      at(0, null, 960),
      { heard: D5, ticks: 960 },
      '0:open 43 50 55, 960:open 50 57 62, 1920:open 45 52 57, 3840:open 47 54 59',
    ],
    [
      'mutes one',
      at(0, 's0', 0),
      { heard: { midi: [43, 50, 55], palmMuted: true, dead: false }, ticks: 0 },
      AS_WRITTEN.replace('open 43', 'muted 43'),
    ],
  ])('%s', (_, place, instead, expected) => {
    expect(passes(changeRiffTo(SONG, place, instead, newId))[2]).toBe(expected);
    expect(passes(changePassTo(SONG, place, instead, { name: 'X', newId }))[0]).toBe(expected);
  });

  it.each([
    ['notes that this tuning can’t play', { heard: { ...D5, midi: [20, 27] }, ticks: 1920 }],
    ['a place outside of the riff', { heard: D5, ticks: 9000 }],
    ['a place before it', { heard: D5, ticks: -240 }],
  ])('changes nothing for %s', (_, instead) => {
    expect(changeRiffTo(SONG, at(0, 's1', 1920), instead, newId)).toBe(SONG);
    expect(changePassTo(SONG, at(0, 's1', 1920), instead, { name: 'X', newId })).toBe(SONG);
  });

  it.each([
    [
      'a variation into the riff',
      at(1, 's2-end', 3840),
      3600,
      AS_WRITTEN,
      '0:open 43 50 55, 1920:open 45 52 57, 3600:open 50 57 62',
    ],
    [
      'a variation, named by a place beside it',
      at(1, 's2-end', 3360),
      3360,
      AS_WRITTEN,
      '0:open 43 50 55, 1920:open 45 52 57, 3360:open 50 57 62',
    ],
    [
      'the riff into a variation',
      at(1, 's1', 1920),
      4000,
      '0:open 43 50 55, 3840:open 47 54 59, 4000:open 50 57 62',
      '0:open 43 50 55, 3840:open 49 56 61, 4000:open 50 57 62',
    ],
  ])(
    'moves a stroke over the end of %s: all passes that play it play that, and no others',
    (_, asked, ticks, others, own) => {
      const varied = keepVariation(SONG, 'v', 1, {
        id: 'end',
        name: 'End',
        fromTicks: 3840,
        toTicks: 7680,
        strums: [{ ...strum('s2', 3840, 9), id: 's2-end' }],
        guitar2: [],
      });
      const changed = changeRiffTo(varied, asked, { heard: D5, ticks }, newId);
      const [riff] = changed.riffs;
      const ids = [...riff.strums, ...riff.variations[0].strums].map((s) => s.id);
      expect(new Set(ids).size).toBe(ids.length);
      expect(passes(changed)).toEqual([others, own, others]);
    },
  );

  it('knows where a strum is played: not where a variation stands for it', () => {
    const changed = changePassTo(
      SONG,
      at(1, 's1', 1920),
      { heard: D5, ticks: 1920 },
      { name: 'Other', newId },
    );
    expect(placesOfStrum(changed, 'a', 's1').map((p) => p.pass)).toEqual([0, 2]);
    expect(placesOfStrum(changed, 'a', 's2').map((p) => p.pass)).toEqual([0, 1, 2]);
  });
});

describe('frets near to the hand', () => {
  it('stay on the strings that are played', () => {
    const hand = [
      { string: 5, fret: 7 },
      { string: 4, fret: 9 },
    ];
    expect(fretsNear([53, 60], hand, SONG.tuning)).toEqual([
      { string: 5, fret: 8 },
      { string: 4, fret: 10 },
    ]);
    expect(fretsNear([10], hand, SONG.tuning)).toEqual([]);
    // C6, which the neck has at the twentieth fret of the highest string alone.
    expect(fretsNear([84], hand, SONG.tuning)).toEqual([{ string: 1, fret: 20 }]);
  });
});
