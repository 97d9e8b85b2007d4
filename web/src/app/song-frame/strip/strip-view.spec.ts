import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { Player } from '../../transport/player';
import { OpenSongStore } from '../../open-song/open-song.store';
import { StripView } from './strip-view';

function setUp(recording: { durationS: number } | null = { durationS: 100 }): {
  view: StripView;
  nowS: ReturnType<typeof signal<number>>;
  songId: ReturnType<typeof signal<string>>;
} {
  const [nowS, songId] = [signal(0), signal('a')];
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      StripView,
      { provide: Player, useValue: { nowS, playing: () => true, durationS: () => 40 } },
      { provide: OpenSongStore, useValue: { songId, recording: () => recording } },
    ],
  });
  const view = TestBed.inject(StripView);
  view.width.set(1000);
  TestBed.tick();
  return { view, nowS, songId };
}

describe('the strip', () => {
  it('shows the whole song first', () => {
    const { view } = setUp();
    expect([view.xOf(0), view.xOf(50), view.timeAt(1000), view.isZoomed()]).toEqual([0, 500, 100, false]);
  });

  it('shows a song without a recording as long as its beats last', () => {
    const { view } = setUp(null);
    expect([view.xOf(20), view.percentOf(40)]).toEqual([500, 100]);
  });

  it('zooms around a place, and back to the whole', () => {
    const { view } = setUp();
    view.zoom(30, 0.5);
    expect(view.window()).toEqual({ fromS: 15, toS: 65 });
    expect(view.xOf(30)).toBeCloseTo(300, 9);
    view.zoom(30, 0.1);
    expect(view.timeAt(view.xOf(30))).toBeCloseTo(30, 9);
    view.zoom(30, 1000);
    expect(view.isZoomed()).toBe(false);
  });

  it('goes down to a sample a pixel, and stays inside of the song', () => {
    const { view } = setUp();
    for (let i = 0; i < 200; i++) view.zoom(99.99, 0.8);
    expect(view.lengthS()).toBeCloseTo(0.02, 9);
    expect(view.window().toS).toBeLessThanOrEqual(100);
    view.scroll(50);
    expect(view.window().toS).toBeCloseTo(100, 9);
    view.scroll(-500);
    expect(view.window().fromS).toBe(0);
  });

  it('goes along with the needle, and shows another song whole', () => {
    const { view, nowS, songId } = setUp();
    view.zoom(0, 0.1);
    nowS.set(12);
    TestBed.tick();
    expect(view.window()).toEqual({ fromS: 11, toS: 21 });
    songId.set('b');
    TestBed.tick();
    expect(view.isZoomed()).toBe(false);
  });
});
