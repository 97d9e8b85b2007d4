/** The chosen section: its name and bounds, what it plays, what is asked about it, and what can be made of it. */
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatTooltip } from '@angular/material/tooltip';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { KEY_MODES, keyOn, type Key } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../open-song/open-song.store';
import { SectionEdits } from './section-edits';
import { SECTION_KEYS } from './section-keys';
import { SectionRows } from './section-rows';
import { keyWords } from './section-words';

/** All keys that a section may have, sharps before flats as a signature has fewer of them. */
const KEYS: readonly Key[] = KEY_MODES.flatMap((mode) =>
  Array.from({ length: 12 }, (_, pitchClass) => keyOn(pitchClass, mode)),
);

@Component({
  selector: 'wn-section-panel',
  imports: [MatButton, MatButtonToggleModule, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './section-panel.html',
  styleUrl: './panels.scss',
})
export class SectionPanel {
  protected readonly song = inject(OpenSongStore);
  protected readonly edits = inject(SectionEdits);
  private readonly shown = inject(SectionRows);
  protected readonly section = this.shown.chosen;
  protected readonly asked = this.shown.asked;
  protected readonly keys = SECTION_KEYS;
  protected readonly nameLimit = TEXT_LIMITS.name;
  protected readonly keyNames = KEYS.map(keyWords);
  protected readonly riffs = computed(() => this.song.document()?.riffs ?? []);

  /** '' for the one that was heard. */
  protected chooseKey(name: string): void {
    this.edits.setKey(KEYS.find((key) => keyWords(key) === name) ?? null);
  }

  protected keyOf(key: Key | null): string {
    return keyWords(key);
  }

  /** Enter takes the name, Escape gives the old one back; both leave the field. */
  protected onNameKey(event: KeyboardEvent, field: HTMLInputElement, name: string): void {
    if (event.key === 'Escape') field.value = name;
    if (event.key === 'Escape' || event.key === 'Enter') field.blur();
  }

  protected pressRiff(value: string): void {
    if (value === 'new') this.edits.playNewRiff();
    else this.edits.playRiff(value === 'none' ? null : value);
  }
}
