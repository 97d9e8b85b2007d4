/** Strums added and moved along the grid, at the place that is chosen. */
import { inject, Injectable } from '@angular/core';
import { addStrum, moveStrum, placeBehind } from '@wild-needle/core/riff';
import { TICKS_PER_QUARTER } from '@wild-needle/core/units';
import { OpenSongStore } from '../../open-song/open-song.store';

/** Strums are added on eighths, and moved by sixteenths. */
const ADD_STEP = TICKS_PER_QUARTER / 2;
const MOVE_STEP = TICKS_PER_QUARTER / 4;

@Injectable()
export class StrumEdits {
  private readonly song = inject(OpenSongStore);

  /** Strikes the chosen chord once more behind it; closer than an eighth where the next one stands near. */
  repeat(): void {
    const [riff, strum] = [this.song.riff(), this.song.strum()];
    if (!riff || !strum) return;
    const startTicks = placeBehind(riff, strum.id, ADD_STEP) ?? placeBehind(riff, strum.id, MOVE_STEP);
    if (startTicks === null) return;
    const id = crypto.randomUUID();
    const added = { ...strum, id, startTicks, durationTicks: ADD_STEP, trust: 'checked' as const };
    this.song.change((document) => addStrum(document, riff.id, added));
    this.song.selectStrum(id);
  }

  move(by: 1 | -1): void {
    const [riff, strum] = [this.song.riff(), this.song.strum()];
    if (riff && strum) this.song.change((document) => moveStrum(document, riff.id, strum.id, by * MOVE_STEP));
  }
}
