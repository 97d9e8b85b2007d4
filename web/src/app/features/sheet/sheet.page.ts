/** Write it up: pages that another guitarist can play from, in the version that this player needs, to print and to take away. */
import type { ElementRef } from '@angular/core';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  viewChildren,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatMenuModule } from '@angular/material/menu';
import { MatRadioModule } from '@angular/material/radio';
import { RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { FORMATS, type Format } from '@wild-needle/core/formats';
import { PAPERS, SHEET_VERSIONS, type PaperName, type SheetVersion } from '@wild-needle/core/sheet';
import { Api } from '../../api/api';
import { OpenSongStore } from '../../open-song/open-song.store';
import { ChordName } from '../../shared/chord-name';
import { exportAs } from '../../shared/export';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { saveFile } from '../../shared/save-file';
import { Say } from '../../shared/say';
import { ScreenKeys } from '../../shared/screen-keys';
import { BringIn } from './bring-in/bring-in';
import { Bringing } from './bring-in/bringing';
import { Player } from '../../transport/player';
import { SoundFile } from '../../transport/sound-file';
import { Box } from './box';
import { pageAsSvg } from './page-as-svg';
import { Printing } from './printing';
import { SHEET_KEYS } from './sheet-keys';
import { BLOCK_PX, MARGIN, SheetView, type Shown } from './sheet-view';
import { VERSION_WORDS, versionWords } from './sheet-words';
import { Stave } from './stave';

/** On screen, paper is drawn so much smaller. */
const SCALES = [0.5, 0.6, 0.67, 0.8, 1] as const;
const USUAL_SCALE = 2;

/** What the song is taken away as, by one key. */
interface TakeAway {
  readonly label: string;
  readonly ending: string;
  readonly take: () => Promise<void>;
}
/** Formats that come before sound and page: together they have the ten digits. */
const KEYED_FORMATS = 7;

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
  imports: [
    Box,
    BringIn,
    ChordName,
    MatButton,
    MatButtonToggleModule,
    MatCheckbox,
    MatMenuModule,
    MatRadioModule,
    RouterLink,
    Stave,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(window:keydown)': 'onKey($event)',
    '(window:keydown.escape)': 'bringing.cancel()',
    '(dragover)': '$event.preventDefault()',
    '(drop)': 'onDrop($event)',
  },
  providers: [Bringing, Printing, SheetView],
  templateUrl: './sheet.page.html',
  styleUrl: './sheet.page.scss',
})
export class SheetPage {
  /** From the address, which a request has made: the version, and the section whose riff is shown. */
  readonly version = input<string>();
  readonly section = input<string>();
  protected readonly song = inject(OpenSongStore);
  protected readonly view = inject(SheetView);
  protected readonly bringing = inject(Bringing);
  private readonly sounds = inject(SoundFile);
  private readonly player = inject(Player);
  private readonly api = inject(Api);
  private readonly printing = inject(Printing);
  private readonly said = inject(Say);
  private readonly page = inject(DOCUMENT);
  private readonly sheets = viewChildren<ElementRef<HTMLElement>>('sheet');
  private readonly chooser = viewChild<ElementRef<HTMLInputElement>>('chooser');
  /** A file is being made. */
  protected readonly isTaking = signal(false);

  protected readonly keys = SHEET_KEYS;
  protected readonly MARGIN = MARGIN;
  protected readonly BLOCK_PX = BLOCK_PX;
  protected readonly switches = SWITCHES;
  protected readonly takeAways: readonly TakeAway[] = [
    ...FORMATS.slice(0, KEYED_FORMATS).map((format) => this.ofFormat(format)),
    {
      label: 'Sound of the loop',
      ending: 'wav',
      take: () => this.takeSound('loop', () => this.sounds.ofLoop()),
    },
    {
      label: 'Sound of the tab',
      ending: 'wav',
      take: () => this.takeSound('tab', () => this.sounds.ofTab()),
    },
    { label: 'Sheet', ending: 'svg', take: () => this.takePage() },
    { label: 'Sheet', ending: 'pdf', take: () => this.takePdf() },
    ...FORMATS.slice(KEYED_FORMATS).map((format) => this.ofFormat(format)),
  ];
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
    return made ? versionWords(made, this.view.key()) : '';
  });
  protected readonly isEmpty = computed(() => this.view.pages().every((page) => page.length === 0));

  constructor() {
    inject(ScreenKeys).show(SHEET_KEYS);
    effect(() => {
      const version = SHEET_VERSIONS.find((v) => v === this.version());
      if (version) untracked(() => this.setVersion(version));
    });
    let shownFor: string | null = null;
    afterRenderEffect(() => {
      const document = this.song.document();
      const section = document?.sections.find((s) => s.id === this.section());
      if (!section || this.isEmpty() || shownFor === section.id) return;
      shownFor = section.id;
      const riff = document?.riffs.find((r) => r.id === section.riffId);
      this.page.getElementById(`riff-${riff?.letter}`)?.scrollIntoView({ block: 'start' });
    });
    this.printing.source = () => ({
      pages: this.sheets().map((sheet) => sheet.nativeElement),
      paper: this.view.paperName(),
      isUpright: this.view.isUpright(),
    });
  }

  protected print(): void {
    if (this.isEmpty()) this.said.say('Write a riff first: the page is empty');
    else {
      this.printing.print();
      this.noteTakenAway();
    }
  }

  protected setVersion(version: SheetVersion): void {
    this.view.version.set(version);
  }

  protected changeScale(by: number): void {
    this.scaleAt.update((at) => Math.min(SCALES.length - 1, Math.max(0, at + by)));
  }

  private ofFormat(format: Format): TakeAway {
    return {
      label: format.label,
      ending: format.ending,
      take: async () => {
        // The song file is the song itself, whatever version is shown.
        const isVersion = format.holds === 'tab' && format.id !== 'song-file';
        const document = isVersion ? this.view.document() : this.song.document();
        if (document) await exportAs(this.page, format, document);
      },
    };
  }

  /** One after the other. */
  protected async takeAway(row: TakeAway | undefined): Promise<void> {
    if (!row || this.isTaking()) return;
    this.isTaking.set(true);
    try {
      await row.take();
      this.noteTakenAway();
    } catch {
      this.said.say(`${row.label} could not be made`);
    } finally {
      this.isTaking.set(false);
    }
  }

  /** The shelf says that the sheet is done until the song is changed. */
  private noteTakenAway(): void {
    const songId = this.song.songId();
    // A note that does not arrive is no harm: the next one does.
    if (songId !== null) this.api.wasTakenAway(songId).subscribe({ error: () => undefined });
  }

  private async takeSound(what: string, make: () => Promise<Uint8Array | null>): Promise<void> {
    if (this.player.status() !== 'ready') {
      this.said.say('Load the sound first');
      return;
    }
    this.said.say('Making the sound …');
    const wav = await make();
    this.said.silence();
    if (wav) saveFile(this.page, `${this.song.document()?.title ?? ''} ${what}`, 'wav', 'audio/wav', wav);
  }

  /** The page that is looked at. */
  private async takePage(): Promise<void> {
    const sheet = this.sheets().at(this.pageInView());
    if (!sheet || this.isEmpty()) {
      this.said.say('Write a riff first: the page is empty');
      return;
    }
    const svg = await pageAsSvg(sheet.nativeElement, true);
    saveFile(this.page, this.song.document()?.title ?? '', 'svg', 'image/svg+xml', svg);
  }

  /** All pages, made into one file by the server. */
  private async takePdf(): Promise<void> {
    if (this.isEmpty()) {
      this.said.say('Write a riff first: the page is empty');
      return;
    }
    const pages: string[] = [];
    for (const sheet of this.sheets()) pages.push(await pageAsSvg(sheet.nativeElement, false));
    const { widthPx, heightPx } = this.view.paper();
    const title = this.song.document()?.title ?? '';
    const pdf = await firstValueFrom(this.api.makePdf({ title, widthPx, heightPx, pages }));
    saveFile(this.page, title, 'pdf', 'application/pdf', new Uint8Array(pdf));
  }

  protected askForFile(): void {
    this.chooser()?.nativeElement.click();
  }

  protected chooseFile(input: HTMLInputElement): void {
    const file = input.files?.[0];
    input.value = '';
    if (file) void this.bringing.open(file);
  }

  protected onDrop(event: DragEvent): void {
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    event.preventDefault();
    void this.bringing.open(file);
  }

  /** Ways to take over the file that is open, by number. */
  private takeOver(index: number): void {
    if (index === 0) this.bringing.putBeside();
    else if (index === 1 && this.bringing.hasSameLetters()) this.bringing.putInPlace();
    else if (index === 2) void this.bringing.asNewSong();
  }

  /** Index of the page at the top of the desk. */
  private pageInView(): number {
    const sheets = this.sheets().map((sheet) => sheet.nativeElement);
    const tops = sheets.map((sheet) => sheet.getBoundingClientRect().top);
    const desk = sheets[0]?.closest('.desk');
    const edge = (desk?.getBoundingClientRect().top ?? 0) + 24;
    return Math.max(
      0,
      tops.findLastIndex((top) => top <= edge),
    );
  }

  private turn(by: number): void {
    const sheets = this.sheets().map((sheet) => sheet.nativeElement);
    const to = Math.min(sheets.length - 1, Math.max(0, this.pageInView() + by));
    sheets.at(to)?.scrollIntoView({ block: 'start' });
  }

  private readonly handlers: KeyHandlers<typeof SHEET_KEYS> = {
    print: () => (this.bringing.file() ? undefined : this.print()),
    version: (by) => this.view.stepVersion(by),
    takeAway: (index) =>
      this.bringing.file() ? this.takeOver(index) : void this.takeAway(this.takeAways.at(index)),
    bringIn: () => this.askForFile(),
    page: (by) => this.turn(by),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(SHEET_KEYS, this.handlers, event);
  }
}
