/** Write it up: pages that another guitarist can play from, in the version that this player needs, to print and to take away. */
import type { ElementRef } from '@angular/core';
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
import { MatCheckbox } from '@angular/material/checkbox';
import { MatRadioModule } from '@angular/material/radio';
import { RouterLink } from '@angular/router';
import { FORMATS, type Format } from '@wild-needle/core/formats';
import { PAPERS, SHEET_VERSIONS, type PaperName, type SheetVersion } from '@wild-needle/core/sheet';
import { OpenSongStore } from '../../open-song/open-song.store';
import { ChordName } from '../../shared/chord-name';
import { exportAs } from '../../shared/export';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { Say } from '../../shared/say';
import { ScreenKeys } from '../../shared/screen-keys';
import { Box } from './box';
import { Printing } from './printing';
import { SHEET_KEYS } from './sheet-keys';
import { BLOCK_PX, MARGIN, SheetView, type Shown } from './sheet-view';
import { VERSION_WORDS, versionWords } from './sheet-words';
import { Stave } from './stave';

/** On screen, paper is drawn so much smaller. */
const SCALES = [0.5, 0.6, 0.67, 0.8, 1] as const;
const USUAL_SCALE = 2;

const SWITCHES: readonly { readonly key: keyof Shown; readonly label: string }[] = [
  { key: 'roadMap', label: 'Road map' },
  { key: 'names', label: 'Chord names' },
  { key: 'counts', label: 'Counts' },
  { key: 'boxes', label: 'Chord boxes' },
  { key: 'mutes', label: 'Palm mutes' },
  { key: 'notes', label: 'Listen for' },
  { key: 'strokes', label: 'Strokes' },
  { key: 'variations', label: 'Variations' },
];

@Component({
  selector: 'wn-sheet-page',
  imports: [Box, ChordName, MatButton, MatButtonToggleModule, MatCheckbox, MatRadioModule, RouterLink, Stave],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  providers: [Printing, SheetView],
  templateUrl: './sheet.page.html',
  styleUrl: './sheet.page.scss',
})
export class SheetPage {
  protected readonly song = inject(OpenSongStore);
  protected readonly view = inject(SheetView);
  private readonly printing = inject(Printing);
  private readonly said = inject(Say);
  private readonly page = inject(DOCUMENT);
  private readonly sheets = viewChildren<ElementRef<HTMLElement>>('sheet');

  protected readonly keys = SHEET_KEYS;
  protected readonly MARGIN = MARGIN;
  protected readonly BLOCK_PX = BLOCK_PX;
  protected readonly switches = SWITCHES;
  protected readonly formats = FORMATS;
  protected readonly papers = (Object.keys(PAPERS) as PaperName[]).map((name) => ({
    name,
    label: PAPERS[name].label,
  }));
  private readonly scaleAt = signal(USUAL_SCALE);
  protected readonly scale = computed(() => SCALES[this.scaleAt()]);
  protected readonly versions = computed(() =>
    SHEET_VERSIONS.map((id) => ({
      id,
      ...VERSION_WORDS[id],
      isDisabled: id === 'one-guitar' && !this.view.hasTwoGuitars(),
    })),
  );
  protected readonly changed = computed(() => {
    const made = this.view.made();
    return made ? versionWords(made) : '';
  });
  protected readonly isEmpty = computed(() => this.view.pages().every((page) => page.length === 0));

  constructor() {
    inject(ScreenKeys).show(SHEET_KEYS);
    this.printing.source = () => ({
      pages: this.sheets().map((sheet) => sheet.nativeElement),
      paper: this.view.paperName(),
      isUpright: this.view.isUpright(),
    });
  }

  protected print(): void {
    if (this.isEmpty()) this.said.say('Write a riff first: the page is empty');
    else this.printing.print();
  }

  protected setVersion(version: SheetVersion): void {
    this.view.version.set(version);
  }

  protected changeScale(by: number): void {
    this.scaleAt.update((at) => Math.min(SCALES.length - 1, Math.max(0, at + by)));
  }

  protected takeAway(format: Format | undefined): void {
    const document = format?.holds === 'tab' ? this.view.document() : this.song.document();
    if (format && document) void exportAs(this.page, format, document);
  }

  private turn(by: number): void {
    const sheets = this.sheets().map((sheet) => sheet.nativeElement);
    const tops = sheets.map((sheet) => sheet.getBoundingClientRect().top);
    const desk = sheets[0]?.closest('.desk');
    const edge = (desk?.getBoundingClientRect().top ?? 0) + 24;
    const at = Math.max(
      0,
      tops.findLastIndex((top) => top <= edge),
    );
    sheets.at(Math.min(sheets.length - 1, Math.max(0, at + by)))?.scrollIntoView({ block: 'start' });
  }

  private readonly handlers: KeyHandlers<typeof SHEET_KEYS> = {
    print: () => this.print(),
    version: (by) => this.view.stepVersion(by),
    takeAway: (index) => this.takeAway(FORMATS.at(index)),
    page: (by) => this.turn(by),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(SHEET_KEYS, this.handlers, event);
  }
}
