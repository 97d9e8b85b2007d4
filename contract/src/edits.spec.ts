/**
 * Every edit of a valid document is a valid document, whatever it is given: then no save is refused for what a screen did.
 * One table of all edits, as long as there are edits.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseTuning, STANDARD_TUNING } from '@wild-needle/core/guitar';
import { changePassTo, changeRiffTo, keepWritten, leaveDoubtful } from '@wild-needle/core/draft';
import * as edits from '@wild-needle/core/riff';
import type { SongDocument, Variation } from '@wild-needle/core/riff';
import { songDocumentSchema } from './document';

const { MARKS, PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, PLAIN_STRUM, TEXT_LIMITS } = edits;
type Edit = (document: SongDocument) => SongDocument;

/** Texts as they are typed and pasted: empty, blank, far too long, with characters of two units at the cut. */
const text = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.constantFrom('', '   ', 'x'.repeat(5000), `${'x'.repeat(79)}🎸`, `${'x'.repeat(999)}🎸`, '\u0000\n\t'),
);
/** Numbers from a slip of the mouse, and usual ones. */
const int = fc.oneof(fc.integer({ min: -6, max: 12 }), fc.constantFrom(-1e9, 1e9, 79, 1001));
const timeS = fc.oneof(fc.double({ min: -20, max: 60, noNaN: true }), fc.constantFrom(-1e6, 1e6, 3599));
const strumId = fc.constantFrom('s0', 's1', 's2', 'v0', 'new', 'gone');
const riffId = fc.constantFrom('a', 'b', 'gone');
const sectionId = fc.constantFrom('1', '2', '3', 'gone');
/** A place of a pass as Check asks about it, and what was heard there. */
const asked = fc.record({
  sectionId,
  pass: fc.nat(4),
  ticks: fc.nat(40).map((n) => 240 * n),
  strumId: fc.option(strumId),
});
const instead = fc.record({
  ticks: fc.integer({ min: -4, max: 50 }).map((n) => 240 * n),
  heard: fc.option(
    fc.record({
      midi: fc.constantFrom([40, 47, 52], [45, 52], [31, 38], [], [90]),
      palmMuted: fc.boolean(),
      dead: fc.boolean(),
    }),
  ),
});
let made = 0;
const newId = (): string => `made-${made++}`;

const tunings = [STANDARD_TUNING, parseTuning('D2,A2,D3,G3,B3,E4'), { ...STANDARD_TUNING, capo: 7 }];
const strum = (id: string, startTicks: number) => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 480,
  frets: [
    { string: 6, fret: 3 },
    { string: 5, fret: 5 },
  ],
  trust: 'heard' as const,
});

/** Two riffs, a variation, three sections of which one has the longest name there may be. */
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'Song',
  grid: {
    beatsS: Array.from({ length: 65 }, (_, i) => 1 + i / 2),
    bars: Array.from({ length: 16 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
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
      strums: [strum('s0', 0), strum('s1', 960), strum('s2', 5000)],
      variations: [
        { id: 'v', name: 'Ending', fromTicks: 3840, toTicks: 7680, strums: [strum('v0', 4000)], guitar2: [] },
      ],
      barNotes: [{ bar: 1, text: 'slow', todo: true }],
      groups: [{ name: 'turn', startBar: 1, bars: 1 }],
    },
    { ...PLAIN_RIFF, id: 'b', letter: 'B', name: 'Riff B', bars: [{ beats: 3, unit: 4 }], strums: [] },
  ],
  sections: [
    {
      ...PLAIN_SECTION,
      id: '1',
      name: 'x'.repeat(TEXT_LIMITS.name),
      riffId: 'a',
      startBar: 0,
      passes: 2,
      transpose: 0,
    },
    { ...PLAIN_SECTION, id: '2', name: 'Verse', riffId: 'a', startBar: 4, passes: 2, transpose: 0 },
    { ...PLAIN_SECTION, id: '3', name: 'Bridge', riffId: 'b', startBar: 10, passes: 3, transpose: 2 },
  ],
};

const fret = fc.record({ string: int, fret: int });
const command = fc.constantFrom(...(Object.keys(MARKS) as edits.MarkCommand[]));
const ids = fc.array(strumId, { maxLength: 3 }).map((some) => new Set(some));
const variation = (name: string): Variation => ({
  id: newId(),
  name,
  fromTicks: 0,
  toTicks: 3840,
  strums: [strum(newId(), 240)],
  guitar2: [],
});
const nameOfLoop = fc.record({ id: fc.constantFrom('l1', 'l2'), name: text, startS: timeS, endS: timeS });

/** A step for every edit that `core/riff` exports. */
const EDITS: Readonly<Record<string, fc.Arbitrary<Edit>>> = {
  setTitle: fc.tuple(text, text).map(
    ([t, a]): Edit =>
      (d) =>
        edits.setTitle(d, t, a),
  ),
  setReferenceCents: timeS.map(
    (c): Edit =>
      (d) =>
        edits.setReferenceCents(d, c),
  ),
  setTuneTo: fc.constantFrom(...edits.TUNE_TO).map(
    (t): Edit =>
      (d) =>
        edits.setTuneTo(d, t),
  ),
  keepLoop: nameOfLoop.map(
    (l): Edit =>
      (d) =>
        edits.keepLoop(d, l),
  ),
  removeLoop: fc.constant((d) => edits.removeLoop(d, 'l1')),
  setFret: fc.tuple(riffId, strumId, fret).map(
    ([r, s, f]): Edit =>
      (d) =>
        edits.setFret(d, r, s, f),
  ),
  clearFret: fc.tuple(riffId, strumId, int).map(
    ([r, s, n]): Edit =>
      (d) =>
        edits.clearFret(d, r, s, n),
  ),
  setFrets: fc.tuple(riffId, ids, fc.uniqueArray(fret, { selector: (f) => f.string, maxLength: 7 })).map(
    ([r, s, f]): Edit =>
      (d) =>
        edits.setFrets(d, r, s, f),
  ),
  shiftFrets: fc.tuple(riffId, ids, int, int).map(
    ([r, s, frets, strings]): Edit =>
      (d) =>
        edits.shiftFrets(d, r, s, { frets, strings }),
  ),
  setMark: fc.tuple(riffId, ids, command).map(
    ([r, s, c]): Edit =>
      (d) =>
        edits.setMark(d, r, s, c),
  ),
  markChecked: fc.tuple(riffId, ids).map(
    ([r, s]): Edit =>
      (d) =>
        edits.markChecked(d, r, s),
  ),
  setTrust: fc.tuple(riffId, ids, fc.constantFrom(...edits.TRUSTS)).map(
    ([r, s, trust]): Edit =>
      (d) =>
        edits.setTrust(d, r, s, trust),
  ),
  settle: fc.tuple(sectionId, fc.nat(4), fc.nat(20), fc.constantFrom(...edits.SETTLED_ANSWERS)).map(
    ([s, pass, place, answer]): Edit =>
      (d) =>
        edits.settle(d, [{ sectionId: s, pass, ticks: 240 * place, written: 'open 40 47' }], answer),
  ),
  keepWritten: asked.map(
    (place): Edit =>
      (d) =>
        keepWritten(d, [place], () => true),
  ),
  leaveDoubtful: asked.map(
    (place): Edit =>
      (d) =>
        leaveDoubtful(d, place),
  ),
  changeRiffTo: fc.tuple(asked, instead).map(
    ([place, i]): Edit =>
      (d) =>
        changeRiffTo(d, place, i, newId),
  ),
  changePassTo: fc.tuple(asked, instead, text).map(
    ([place, i, name]): Edit =>
      (d) =>
        changePassTo(d, place, i, { name, newId }),
  ),
  addVariation: fc.tuple(riffId, int, int, text).map(
    ([r, from, length, name]): Edit =>
      (d) =>
        edits.addVariation(
          d,
          r,
          { id: newId(), name, fromTicks: 960 * from, toTicks: 960 * (from + length) },
          newId,
        ),
  ),
  mergeVariations: fc.tuple(riffId, fc.nat(3), fc.nat(3)).map(([r, from, into]): Edit => (d) => {
    const ids = d.riffs.flatMap((riff) => riff.variations.map((v) => v.id));
    return edits.mergeVariations(d, r, ids[from] ?? '', ids[into] ?? '');
  }),
  rewriteStrums: fc.tuple(riffId, ids, fc.boolean()).map(
    ([r, s, dead]): Edit =>
      (d) =>
        edits.rewriteStrums(
          d,
          r,
          new Map([...s].map((id) => [id, { dead, frets: [{ string: 1, fret: 3 }] }])),
        ),
  ),
  markUnchecked: fc.tuple(riffId, ids).map(
    ([r, s]): Edit =>
      (d) =>
        edits.markUnchecked(d, r, s, (id) => id < 'm'),
  ),
  setStrumNote: fc.tuple(riffId, strumId, text).map(
    ([r, s, t]): Edit =>
      (d) =>
        edits.setStrumNote(d, r, s, t),
  ),
  lengthenStrums: fc.tuple(riffId, ids, int).map(
    ([r, s, by]): Edit =>
      (d) =>
        edits.lengthenStrums(d, r, s, by * 240),
  ),
  removeStrums: fc.tuple(riffId, ids).map(
    ([r, s]): Edit =>
      (d) =>
        edits.removeStrums(d, r, s),
  ),
  addStrums: fc.tuple(riffId, fc.nat(9000), fc.constantFrom(null, 'v')).map(
    ([r, at, v]): Edit =>
      (d) =>
        edits.addStrums(d, r, [strum(newId(), at)], v),
  ),
  moveStrums: fc.tuple(riffId, ids, int).map(
    ([r, s, by]): Edit =>
      (d) =>
        edits.moveStrums(d, r, s, by * 240),
  ),
  repeatBar: fc.tuple(riffId, int).map(
    ([r, bar]): Edit =>
      (d) =>
        edits.repeatBar(d, r, bar, newId),
  ),
  addRiff: int.map(
    (bars): Edit =>
      (d) =>
        edits.addRiff(d, newId(), bars),
  ),
  renameRiff: fc.tuple(riffId, text).map(
    ([r, t]): Edit =>
      (d) =>
        edits.renameRiff(d, r, t),
  ),
  removeRiff: riffId.map(
    (r): Edit =>
      (d) =>
        edits.removeRiff(d, r),
  ),
  addBars: fc.tuple(riffId, fc.constantFrom(1 as const, -1 as const)).map(
    ([r, by]): Edit =>
      (d) =>
        edits.addBars(d, r, by),
  ),
  doubleRiff: riffId.map(
    (r): Edit =>
      (d) =>
        edits.doubleRiff(d, r, newId),
  ),
  splitRiff: sectionId.map(
    (s): Edit =>
      (d) =>
        edits.splitRiff(d, s, newId),
  ),
  mergeRiffs: fc.tuple(riffId, riffId).map(
    ([a, b]): Edit =>
      (d) =>
        edits.mergeRiffs(d, a, b),
  ),
  setBarNote: fc.tuple(riffId, int, text).map(
    ([r, b, t]): Edit =>
      (d) =>
        edits.setBarNote(d, r, b, t, true),
  ),
  setGroup: fc.tuple(riffId, int, int, text).map(
    ([r, b, n, t]): Edit =>
      (d) =>
        edits.setGroup(d, r, b, n, t),
  ),
  renameSection: fc.tuple(sectionId, text).map(
    ([s, t]): Edit =>
      (d) =>
        edits.renameSection(d, s, t),
  ),
  moveSection: fc.tuple(sectionId, int).map(
    ([s, by]): Edit =>
      (d) =>
        edits.moveSection(d, s, by),
  ),
  confirmStart: sectionId.map(
    (s): Edit =>
      (d) =>
        edits.confirmStart(d, s),
  ),
  beginSection: fc.tuple(sectionId, int).map(
    ([s, bar]): Edit =>
      (d) =>
        edits.beginSection(d, s, bar),
  ),
  addPasses: fc.tuple(sectionId, int).map(
    ([s, by]): Edit =>
      (d) =>
        edits.addPasses(d, s, by),
  ),
  beginPart: fc.tuple(int, sectionId).map(
    ([bar]): Edit =>
      (d) =>
        edits.beginPart(d, bar, { sectionId: newId(), riffId: newId() }),
  ),
  lengthenSection: fc.tuple(sectionId, int).map(
    ([id, by]): Edit =>
      (d) =>
        edits.lengthenSection(d, id, by),
  ),
  removeSection: sectionId.map(
    (id): Edit =>
      (d) =>
        edits.removeSection(d, id),
  ),
  setSectionKey: sectionId.map(
    (id): Edit =>
      (d) =>
        edits.setSectionKey(d, id, { tonic: 'D', mode: 'minor' }),
  ),
  setSectionRiff: fc.tuple(sectionId, riffId).map(
    ([s, r]): Edit =>
      (d) =>
        edits.setSectionRiff(d, s, r),
  ),
  setSectionTranspose: fc.tuple(sectionId, int).map(
    ([s, by]): Edit =>
      (d) =>
        edits.setSectionTranspose(d, s, by),
  ),
  setSectionTone: fc.tuple(sectionId, text).map(
    ([s, t]): Edit =>
      (d) =>
        edits.setSectionTone(d, s, t),
  ),
  splitSection: fc.tuple(sectionId, int).map(
    ([s, bar]): Edit =>
      (d) =>
        edits.splitSection(d, s, bar, newId()),
  ),
  joinWithNext: sectionId.map(
    (s): Edit =>
      (d) =>
        edits.joinWithNext(d, s),
  ),
  sameRiff: fc.tuple(sectionId, fc.nat(4)).map(
    ([s, p]): Edit =>
      (d) =>
        edits.sameRiff(d, s, p),
  ),
  reopenPass: fc.tuple(sectionId, fc.nat(4)).map(
    ([s, p]): Edit =>
      (d) =>
        edits.reopenPass(d, s, p),
  ),
  keepVariation: fc.tuple(sectionId, fc.nat(4), text).map(
    ([s, p, name]): Edit =>
      (d) =>
        edits.keepVariation(d, s, p, variation(name)),
  ),
  useVariation: fc.tuple(sectionId, fc.nat(4)).map(
    ([s, p]): Edit =>
      (d) =>
        edits.useVariation(d, s, p, 'v'),
  ),
  renameVariation: fc.tuple(riffId, text).map(
    ([r, t]): Edit =>
      (d) =>
        edits.renameVariation(d, r, 'v', t),
  ),
  removeVariation: riffId.map(
    (r): Edit =>
      (d) =>
        edits.removeVariation(d, r, 'v'),
  ),
  doubleTempo: fc.constant(edits.doubleTempo),
  halveTempo: fc.constant(edits.halveTempo),
  moveDownbeat: fc
    .tuple(fc.integer({ min: -5, max: 5 }), fc.constantFrom('sound' as const, 'bar' as const))
    .map(
      ([by, keeps]): Edit =>
        (d) =>
          edits.moveDownbeat(d, by, keeps),
    ),
  moveBarLine: fc.tuple(int, timeS).map(
    ([bar, t]): Edit =>
      (d) =>
        edits.moveBarLine(d, bar, t),
  ),
  setBarBeats: fc.tuple(int, int).map(
    ([bar, beats]): Edit =>
      (d) =>
        edits.setBarBeats(d, bar, beats),
  ),
  freeBars: fc.tuple(int, int).map(
    ([from, count]): Edit =>
      (d) =>
        edits.freeBars(d, from, count),
  ),
  fillGap: fc.tuple(int, fc.constantFrom('before' as const, 'behind' as const), timeS).map(
    ([bar, side, durationS]): Edit =>
      (d) =>
        edits.fillGap(d, bar, side, durationS),
  ),
  setMeter: fc.tuple(int, int, int, fc.constantFrom(...edits.UNITS)).map(
    ([from, count, beats, unit]): Edit =>
      (d) =>
        edits.setMeter(d, { from, end: from + count }, { beats, unit }),
  ),
  useReading: fc.tuple(fc.constantFrom(30, 60, 90, 180, 999), int).map(
    ([tempoBpm, beats]): Edit =>
      (d) =>
        edits.useReading(d, { tempoBpm, meter: { beats, unit: 4 } }),
  ),
  addPickUp: int.map(
    (beats): Edit =>
      (d) =>
        edits.addPickUp(d, beats),
  ),
  replaceGrid: fc
    .tuple(fc.double({ min: 0.01, max: 3, noNaN: true }), fc.double({ min: 0, max: 5, noNaN: true }))
    .map(([period, from]): Edit => (d) => {
      const beatsS = [0, 1, 2, 3, 4, 5].map((i) => from + i * period);
      return edits.replaceGrid(d, { beatsS, bars: [{ beat: 1, beats: 3, unit: 4 }] });
    }),
  layTapped: fc.tuple(fc.double({ min: 0.2, max: 3, noNaN: true }), timeS, fc.boolean()).map(
    ([period, from, follows]): Edit =>
      (d) =>
        edits.layTapped(d, {
          beatsS: [0, 1, 2, 3].map((i) => from + i * period),
          meter: { beats: 4, unit: 4 },
          rest: follows ? 'follows' : 'keeps',
          onsetsS: [],
          durationS: 40,
        }),
  ),
  addSecondGuitar: fc.constant(edits.addSecondGuitar),
  removeSecondGuitar: fc.constant(edits.removeSecondGuitar),
  swapGuitars: fc.constant(edits.swapGuitars),
  giveToOther: fc.tuple(riffId, ids).map(
    ([r, s]): Edit =>
      (d) =>
        edits.giveToOther(d, r, s),
  ),
  retune: fc.constantFrom(...tunings).map(
    (t): Edit =>
      (d) =>
        edits.retune(d, t),
  ),
  leaveOutLost: fc.constant(edits.leaveOutLost),
};

/** Exported functions that take a document and are no edits of it, or that edits of the list are made of. */
const NO_EDITS = ['asGuitar', 'changeAsGuitar', 'changeRiff', 'setSections', 'settledAt'];

describe('an edit of a valid document', () => {
  it('is here, whichever it is', () => {
    const verbs =
      /^(add|set|move|remove|keep|use|rename|split|merge|join|double|halve|free|repeat|mark|clear|shift|lengthen|give|swap|confirm|begin|same|reopen|replace|barsBefore)/;
    const exported = Object.entries(edits)
      .filter(([name, value]) => typeof value === 'function' && verbs.test(name))
      .map(([name]) => name)
      .filter((name) => !NO_EDITS.includes(name) && name !== 'markState' && name !== 'markWords');
    expect(exported.filter((name) => !(name in EDITS))).toEqual([]);
  });

  it('begins with one', () => {
    expect(songDocumentSchema.safeParse(SONG).error).toBeUndefined();
  });

  it('is a valid document, in any sequence', () => {
    const step = fc.oneof(
      ...Object.entries(EDITS).map(([name, edit]) => edit.map((apply) => ({ name, apply }))),
    );
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
        let document = SONG;
        for (const { name, apply } of steps) {
          document = apply(document);
          const { error } = songDocumentSchema.safeParse(document);
          if (error) throw new Error(`${name}: ${JSON.stringify(error.issues[0])}`);
        }
      }),
      { numRuns: 600 },
    );
  });

  it('keeps within limits where it is repeated without end', () => {
    let document = SONG;
    for (let i = 0; i < 14; i++) document = edits.doubleTempo(document);
    for (let i = 0; i < 14; i++) document = edits.doubleRiff(document, 'b', newId);
    for (let i = 0; i < 300; i++) document = edits.addRiff(document, newId(), 4);
    for (let i = 0; i < 300; i++) {
      document = edits.keepLoop(document, { id: newId(), name: `Loop ${i}`, startS: i, endS: i + 1 });
    }
    for (let i = 0; i < 150; i++) {
      document = edits.keepVariation(document, '1', 0, { ...variation(`V${i}`), toTicks: 3840 + i });
    }
    expect(songDocumentSchema.safeParse(document).error).toBeUndefined();
  });
});
