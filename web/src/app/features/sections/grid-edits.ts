/** Beats and bars put right by hand, at the needle: what stands there, in words, and the edits of the grid. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import {
  addPickUp,
  barsBefore,
  barTimesS,
  countAt,
  doubleTempo,
  freeBars,
  gridFromTaps,
  halveTempo,
  moveBarLine,
  moveDownbeat,
  nearestBarLine,
  replaceGrid,
  setBarBeats,
  tempoAt,
  whyNotFree,
  whyNotHalve,
  whyNotPickUp,
  type Refusal,
} from '@wild-needle/core/riff';
import { OpenSongStore } from '../../open-song/open-song.store';
import { refusalWords } from '../../shared/refusal-words';
import { counted } from '../../shared/words';
import { Player } from '../../transport/player';

/** Taps farther apart begin anew. */
const TAP_PAUSE_S = 3;

@Injectable()
export class GridEdits {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly snackBar = inject(MatSnackBar);
  /** What strums keep when the one moves. */
  readonly keeps = signal<'sound' | 'bar'>('sound');
  private readonly tapsS = signal<readonly number[]>([]);

  readonly hasBeats = computed(() => (this.song.document()?.grid.bars.length ?? 0) > 0);
  readonly words = computed(() => {
    const grid = this.song.document()?.grid;
    const bpm = grid ? tempoAt(grid, this.player.nowS()) : null;
    if (!grid || bpm === null) return 'No beats yet: tap along';
    return `${Math.round(bpm)} bpm, ${counted(grid.bars.length, 'bar')}`;
  });
  /** Index of the bar under the needle. */
  readonly barHere = computed(() => {
    const grid = this.song.document()?.grid;
    const count = grid && countAt(grid, this.player.nowS() + 1e-3);
    return count ? count.bar - 1 : 0;
  });
  readonly barWords = computed(() => {
    const bar = this.song.document()?.grid.bars[this.barHere()];
    return bar ? `Bar ${this.barHere() + 1}: ${bar.beats}/${bar.unit}` : 'No bar here';
  });
  readonly whyNotHalve = computed(() => {
    const document = this.song.document();
    const why = document && whyNotHalve(document);
    return why && refusalWords(why);
  });
  readonly tapWords = computed(() => {
    const taps = this.tapsS().length;
    return taps === 0 ? 'Tap along' : taps < 4 ? `Tap on, ${4 - taps} more` : `${taps} taps`;
  });

  double(): void {
    this.song.change(doubleTempo);
  }

  halve(): void {
    this.song.change(halveTempo);
  }

  moveDownbeat(beats: number): void {
    this.song.change((document) => moveDownbeat(document, beats, this.keeps()));
  }

  /** Bars under the needle become free time, or free time bars again. */
  toggleFree(): void {
    const document = this.song.document();
    if (!document) return;
    const timeS = this.player.nowS() + 1e-3;
    if (countAt(document.grid, timeS)) {
      const bar = this.barHere();
      const why = whyNotFree(document, bar, 1);
      if (why === null) this.song.change((d) => freeBars(d, bar, 1));
      else this.say(why);
      return;
    }
    const next = barTimesS(document.grid).findIndex((t) => t > timeS);
    if (next >= 0) this.song.change((d) => barsBefore(d, next));
  }

  pickUp(beats: number): void {
    const document = this.song.document();
    const why = document ? whyNotPickUp(document, beats) : null;
    if (why === null) this.song.change((d) => addPickUp(d, beats));
    else this.say(why);
  }

  barBeats(by: number): void {
    const bar = this.barHere();
    const beats = this.song.document()?.grid.bars[bar]?.beats;
    if (beats !== undefined) this.song.change((document) => setBarBeats(document, bar, beats + by));
  }

  /** The nearest bar line goes to the needle. */
  lineHere(): void {
    const timeS = this.player.nowS();
    this.song.change((document) => {
      const last = document.grid.bars.length - 1;
      return moveBarLine(document, Math.min(last, nearestBarLine(document.grid, timeS)), timeS);
    });
  }

  /** A tap on the beat while it plays; from the fourth on the beats follow, the first tap being a one. */
  tap(): void {
    const timeS = this.player.nowS();
    const before = this.tapsS();
    const last = before[before.length - 1];
    const goesOn = last !== undefined && timeS > last && timeS - last < TAP_PAUSE_S;
    const taps = goesOn ? [...before, timeS] : [timeS];
    this.tapsS.set(taps);
    const meter = this.song.document()?.grid.bars[0];
    const grid = gridFromTaps(
      taps,
      meter?.beats ?? 4,
      this.song.recording()?.durationS ?? 0,
      meter?.unit ?? 4,
    );
    if (!grid) return;
    // The taps of one go are one step back.
    if (taps.length > 4) this.song.undo();
    this.song.change((document) => replaceGrid(document, grid));
  }

  private say(why: Refusal): void {
    this.snackBar.open(refusalWords(why), undefined, { duration: 8000, panelClass: 'above-deck' });
  }
}
