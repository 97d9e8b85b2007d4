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
import { MatSnackBar } from '@angular/material/snack-bar';
import { MatTooltip } from '@angular/material/tooltip';
import { FORMATS, type Format } from '@wild-needle/core/formats';
import {
  addPasses,
  beginSection,
  setSectionTone,
  joinWithNext,
  moveSection,
  orderOfPlay,
  renameSection,
  setSectionRiff,
  setSectionTranspose,
  confirmStart,
  splitSection,
  whyNotJoin,
  type SongDocument,
  TEXT_LIMITS,
} from '@wild-needle/core/riff';
import { tuningLabel } from '@wild-needle/core/guitar';
import type { Key } from '@wild-needle/core/theory';
import { clock } from '@wild-needle/core/units';
import { Player } from '../../transport/player';
import { HeardPasses } from '../../open-song/heard-passes';
import { Now } from '../../transport/now';
import { OpenSongStore } from '../../open-song/open-song.store';
import { ChordName } from '../../shared/chord-name';
import { PassAnswers } from '../../open-song/pass-answers';
import { exportAs } from '../../shared/export';
import { HistoryButtons } from '../../shared/history-buttons';
import { historyHandlers } from '../../shared/history-keys';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { ScreenKeys } from '../../shared/screen-keys';
import { SECTION_KEYS } from './section-keys';
import { Needle } from '../../shared/needle';
import { refusalWords } from '../../shared/refusal-words';
import { saveFile } from '../../shared/save-file';
import { counted, movedBy } from '../../shared/words';
import { GridEdits } from './grid-edits';
import type { MapBlock } from './map-geometry';
import { roadMapPicture } from './map-picture';
import { RoadMap } from './road-map';
import { comparePassesInWords, keyWords, likenessWords, startDoubt, tempoWords } from './section-words';

/** A section of the analysis begins at most this much beside the written one of the same key. */
const SAME_PLACE_S = 0.5;
/** A section that begins this near to one of the analysis is as it was suggested. */
const SAME_START_S = 0.05;
/** Margin of the map to both sides. */
const MARGIN_PX = 16;

@Component({
  selector: 'wn-sections-page',
  imports: [ChordName, MatButton, MatButtonToggleModule, MatMenuModule, MatTooltip, HistoryButtons, Needle, RoadMap],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  templateUrl: './sections.page.html',
  styleUrl: './sections.page.scss',
  providers: [GridEdits],
})
export class SectionsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly grid = inject(GridEdits);
  private readonly player = inject(Player);
  private readonly heardPasses = inject(HeardPasses);
  protected readonly answers = inject(PassAnswers);
  private readonly now = inject(Now);
  private readonly snackBar = inject(MatSnackBar);
  private readonly page = inject(DOCUMENT);

  protected readonly durationS = computed(() => this.song.recording()?.durationS ?? 0);
  protected readonly keys = SECTION_KEYS;
  protected readonly nameLimit = TEXT_LIMITS.name;
  protected readonly choosers = viewChildren<ElementRef<HTMLInputElement>>('chooser');
  protected readonly formats = FORMATS.filter((f) => f.holds === 'sections');
  protected readonly readable = this.formats.filter((f) => f.read !== undefined);
  protected readonly order = computed(() => {
    const document = this.song.document();
    return document && document.sections.length > 0 ? orderOfPlay(document) : 'No sections yet';
  });

  protected readonly rows = computed(() => {
    const document = this.song.document();
    if (!document) return [];
    const analysed = this.song.analysis()?.sections ?? [];
    const heard = this.heardPasses.byRiff();
    const keyAt = (timeS: number): Key | null =>
      analysed.find((s) => timeS + SAME_PLACE_S >= s.startS && timeS + SAME_PLACE_S < s.endS)?.key ?? null;
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId);
      const passes = this.now.allPasses().filter((p) => p.sectionId === section.id);
      if (!riff || passes.length === 0) return [];
      const [startS, endS] = [passes[0].startS, passes[passes.length - 1].endS];
      const inside = (heard.get(riff.id) ?? []).filter((p) => p.pass.sectionId === section.id);
      const bars = section.passes * riff.bars.length;
      const suggested = analysed.find((s) => Math.abs(s.startS - startS) < SAME_START_S);
      const doubt = suggested && !section.startIsConfirmed ? startDoubt(suggested) : null;
      const otherBar = section.startBar + (doubt?.orElseBars ?? 0);
      const likeness = suggested ? likenessWords(suggested, riff.letter) : '';
      return [
        {
          ...section,
          startS,
          endS,
          start: clock(startS),
          end: clock(endS),
          bars,
          letter: riff.letter,
          moved: movedBy(section.transpose),
          verdict: comparePassesInWords(inside, document.key),
          isChosen: section.id === this.song.sectionId(),
          key: keyWords(keyAt(startS) ?? document.key),
          tempo: tempoWords(document.grid, startS, endS),
          toDo: riff.barNotes.filter((n) => n.todo).length,
          doubt,
          // Null where the neighbours leave no room for it.
          otherBar: beginSection(document, section.id, otherBar) === document ? null : otherBar,
          facts: [counted(bars, 'bar'), `riff ${riff.letter}`, likeness].filter((f) => f !== '').join(', '),
        },
      ];
    });
  });
  protected readonly chosen = computed(() => this.rows().find((row) => row.isChosen) ?? null);
  /** The first pass of the chosen section that differs without an answer. */
  protected readonly asked = computed(() => {
    const row = this.chosen();
    const passes = (row && this.heardPasses.byRiff().get(row.riffId)) ?? [];
    const pass = passes.find((p) => p.pass.sectionId === row?.id && p.isAsking);
    return pass ? { ...pass, name: this.answers.nameFor(pass) } : null;
  });
  /** What the user would rather call it. */
  protected readonly ownName = signal('');
  protected readonly blocks = computed((): MapBlock[] =>
    this.rows().map((row) => ({ ...row, isDoubtful: row.verdict.kind === 'differ' || row.doubt !== null })),
  );
  protected readonly needleX = computed(() => {
    const durationS = this.durationS();
    if (durationS <= 0) return null;
    return (this.player.nowS() / durationS) * (this.page.documentElement.clientWidth - 2 * MARGIN_PX);
  });

  protected readonly whyNotJoin = computed(() => {
    const [document, id] = [this.song.document(), this.song.sectionId()];
    if (!document || id === null) return 'No section is chosen.';
    const why = whyNotJoin(document, id);
    return why && refusalWords(why);
  });
  ngOnDestroy(): void {
    this.snackBar.dismiss();
  }

  constructor() {
    inject(ScreenKeys).show(SECTION_KEYS);
  }

  private readonly handlers: KeyHandlers<typeof SECTION_KEYS> = {
    step: (by) => this.step(by),
    split: () => this.split(),
    join: () => this.join(),
    double: () => this.grid.double(),
    halve: () => this.grid.halve(),
    moveDownbeat: (beats) => this.grid.moveDownbeat(beats),
    lineHere: () => this.grid.lineHere(),
    toggleFree: () => this.grid.toggleFree(),
    tap: () => this.grid.tap(),
    keepPass: () => this.keepPass(),
    samePass: () => this.samePass(),
    ...historyHandlers(this.song),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(SECTION_KEYS, this.handlers, event);
  }

  protected choose(id: string): void {
    const row = this.rows().find((r) => r.id === id);
    if (!row) return;
    this.song.selectRiff(row.riffId, id);
    if (!this.player.playing()) this.player.seek(row.startS);
  }

  protected rename(id: string, name: string): void {
    this.change((document) => renameSection(document, id, name));
  }

  protected move(id: string, bars: number): void {
    this.change((document) => moveSection(document, id, bars));
  }

  protected repeat(id: string, by: number): void {
    this.change((document) => addPasses(document, id, by));
  }

  protected transpose(id: string, semitones: number): void {
    this.change((document) => setSectionTranspose(document, id, semitones));
  }

  protected playRiff(id: string, riffId: string): void {
    this.change((document) => setSectionRiff(document, id, riffId));
    this.song.selectRiff(riffId, id);
  }

  protected split(): void {
    const [id, bar] = [this.song.sectionId(), this.grid.barHere()];
    if (id !== null) this.change((document) => splitSection(document, id, bar, crypto.randomUUID()));
  }

  protected join(): void {
    const id = this.song.sectionId();
    if (id !== null) this.change((document) => joinWithNext(document, id));
  }

  protected setTone(id: string, tone: string): void {
    this.change((document) => setSectionTone(document, id, tone));
  }

  /** What the asked pass plays is a variation or an ending of the riff. */
  protected keepPass(): void {
    const pass = this.asked();
    if (pass) this.answers.keep(pass, this.ownName());
    this.ownName.set('');
  }

  /** The asked pass is the riff; without one, a start in doubt is right. */
  protected samePass(): void {
    const [pass, row] = [this.asked(), this.chosen()];
    if (pass) this.answers.same(pass);
    else if (row?.doubt) this.confirmStart(row.id);
  }

  protected beginAt(id: string, bar: number): void {
    this.change((document) => beginSection(document, id, bar));
  }

  protected confirmStart(id: string): void {
    this.change((document) => confirmStart(document, id));
  }

  protected download(format: Format): void {
    const document = this.song.document();
    if (document) exportAs(this.page, format, document);
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
      this.change(() => read);
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      this.say(`This ${format.label.toLowerCase()} can't be used: ${why}.`);
    }
  }

  private step(by: 1 | -1): void {
    const rows = this.rows();
    const at = rows.findIndex((r) => r.isChosen);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    if (next) this.choose(next.id);
  }

  private change(change: (document: SongDocument) => SongDocument): void {
    this.song.change(change);
  }

  private say(words: string): void {
    this.snackBar.open(words, undefined, { duration: 8000, panelClass: 'above-deck' });
  }
}
