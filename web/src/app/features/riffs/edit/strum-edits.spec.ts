import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { comparePass, ownDifferences, type HeardStroke } from '@wild-needle/core/draft';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_STRUM, type SongDocument } from '@wild-needle/core/riff';
import type { HeardPass } from '../../../open-song/heard-passes';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { PassAnswers } from '../../../open-song/pass-answers';
import { Say } from '../../../shared/say';
import { Lane } from '../view/lane';
import { RiffView } from '../view/riff-view';
import { DeckControl } from '../../../transport/deck-control';
import { StrumEdits } from './strum-edits';
import { TapAlong } from './tap-along';

const ID = '3fa85f64-5717-4562-b3fc-2c963f66afa6';
const bar = { beats: 4, unit: 4 } as const;
const strum = (id: string, startTicks: number): SongDocument['riffs'][number]['strums'][number] => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 480,
  frets: [{ string: 6, fret: 3 }],
  trust: 'heard',
});
const DOCUMENT: SongDocument = {
  schema: 'wild-needle/song@2',
  title: 'T',
  artist: '',
  tuning: STANDARD_TUNING,
  guitar2: null,
  tuneTo: 'concert',
  key: null,
  referenceOffsetCents: 0,
  recordings: [],
  loops: [],
  grid: {
    beatsS: Array.from({ length: 17 }, (_, i) => i),
    bars: [0, 4, 8, 12].map((beat) => ({ beat, ...bar })),
  },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'r',
      letter: 'A',
      name: 'A',
      bars: [bar, bar],
      strums: [strum('a', 0), strum('b', 960)],
    },
    { ...PLAIN_RIFF, id: 'e', letter: 'B', name: 'B', bars: [bar], strums: [] },
  ],
  sections: [{ ...PLAIN_SECTION, id: 's', name: 'S', riffId: 'r', startBar: 0, passes: 2, transpose: 0 }],
};
const heard = (ticks: number, low: number): HeardStroke => ({
  ticks,
  endTicks: ticks + 480,
  midi: [low],
  palmMuted: false,
  dead: false,
  confidence: 0.9,
});

describe('editing strums', () => {
  let song: InstanceType<typeof OpenSongStore>;
  let edits: StrumEdits;
  let taps: TapAlong;
  let answers: PassAnswers;
  let differing: Pick<HeardPass, 'pass' | 'strokes' | 'differences' | 'comparison' | 'whole'>;
  /** Strums of the layer that is shown; null for all. */
  let shown: ReadonlySet<string> | null;
  let said: string[];
  const written = (): string[] =>
    (song.riff()?.strums ?? []).map(
      (s) => `${s.startTicks}: ${s.frets.map((f) => `${f.string}/${f.fret}`).join(' ')}`,
    );

  beforeEach(() => {
    localStorage.clear();
    TestBed.resetTestingModule();
    const strokes = [heard(0, 43), heard(960, 48)];
    const passes = [strokes, [heard(0, 43), heard(960, 43)]].map((list) =>
      comparePass(DOCUMENT.riffs[0], list, STANDARD_TUNING),
    );
    const pass = { index: 0, sectionId: 's', riffId: 'r' } as HeardPass['pass'];
    differing = {
      whole: null,
      pass,
      strokes,
      differences: ownDifferences(passes)[0],
      comparison: passes[0],
    };
    shown = null;
    said = [];
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        StrumEdits,
        TapAlong,
        { provide: Lane, useValue: { barAtLoop: () => 0 } },
        { provide: DeckControl, useValue: { tapping: null } },
        { provide: Say, useValue: { say: (words: string) => said.push(words) } },
        {
          provide: RiffView,
          useValue: {
            tuning: () => STANDARD_TUNING,
            movedFrets: () => 0,
            passHere: () => null,
            heardPasses: () => [differing],
            shownIds: () => shown ?? new Set(song.riff()?.strums.map((s) => s.id)),
          },
        },
      ],
    });
    song = TestBed.inject(OpenSongStore);
    song.open(ID);
    TestBed.inject(HttpTestingController).expectOne(`/api/songs/${ID}`).flush({
      id: ID,
      revision: 1,
      savedAt: '2026-01-01T00:00:00.000Z',
      document: DOCUMENT,
      recording: null,
      recordings: [],
      job: null,
    });
    edits = TestBed.inject(StrumEdits);
    taps = TestBed.inject(TapAlong);
    answers = TestBed.inject(PassAnswers);
  });

  it('begins an empty riff at its first place, and goes on from there', () => {
    song.selectRiff('e');
    expect(song.placeTicks()).toBe(0);
    edits.writeDigit(5, 0);
    edits.shape(1);
    edits.repeat();
    edits.nextPlace(1);
    edits.mark('dead');
    expect(written()).toEqual(['0: 6/5 5/7 4/7', '480: 6/5 5/7 4/7', '960: 6/5 5/7 4/7']);
    expect(song.strum()?.dead).toBe(true);
  });

  it('takes back a strum that came with its fret by one step', () => {
    song.selectPlace(1920);
    edits.writeDigit(7, 0);
    expect(written()[2]).toBe('1920: 6/7');
    song.undo();
    expect(written()).toEqual(['0: 6/3', '960: 6/3']);
  });

  it('gives back the marks that a dead stroke took, when it is pressed again', () => {
    edits.mark('mute');
    edits.mark('accent');
    const before = song.strum();
    edits.mark('dead');
    expect(song.strum()).toMatchObject({ dead: true, palmMute: false });
    edits.mark('dead');
    expect(song.strum()).toEqual(before);
    // What was written meanwhile is not lost by it.
    edits.mark('dead');
    edits.shift({ frets: 1, strings: 0 });
    edits.mark('dead');
    expect(song.strum()).toMatchObject({ dead: false, palmMute: false, frets: [{ string: 6, fret: 4 }] });
  });

  it('ticks off and takes the tick back', () => {
    edits.check();
    expect(song.strum()?.trust).toBe('checked');
    edits.check();
    expect(song.strum()?.trust).toBe('heard');
  });

  it('writes one strum as it was heard', () => {
    song.selectStrum('b');
    edits.acceptHeard();
    expect(written()).toEqual(['0: 6/3', '960: 5/3']);
    edits.acceptHeard();
    expect(said).toEqual(['It is written as it was heard']);
  });

  it('changes strums that were picked one by one, and only what is shown', () => {
    song.selectStrum('a');
    song.pick(['a']);
    song.selectStrum('b', true);
    edits.shift({ frets: 1, strings: 0 });
    expect(written()).toEqual(['0: 6/4', '960: 6/4']);
    shown = new Set(['a']);
    edits.shift({ frets: 1, strings: 0 });
    expect(written()).toEqual(['0: 6/5', '960: 6/4']);
  });

  it('says why it does nothing', () => {
    edits.shift({ frets: -9, strings: 0 });
    edits.move(-1);
    edits.shape(2);
    song.selectNothing();
    edits.mark('mute');
    expect(said).toEqual([
      'The neck ends there',
      'No room: another strum or the end of the riff is in the way',
      'Inverted (fifth in the bass) does not fit with its root on string 6, fret 3',
      'Choose a strum first',
    ]);
  });

  it('writes on triplets and thirty-seconds as well', () => {
    for (let i = 0; i < 3; i++) edits.nextStep();
    song.selectStrum('b');
    edits.nextPlace(1);
    edits.writeDigit(5, 0);
    expect(written()[2]).toBe('1280: 6/5');
    edits.move(1);
    expect(written()[2]).toBe('1600: 6/5');
  });

  it('joins two quick digits to one fret of one string', () => {
    edits.writeDigit(1, 1000);
    edits.writeDigit(2, 1200);
    expect(written()[0]).toBe('0: 6/12');
  });

  it('takes a string out, then the strum, and leaves its place to be written', () => {
    song.selectString(6);
    edits.clearString();
    expect(written()).toEqual(['960: 6/3']);
    song.selectStrum('b');
    edits.remove();
    expect([written(), song.placeTicks()]).toEqual([[], 960]);
  });

  it('changes all that are chosen', () => {
    song.selectTo('b');
    edits.shift({ frets: 2, strings: -1 });
    edits.mark('mute');
    expect(written()).toEqual(['0: 5/5', '960: 5/5']);
    expect(song.riff()?.strums.every((s) => s.palmMute)).toBe(true);
    song.undo();
    song.undo();
    expect(written()).toEqual(['0: 6/3', '960: 6/3']);
  });

  it('copies strums behind the last one', () => {
    song.selectTo('b');
    edits.copy();
    edits.paste();
    expect(written().map((w) => w.split(':')[0])).toEqual(['0', '960', '1440', '2400']);
  });

  it('taps a stroke onto the nearest sixteenth, blank until it is written', () => {
    taps.put(1470);
    expect(written()).toEqual(['0: 6/3', '960: 6/3', '1440: ']);
    edits.writeDigit(7, 0);
    expect(written()[2]).toBe('1440: 6/7');
  });

  it('puts what is tapped in threes on triplets', () => {
    song.selectRiff('e');
    taps.toggle();
    for (const ticks of [10, 330, 655, 970]) taps.put(ticks);
    expect(written()).toEqual(['0: ', '320: ', '640: ', '960: ']);
  });

  it('keeps what a pass plays as a variation, or says that it is the riff', () => {
    answers.keep(differing);
    const [variation] = song.document()?.riffs[0].variations ?? [];
    expect(variation.strums.flatMap((s) => s.frets).map((f) => `${f.string}/${f.fret}`)).toEqual([
      '6/3',
      '5/3',
    ]);
    expect(song.section()?.answers).toEqual([{ pass: 0, variationId: variation.id }]);
    answers.same(differing);
    expect(song.section()?.answers).toEqual([{ pass: 0, variationId: null }]);
  });

  it('keeps a pass that is moved as a whole as the riff moved', () => {
    answers.keep({ ...differing, whole: { semitones: 2, ticks: 0 } });
    const [variation] = song.document()?.riffs[0].variations ?? [];
    expect(variation).toMatchObject({ name: '2 frets up', fromTicks: 0 });
    expect(variation.strums.flatMap((s) => s.frets).map((f) => `${f.string}/${f.fret}`)).toEqual([
      '6/5',
      '6/5',
    ]);
  });

  it('writes into a variation while it is shown', () => {
    answers.keep(differing);
    song.selectVariation(song.document()?.riffs[0].variations[0].id ?? null);
    song.selectPlace(1920);
    edits.writeDigit(9, 0);
    expect(song.document()?.riffs[0].strums).toHaveLength(2);
    expect(written()[2]).toBe('1920: 6/9');
  });

  it('writes the riff as it was heard', () => {
    edits.writeAsHeard();
    expect(written()).toEqual(['0: 6/3', '960: 5/3']);
    expect(song.riff()?.strums.every((s) => s.trust === 'heard')).toBe(true);
  });

  it('gives a strum to the second guitar, which has a tab of its own', () => {
    song.change((d) => ({ ...d, guitar2: STANDARD_TUNING }));
    edits.giveToOther();
    expect(written()).toEqual(['960: 6/3']);
    song.selectGuitar(2);
    expect(written()).toEqual(['0: 6/3']);
    edits.shift({ frets: 1, strings: 0 });
    expect(written()).toEqual(['0: 6/4']);
    song.selectGuitar(1);
    expect(written()).toEqual(['960: 6/3']);
  });
});
