/** Made-up songs with every way to play, for the round trips of this folder; and what is played in them, to compare. */
import fc from 'fast-check';
import { STANDARD_TUNING, type Tuning } from '../guitar';
import {
  MARK_FIELDS,
  NO_MARKS,
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  playedPart,
  riffOfPass,
  riffTicks,
  type Marks,
  type Riff,
  type SongDocument,
  type Strum,
} from '../riff';
import { TICKS_PER_QUARTER } from '../units';

const EIGHTH = TICKS_PER_QUARTER / 2;
const HIGHEST = 17;

/** Values of a mark that a test leaves to chance; slides and ties need a strum before them and are put in place. */
const marks = fc.record({
  ...Object.fromEntries(
    Object.entries(MARK_FIELDS).map(([name, values]) => [
      name,
      'range' in values
        ? fc.constantFrom(0, 0, 0, 50, 100, 200)
        : fc.oneof({ weight: 4, arbitrary: fc.constant(values[0]) }, fc.constantFrom(...values)),
    ]),
  ),
}) as unknown as fc.Arbitrary<Marks>;

const frets = (strings: number): fc.Arbitrary<Strum['frets']> =>
  fc
    .uniqueArray(fc.integer({ min: 1, max: strings }), { minLength: 1, maxLength: 4 })
    .chain((own) =>
      fc
        .array(fc.integer({ min: 0, max: HIGHEST }), { minLength: own.length, maxLength: own.length })
        .map((at) => own.sort((a, b) => b - a).map((string, i) => ({ string, fret: at[i] }))),
    );

/** Strums on eighths or triplets, each as long as a step or until the next. */
function strums(bars: number, strings: number): fc.Arbitrary<Strum[]> {
  const step = fc.constantFrom(EIGHTH, TICKS_PER_QUARTER / 3, TICKS_PER_QUARTER / 4);
  const one = fc.record({
    beat: fc.nat(4 * bars - 1),
    step,
    index: fc.nat(3),
    isShort: fc.boolean(),
    frets: frets(strings),
    kind: fc.constantFrom('ringing', 'ringing', 'muted', 'dead', 'rest'),
    marks,
    note: fc.constantFrom('', '', '', 'softer here', 'a & b < c'),
  });
  return fc.array(one, { maxLength: 10 }).map((all) => {
    const end = 4 * bars * TICKS_PER_QUARTER;
    const placed = new Map<number, (typeof all)[number]>();
    for (const s of all) {
      const at = s.beat * TICKS_PER_QUARTER + (s.index % Math.round(TICKS_PER_QUARTER / s.step)) * s.step;
      placed.set(at, s);
    }
    const starts = [...placed.keys()].sort((a, b) => a - b);
    let before: Strum | null = null;
    return starts.map((startTicks, i): Strum => {
      const { kind, note, isShort, step: own, ...s } = placed.get(startTicks)!;
      const next = starts[i + 1] ?? end;
      const [rest, dead] = [kind === 'rest', kind === 'dead'];
      const isReached = before !== null && !before.rest && !before.dead && !rest && !dead;
      const durationTicks = isShort ? Math.min(own, next - startTicks) : next - startTicks;
      const join =
        isReached && before!.startTicks + before!.durationTicks === startTicks ? s.marks.join : null;
      const held = join === 'tie' ? before!.frets : null;
      const moved = s.frets.map((f, k) => ({ ...f, string: before?.frets[k]?.string ?? f.string }));
      const isOneEach = new Set(moved.map((f) => f.string)).size === moved.length;
      const reached = join !== null && isOneEach ? moved : s.frets;
      const own2 = held ?? (isReached && join !== null ? reached : s.frets);
      const strum: Strum = {
        ...PLAIN_STRUM,
        id: `s${i}`,
        startTicks,
        durationTicks,
        frets: rest || dead ? [] : [...own2].sort((a, b) => b.string - a.string),
        rest,
        dead,
        palmMute: kind === 'muted',
        marks: rest || dead ? NO_MARKS : { ...s.marks, join: sharesString(before, own2) ? join : null },
        note,
        trust: 'guessed',
      };
      before = strum;
      return strum;
    });
  });
}

function sharesString(before: Strum | null, frets: Strum['frets']): boolean {
  return before?.frets.some((f) => frets.some((g) => g.string === f.string)) ?? false;
}

const tuning: fc.Arbitrary<Tuning> = fc.constantFrom(
  STANDARD_TUNING,
  { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 },
  { name: 'seven-string', stringsMidi: [35, 40, 45, 50, 55, 59, 64], capo: 2 },
);

/** One riff to three, sections that play them, moved and varied; with a second guitar or without. */
export const madeUpSong: fc.Arbitrary<SongDocument> = fc
  .record({
    tuning,
    hasSecond: fc.boolean(),
    riffs: fc.integer({ min: 1, max: 3 }),
    bars: fc.integer({ min: 1, max: 3 }),
  })
  .chain(({ tuning: own, hasSecond, riffs: count, bars }) => {
    const strings = own.stringsMidi.length;
    const part = strums(bars, strings);
    const riff = fc.record({ strums: part, guitar2: hasSecond ? part : fc.constant([]), other: part });
    const section = fc.record({
      riff: fc.nat(count - 1),
      passes: fc.integer({ min: 1, max: 4 }),
      transpose: fc.constantFrom(0, 0, 2, 5),
      varied: fc.uniqueArray(fc.nat(3), { maxLength: 2 }),
    });
    return fc
      .tuple(
        fc.array(riff, { minLength: count, maxLength: count }),
        fc.array(section, { minLength: 1, maxLength: 4 }),
      )
      .map(([riffs, sections]) => madeUp(own, hasSecond, bars, riffs, sections));
  });

function madeUp(
  own: Tuning,
  hasSecond: boolean,
  bars: number,
  parts: readonly (Pick<Riff, 'strums' | 'guitar2'> & { readonly other: readonly Strum[] })[],
  sections: readonly { riff: number; passes: number; transpose: number; varied: readonly number[] }[],
): SongDocument {
  const riffs = parts.map(({ strums: strumsOf, guitar2, other }, i): Riff => {
    const letter = String.fromCharCode(65 + i);
    const from = 4 * (bars - 1) * TICKS_PER_QUARTER;
    const own = (all: readonly Strum[], who: string): Strum[] =>
      all.map((s) => ({ ...s, id: `${letter}-${who}-${s.id}` }));
    const ending = own(
      other.filter((s) => s.startTicks >= from && s.marks.join === null),
      'ending',
    );
    const toTicks = 4 * bars * TICKS_PER_QUARTER;
    return {
      ...PLAIN_RIFF,
      id: `r${i}`,
      letter,
      name: `Riff ${letter}`,
      bars: Array.from({ length: bars }, () => ({ beats: 4, unit: 4 as const })),
      strums: own(strumsOf, 'first'),
      guitar2: own(guitar2, 'second'),
      variations: [{ id: `v${i}`, name: 'Ending', fromTicks: from, toTicks, strums: ending, guitar2: [] }],
    };
  });
  let startBar = 0;
  const placed = sections.map((s, i) => {
    const at = startBar;
    startBar += s.passes * bars;
    return {
      ...PLAIN_SECTION,
      id: `section${i}`,
      name: `Part ${i + 1}`,
      riffId: `r${s.riff}`,
      startBar: at,
      passes: s.passes,
      transpose: s.transpose,
      answers: s.varied.filter((p) => p < s.passes).map((pass) => ({ pass, variationId: `v${s.riff}` })),
    };
  });
  const beats = 4 * startBar;
  return {
    ...PLAIN_SONG,
    title: 'Low Tide',
    artist: 'Tin Parliament',
    key: { tonic: 'E', mode: 'minor' },
    tuning: own,
    guitar2: hasSecond ? own : null,
    riffs,
    sections: placed,
    grid: {
      beatsS: Array.from({ length: beats + 1 }, (_, i) => i / 2),
      bars: Array.from({ length: startBar }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
    },
  };
}

/** How a strum is played, as a text. */
function strumText(strum: Strum, by: number, next: number): string {
  const { startTicks, durationTicks, palmMute, dead, rest, marks, note } = strum;
  const frets = strum.frets.map((f) => `${f.string}:${f.fret + by}`).sort();
  const lasts = Math.min(durationTicks, next - startTicks);
  return JSON.stringify([startTicks, lasts, frets, palmMute, dead, rest, marks, note]);
}

/** Everything that is played, pass after pass, for both guitars; `keep` leaves out what a format can't say. */
export function playedText(document: SongDocument, keep: (strum: Strum) => Strum = (s) => s): string[] {
  return document.sections.flatMap((section) => {
    const riff = document.riffs.find((r) => r.id === section.riffId);
    if (!riff) return [];
    return Array.from({ length: section.passes }, (_, index) => {
      const played = riffOfPass(riff, section, { ...playedPart(riff, section, index), index });
      const text = (all: readonly Strum[]): string =>
        all
          .map((s, i) => strumText(keep(s), section.transpose, all[i + 1]?.startTicks ?? riffTicks(riff)))
          .join('\n');
      return `${section.name} ${index + 1}\n${text(played.strums)}\n--\n${text(played.guitar2)}`;
    });
  });
}

/** The song with one mark a strum: where several meet, a text tab has no room for all of their signs. */
export function oneMarkEach(song: SongDocument): SongDocument {
  const simple = (strums: readonly Strum[]): Strum[] =>
    strums.map((s) => {
      const marked = (Object.keys(NO_MARKS) as (keyof Marks)[]).find(
        (name) => name !== 'stroke' && s.marks[name] !== NO_MARKS[name],
      );
      return { ...s, marks: marked ? { ...NO_MARKS, [marked]: s.marks[marked] } : NO_MARKS };
    });
  return {
    ...song,
    riffs: song.riffs.map((riff) => ({
      ...riff,
      strums: simple(riff.strums),
      guitar2: simple(riff.guitar2),
      variations: riff.variations.map((v) => ({ ...v, strums: simple(v.strums) })),
    })),
  };
}
