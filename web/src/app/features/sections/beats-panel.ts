/** Beats and bars: tempo and meter, where bars begin, what is tapped along, where nobody keeps time. */
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { RANGES, UNITS, type Reading, type Unit } from '@wild-needle/core/riff';
import { OpenSongStore } from '../../open-song/open-song.store';
import { GridEdits, type MeterScope } from './grid-edits';
import { SECTION_KEYS } from './section-keys';

@Component({
  selector: 'wn-beats-panel',
  imports: [MatButton, MatMenuModule, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './beats-panel.html',
  styleUrl: './panels.scss',
})
export class BeatsPanel {
  protected readonly grid = inject(GridEdits);
  private readonly song = inject(OpenSongStore);
  protected readonly keys = SECTION_KEYS;
  protected readonly units = UNITS;
  protected readonly mostBeats = RANGES.beats[1];
  protected readonly scopes: readonly { readonly scope: MeterScope; readonly words: string }[] = [
    { scope: 'song', words: 'the whole song' },
    { scope: 'on', words: 'from this bar on' },
    { scope: 'section', words: 'the chosen section' },
    { scope: 'bar', words: 'this bar' },
  ];
  /** What is being said of the meter; null follows the bar at the needle. */
  private readonly ownBeats = signal<number | null>(null);
  private readonly ownUnit = signal<Unit | null>(null);
  private readonly shown = computed(
    () => this.grid.meterHere() ?? this.song.document()?.grid.bars[0] ?? { beats: 4, unit: 4 as Unit },
  );
  protected readonly beats = computed(() => this.ownBeats() ?? this.shown().beats);
  protected readonly unit = computed(() => this.ownUnit() ?? this.shown().unit);

  protected sayBeats(text: string): void {
    const beats = Math.round(Number(text));
    this.ownBeats.set(beats >= 1 && beats <= this.mostBeats ? beats : null);
  }

  protected sayUnit(text: string): void {
    this.ownUnit.set(UNITS.find((unit) => String(unit) === text) ?? null);
  }

  protected setMeter(scope: MeterScope): void {
    this.grid.setMeter(this.beats(), this.unit(), scope);
    this.ownBeats.set(null);
    this.ownUnit.set(null);
  }

  /** '6/8 at 64' */
  protected readingWords({ tempoBpm, meter }: Reading): string {
    return `${meter.beats}/${meter.unit} at ${Math.round(tempoBpm)}`;
  }
}
