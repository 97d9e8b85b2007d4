/** A rhythm tapped along with the playing loop: strokes of the chosen riff, to be filled in later. */
import { inject, Injectable, signal } from '@angular/core';
import {
  addStrums,
  isBlank,
  PLAIN_STRUM,
  quantise,
  removeStrums,
  riffTicks,
  type Strum,
} from '@wild-needle/core/riff';
import { TICKS_PER_QUARTER } from '@wild-needle/core/units';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { Say } from '../../../shared/say';
import { DeckControl } from '../../../transport/deck-control';
import { Lane } from '../view/lane';
import { withinReach } from './strum-edits';

/** A stroke that was tapped rings so long, until its chord is known. */
const TAPPED_TICKS = TICKS_PER_QUARTER / 2;

@Injectable()
export class TapAlong {
  private readonly song = inject(OpenSongStore);
  private readonly lane = inject(Lane);
  private readonly deck = inject(DeckControl);
  private readonly said = inject(Say);
  private readonly isOnSignal = signal(false);
  /** Bar of the song that taps count from while no pass of the riff sounds. */
  private fromBar = 0;
  /** Strokes of this going-along, where they were tapped. */
  private tapped: { readonly id: string; readonly ticks: number }[] = [];

  readonly isOn = this.isOnSignal.asReadonly();

  /** Space taps, until this is called again; what was tapped before stays where it is. */
  toggle(): void {
    const on = !this.isOnSignal();
    this.isOnSignal.set(on);
    this.deck.tapping = on ? () => this.tap() : null;
    this.tapped = [];
    this.fromBar = this.lane.barAtLoop();
    if (on) this.said.say('Play the loop and tap the strokes with Space; J ends it');
  }

  end(): void {
    this.isOnSignal.set(false);
    this.deck.tapping = null;
  }

  /** Into the riff that is chosen, whatever section sounds. */
  private tap(): void {
    const ticks = this.lane.needleTicks() ?? this.lane.ticksFrom(this.fromBar);
    if (ticks !== null) this.put(ticks);
    else this.said.say('There are no beats here to tap to: set them under Sections first');
  }

  /**
   * A stroke tapped along, to be filled in later. The strokes of a beat are put on sixteenths or on triplets together, so those
   * before it may move once more.
   */
  put(ticks: number): void {
    const riff = this.song.riff();
    if (!riff) return;
    const id = crypto.randomUUID();
    const blank = new Set(riff.strums.filter(isBlank).map((s) => s.id));
    this.tapped = [...this.tapped.filter((t) => blank.has(t.id)), { id, ticks }];
    const places = quantise(this.tapped.map((t) => t.ticks));
    const strums = this.tapped.map((t, i): Strum => ({
      ...PLAIN_STRUM,
      id: t.id,
      startTicks: places[i] % riffTicks(riff),
      durationTicks: TAPPED_TICKS,
      trust: 'guessed',
    }));
    const own = new Set(this.tapped.map((t) => t.id));
    const variationId = this.song.variationId();
    this.song.changeWritten((document) =>
      addStrums(removeStrums(document, riff.id, own), riff.id, withinReach(strums, riff), variationId),
    );
    this.song.selectStrum(id);
  }
}
