import { signal, type WritableSignal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { beforeEach, describe, expect, it } from 'vitest';
import { PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { WHOLE, type Hearing } from '../recording/hearing';
import type { Loop } from './play-cursor';
import type { CountIn } from './count-in';
import { Player } from './player';
import { Now } from './now';
import { InstrumentsStore } from '../open-song/instruments.store';
import { OpenSongStore } from '../open-song/open-song.store';
import { settingsActions } from '../state/settings/settings.actions';
import { settingsFeature } from '../state/settings/settings.reducer';
import { DeckControl } from './deck-control';

/** A player without sound that remembers what it was told. */
function silentPlayer() {
  const state = {
    playing: signal(false),
    nowS: signal(0),
    speed: signal(1),
    loop: signal<Loop | null>(null),
    clicking: signal(false),
    hearing: signal<Hearing>(WHOLE),
    countIn: null as CountIn | null,
    semitones: 0,
  };
  return Object.assign(state, {
    play: (countIn: CountIn | null) => {
      state.countIn = countIn;
      state.playing.set(true);
      return Promise.resolve();
    },
    stop: () => state.playing.set(false),
    seek: (timeS: number) => state.nowS.set(timeS),
    setSpeed: (speed: number) => state.speed.set(Math.round(100 * speed) / 100),
    setLoop: (loop: Loop | null) => state.loop.set(loop),
    setClicking: (on: boolean) => state.clicking.set(on),
    setHearing: (hearing: Hearing) => state.hearing.set(hearing),
    setSemitones: (semitones: number) => (state.semitones = semitones),
  });
}

/** Three bars of 4/4 at 120 bpm from the first second on, the last at half the tempo. */
const BEATS = [...Array.from({ length: 8 }, (_, i) => 1 + i / 2), 5, 6, 7, 8, 9];
const DOCUMENT: SongDocument = {
  ...PLAIN_SONG,
  referenceOffsetCents: 38,
  grid: { beatsS: BEATS, bars: [0, 4, 8].map((beat) => ({ beat, beats: 4, unit: 4 })) },
};

describe('the deck', () => {
  let player: ReturnType<typeof silentPlayer>;
  let deck: DeckControl;
  let song: WritableSignal<SongDocument>;
  const press = (...keys: string[]): boolean[] =>
    keys.map((key) => deck.handleKey(new KeyboardEvent('keydown', { key, cancelable: true })));

  beforeEach(() => {
    player = silentPlayer();
    song = signal(DOCUMENT);
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        DeckControl,
        provideStore({ [settingsFeature.name]: settingsFeature.reducer }),
        { provide: Player, useValue: player },
        { provide: Now, useValue: { pass: () => null, allPasses: () => [] } },
        {
          provide: OpenSongStore,
          useValue: {
            document: song,
            status: () => 'open',
            songId: () => 'song',
            recording: () => null,
            recordings: () => [],
            passes: () => [],
            change: (change: (d: SongDocument) => SongDocument) => song.update(change),
          },
        },
      ],
    });
    deck = TestBed.inject(DeckControl);
  });

  it('takes its own keys only', () => {
    expect(press(' ', 'L', 'z')).toEqual([true, true, false]);
  });

  it('changes the speed in whole fives, also from a value set by hand', () => {
    player.setSpeed(0.83);
    press('-');
    expect(player.speed()).toBe(0.8);
    press('=', '=');
    expect(player.speed()).toBe(0.9);
  });

  it('loops the bar under the needle where no pass is', () => {
    player.seek(3.2);
    press('l');
    expect(player.loop()).toEqual({ startS: 3, endS: 5 });
    press('l');
    expect(player.loop()).toBeNull();
  });

  it('moves, grows and shrinks the loop by beats, and keeps one beat', () => {
    player.setLoop({ startS: 3, endS: 5 });
    press(')');
    expect(player.loop()).toEqual({ startS: 3.5, endS: 6 });
    press('(', '}');
    expect(player.loop()).toEqual({ startS: 3, endS: 6 });
    press('{', '{', '{', '{', '{', '{');
    expect(player.loop()).toEqual({ startS: 3, endS: 3.5 });
  });

  it('does not move the loop out of the song', () => {
    player.setLoop({ startS: 1, endS: 2 });
    press('(');
    expect(player.loop()).toEqual({ startS: 1, endS: 2 });
  });

  it('counts the bar at the needle in, at its tempo', () => {
    TestBed.inject(Store).dispatch(settingsActions.countInSwitched({ countIn: true }));
    player.seek(1);
    press(' ');
    expect(player.countIn).toEqual({ beats: 4, periodS: 0.5 });
    press(' ');
    expect(player.playing()).toBe(false);
  });

  it('starts at once without a count-in', () => {
    press(' ');
    expect(player.countIn).toBeNull();
    expect(player.playing()).toBe(true);
  });

  it('opens the instruments after the last focus, and goes back from them to the full sound', () => {
    const instruments = TestBed.inject(InstrumentsStore);
    press('f', 'f', 'f', 'f');
    expect(player.hearing().focus).toBe('drums');
    press('f');
    expect([player.hearing().focus, instruments.isShown(), deck.instrumentsFocused()]).toEqual([
      'full',
      true,
      1,
    ]);
    // The keys went back to the tab meanwhile: it brings them here again.
    press('f');
    expect([instruments.isShown(), deck.instrumentsFocused()]).toEqual([true, 2]);
    deck.instrumentsHaveKeys.set(true);
    press('f');
    expect(instruments.isShown()).toBe(false);
    deck.runPedal('instruments', 1);
    deck.runPedal('bass', 1);
    expect([instruments.isShown(), instruments.mix().silent]).toEqual([true, ['bass']]);
  });

  it('goes round the ears and the focuses', () => {
    press('e');
    expect(player.hearing()).toMatchObject({ ears: 'left', focus: 'full' });
    press('f');
    expect(player.hearing()).toMatchObject({ ears: 'left', focus: 'bass' });
    press('e', 'e', 'e', 'e', 'e');
    expect(player.hearing()).toMatchObject({ ears: 'both', focus: 'bass' });
    press('a', 'a');
    expect(player.hearing()).toMatchObject({ source: 'each' });
    press('a');
    expect(player.hearing()).toMatchObject({ source: 'recording' });
  });

  it('loops a part by its nearest beats, or as it is', () => {
    deck.loopBetween(2.13, 1.04, false);
    expect(player.loop()).toEqual({ startS: 1, endS: 2 });
    deck.loopBetween(1.04, 2.13, true);
    expect(player.loop()).toEqual({ startS: 1.04, endS: 2.13 });
  });

  it('goes back and forth between full speed and the slow one', () => {
    press('w');
    expect(player.speed()).toBeCloseTo(0.6);
    press('-');
    press('w');
    expect(player.speed()).toBe(1);
    press('w');
    expect(player.speed()).toBeCloseTo(0.55);
  });

  it('takes the offset of the recording out, or has the guitar tuned to it: the song says which', () => {
    deck.applyPitch();
    expect(player.semitones).toBeCloseTo(-0.38, 9);
    press('p');
    deck.applyPitch();
    expect([song().tuneTo, player.semitones]).toEqual(['recording', 0]);
    press('p');
    deck.applyPitch();
    expect([song().tuneTo, player.semitones]).toEqual(['concert', expect.closeTo(-0.38, 9)]);
  });

  it('whispers and returns to the volume before', () => {
    const volume = TestBed.inject(Store).selectSignal(settingsFeature.selectVolume);
    const before = volume();
    press('q');
    expect(volume()).toBeLessThan(0.1);
    press('q');
    expect(volume()).toBe(before);
  });

  it('moves the sound by semitones beside the correction of its pitch, an octave at most', () => {
    press('|', '|');
    expect(player.semitones).toBeCloseTo(1.62, 9);
    for (let i = 0; i < 20; i++) press('_');
    expect(deck.transposed()).toBe(-12);
    deck.transpose(0);
    expect(player.semitones).toBeCloseTo(-0.38, 9);
  });
});
