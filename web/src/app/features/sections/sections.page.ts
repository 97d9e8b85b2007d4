/** Mark the sections: what is played when, how the passes compare, and the beats they stand on. */
import type { ElementRef, OnDestroy } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  inject,
  signal,
  viewChildren,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltip } from '@angular/material/tooltip';
import { FORMATS, type Format } from '@wild-needle/core/formats';
import { orderOfPlay } from '@wild-needle/core/riff';
import { tuningLabel } from '@wild-needle/core/guitar';
import { Player } from '../../transport/player';
import { OpenSongStore } from '../../open-song/open-song.store';
import { ChordName } from '../../shared/chord-name';
import { exportAs } from '../../shared/export';
import { HistoryButtons } from '../../shared/history-buttons';
import { historyHandlers } from '../../shared/history-keys';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { ScreenKeys } from '../../shared/screen-keys';
import { SECTION_KEYS } from './section-keys';
import { Needle } from '../../shared/needle';
import { saveFile } from '../../shared/save-file';
import { Say } from '../../shared/say';
import { BeatsPanel } from './beats-panel';
import { GridEdits } from './grid-edits';
import { roadMapPicture } from './map-picture';
import { RoadMap } from './road-map';
import { SectionEdits } from './section-edits';
import { SectionPanel } from './section-panel';
import { SectionRows } from './section-rows';

/** Margin of the map to both sides. */
const MARGIN_PX = 16;

@Component({
  selector: 'wn-sections-page',
  imports: [
    BeatsPanel,
    ChordName,
    MatButton,
    MatButtonToggleModule,
    MatMenuModule,
    MatTooltip,
    HistoryButtons,
    Needle,
    RoadMap,
    SectionPanel,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  templateUrl: './sections.page.html',
  styleUrl: './sections.page.scss',
  providers: [GridEdits, SectionEdits, SectionRows],
})
export class SectionsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly grid = inject(GridEdits);
  private readonly player = inject(Player);
  protected readonly edits = inject(SectionEdits);
  private readonly shown = inject(SectionRows);
  private readonly said = inject(Say);
  private readonly page = inject(DOCUMENT);

  protected readonly durationS = computed(() => this.song.recording()?.durationS ?? 0);
  protected readonly choosers = viewChildren<ElementRef<HTMLInputElement>>('chooser');
  protected readonly formats = FORMATS.filter((f) => f.holds === 'sections');
  protected readonly readable = this.formats.filter((f) => f.read !== undefined);
  protected readonly order = computed(() => {
    const document = this.song.document();
    return document && document.sections.length > 0 ? orderOfPlay(document) : 'No sections yet';
  });

  protected readonly rows = this.shown.rows;
  protected readonly blocks = this.shown.blocks;
  protected readonly panel = signal<'section' | 'beats'>('section');
  protected readonly needleX = computed(() => {
    const durationS = this.durationS();
    if (durationS <= 0) return null;
    return (this.player.nowS() / durationS) * (this.page.documentElement.clientWidth - 2 * MARGIN_PX);
  });

  ngOnDestroy(): void {
    this.said.silence();
  }

  constructor() {
    inject(ScreenKeys).show(SECTION_KEYS);
  }

  private readonly handlers: KeyHandlers<typeof SECTION_KEYS> = {
    step: (by) => this.edits.step(by),
    begin: () => this.edits.begin(),
    split: () => this.edits.split(),
    join: () => this.edits.join(),
    lengthen: (by) => this.edits.lengthen(by),
    remove: () => this.edits.remove(),
    disarm: () => this.edits.disarm(),
    double: () => this.grid.double(),
    halve: () => this.grid.halve(),
    moveDownbeat: (beats) => this.grid.moveDownbeat(beats),
    lineHere: () => this.grid.lineHere(),
    toggleFree: () => this.grid.toggleFree(),
    tap: (_, { timeStamp }) => this.grid.tap(timeStamp),
    restFollows: () => this.grid.letRest('follows'),
    keepPass: () => this.edits.keepPass(),
    samePass: () => this.edits.samePass(),
    ...historyHandlers(this.song),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(SECTION_KEYS, this.handlers, event);
  }

  protected download(format: Format): void {
    const document = this.song.document();
    if (document) void exportAs(this.page, format, document);
  }

  protected downloadPicture(): void {
    const document = this.song.document();
    if (!document) return;
    const { title, artist, tuning } = document;
    const facts = [tuningLabel(tuning), this.grid.words()].join(' · ');
    const picture = { title, artist, facts, order: this.order(), durationS: this.durationS() };
    const svg = roadMapPicture({ ...picture, blocks: this.blocks() });
    saveFile(this.page, title, 'svg', 'image/svg+xml', svg);
  }

  protected async bringIn(input: HTMLInputElement, format: Format): Promise<void> {
    const text = await input.files?.[0]?.text();
    input.value = '';
    const document = this.song.document();
    if (text === undefined || !document || !format.read) return;
    try {
      const read = format.read(document, text);
      this.song.change(() => read);
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      this.said.say(`This ${format.label.toLowerCase()} can't be used: ${why}.`);
    }
  }
}
