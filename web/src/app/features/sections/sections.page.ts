/** Mark the sections: what is played when, how the passes compare, and the beats they stand on. */
import type { OnDestroy } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, DOCUMENT, inject, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { MatTooltip } from '@angular/material/tooltip';
import {
  parseLabelTrack,
  sectionsFromLabels,
  writeLabelTrack,
  writeSectionCsv,
} from '@wild-needle/core/formats';
import {
  addPasses,
  barTimesS,
  countAt,
  doubleTempo,
  gridFromTaps,
  halveTempo,
  joinWithNext,
  moveBarLine,
  moveOne,
  moveSection,
  orderOfPlay,
  renameSection,
  replaceGrid,
  setBarBeats,
  setSectionRiff,
  setSections,
  setSectionTranspose,
  splitSection,
  tempoAt,
  whyNotHalve,
  whyNotJoin,
  type SongDocument,
} from '@wild-needle/core/riff';
import { Player } from '../../audio/player';
import { Now } from '../../open-song/now';
import { OpenSongStore } from '../../open-song/open-song.store';
import { Icon } from '../../shared/icon';
import { isCommandKey, steppedInHistory } from '../../shared/keys';
import { Needle } from '../../shared/needle';
import { saveFile } from '../../shared/save-file';
import { clock, counted, movedBy } from '../../shared/words';
import { RoadMap, type MapBlock } from './road-map';
import { comparePassesInWords } from './section-words';

/** Taps farther apart begin anew. */
const TAP_PAUSE_S = 3;
/** Passes of the analysis that overlap a section by half belong to it. */
const SAME_PASS_S = 0.5;
/** Margin of the map to both sides. */
const MARGIN_PX = 16;

@Component({
  selector: 'wn-sections-page',
  imports: [MatButton, MatButtonToggleModule, MatMenuModule, MatTooltip, Icon, Needle, RoadMap],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  templateUrl: './sections.page.html',
  styleUrl: './sections.page.scss',
})
export class SectionsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly snackBar = inject(MatSnackBar);
  private readonly page = inject(DOCUMENT);
  private readonly tapsS = signal<readonly number[]>([]);

  protected readonly durationS = computed(() => this.song.recording()?.durationS ?? 0);
  protected readonly order = computed(() => {
    const document = this.song.document();
    return document && document.sections.length > 0 ? orderOfPlay(document) : 'No sections yet';
  });

  protected readonly rows = computed(() => {
    const document = this.song.document();
    if (!document) return [];
    const heard = (this.song.analysis()?.sections ?? []).flatMap((s) => s.passList);
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId);
      const passes = this.now.allPasses().filter((p) => p.sectionId === section.id);
      if (!riff || passes.length === 0) return [];
      const [startS, endS] = [passes[0].startS, passes[passes.length - 1].endS];
      const inside = heard.filter((p) => p.startS > startS - SAME_PASS_S && p.endS < endS + SAME_PASS_S);
      const bars = section.passes * riff.bars.length;
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
          verdict: comparePassesInWords(inside, document.grid),
          isChosen: section.id === this.song.sectionId(),
          facts: `${counted(bars, 'bar')}, riff ${riff.letter}`,
        },
      ];
    });
  });
  protected readonly chosen = computed(() => this.rows().find((row) => row.isChosen) ?? null);
  protected readonly blocks = computed((): MapBlock[] =>
    this.rows().map((row) => ({ ...row, isDoubtful: row.verdict.kind === 'differ' })),
  );
  protected readonly needleX = computed(() => {
    const durationS = this.durationS();
    if (durationS <= 0) return null;
    return (this.player.nowS() / durationS) * (this.page.documentElement.clientWidth - 2 * MARGIN_PX);
  });

  protected readonly hasBeats = computed(() => (this.song.document()?.grid.bars.length ?? 0) > 0);
  protected readonly gridWords = computed(() => {
    const grid = this.song.document()?.grid;
    const bpm = grid ? tempoAt(grid, this.player.nowS()) : null;
    if (!grid || bpm === null) return 'No beats yet: tap along';
    return `${Math.round(bpm)} bpm, ${counted(grid.bars.length, 'bar')}`;
  });
  /** Index of the bar under the needle. */
  private readonly barHere = computed(() => {
    const grid = this.song.document()?.grid;
    const count = grid && countAt(grid, this.player.nowS() + 1e-3);
    return count ? count.bar - 1 : 0;
  });
  protected readonly barWords = computed(() => {
    const bar = this.song.document()?.grid.bars[this.barHere()];
    return bar ? `Bar ${this.barHere() + 1}: ${bar.beats}/${bar.unit}` : 'No bar here';
  });
  protected readonly whyNotHalve = computed(() => {
    const document = this.song.document();
    return document ? whyNotHalve(document) : 'No song is open.';
  });
  protected readonly whyNotJoin = computed(() => {
    const [document, id] = [this.song.document(), this.song.sectionId()];
    return document && id !== null ? whyNotJoin(document, id) : 'No section is chosen.';
  });
  protected readonly tapWords = computed(() => {
    const taps = this.tapsS().length;
    return taps === 0 ? 'Tap along' : taps < 4 ? `Tap on, ${4 - taps} more` : `${taps} taps`;
  });

  ngOnDestroy(): void {
    this.snackBar.dismiss();
  }

  protected onKey(event: KeyboardEvent): void {
    if (steppedInHistory(event, this.song)) return;
    if (!isCommandKey(event)) return;
    const commands: Record<string, () => void> = {
      ArrowUp: () => this.step(-1),
      ArrowDown: () => this.step(1),
      i: () => this.split(),
      j: () => this.join(),
      d: () => this.double(),
      h: () => this.halve(),
      o: () => this.moveOne(event.shiftKey ? -1 : 1),
      b: () => this.lineHere(),
      t: () => this.tap(),
    };
    const command = commands[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!command) return;
    event.preventDefault();
    command();
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
    const [id, bar] = [this.song.sectionId(), this.barHere()];
    if (id !== null) this.change((document) => splitSection(document, id, bar, crypto.randomUUID()));
  }

  protected join(): void {
    const id = this.song.sectionId();
    if (id !== null) this.change((document) => joinWithNext(document, id));
  }

  protected double(): void {
    this.change(doubleTempo);
  }

  protected halve(): void {
    this.change(halveTempo);
  }

  protected moveOne(beats: number): void {
    this.change((document) => moveOne(document, beats));
  }

  protected barBeats(by: number): void {
    const bar = this.barHere();
    const beats = this.song.document()?.grid.bars[bar]?.beats;
    if (beats !== undefined) this.change((document) => setBarBeats(document, bar, beats + by));
  }

  /** The nearest bar line goes to the needle. */
  protected lineHere(): void {
    const timeS = this.player.nowS();
    this.change((document) => {
      const times = barTimesS(document.grid).slice(0, -1);
      const nearest = times.reduce(
        (best, t, i) => (Math.abs(t - timeS) < Math.abs(times[best] - timeS) ? i : best),
        0,
      );
      return moveBarLine(document, nearest, timeS);
    });
  }

  /** A tap on the beat while it plays; from the fourth on the beats follow, the first tap being a one. */
  protected tap(): void {
    const timeS = this.player.nowS();
    const before = this.tapsS();
    const last = before[before.length - 1];
    const goesOn = last !== undefined && timeS > last && timeS - last < TAP_PAUSE_S;
    const taps = goesOn ? [...before, timeS] : [timeS];
    this.tapsS.set(taps);
    const meter = this.song.document()?.grid.bars[0];
    const grid = gridFromTaps(taps, meter?.beats ?? 4, this.durationS(), meter?.unit ?? 4);
    if (!grid) return;
    // The taps of one go are one step back.
    if (taps.length > 4) this.song.undo();
    this.change((document) => replaceGrid(document, grid));
  }

  protected download(what: 'labels' | 'csv'): void {
    const document = this.song.document();
    if (!document) return;
    if (what === 'labels') saveFile(this.page, document.title, 'txt', writeLabelTrack(document));
    else saveFile(this.page, document.title, 'csv', writeSectionCsv(document));
  }

  protected async bringIn(input: HTMLInputElement): Promise<void> {
    const text = await input.files?.[0]?.text();
    input.value = '';
    const document = this.song.document();
    if (text === undefined || !document) return;
    try {
      const sections = sectionsFromLabels(document, parseLabelTrack(text));
      if (sections.length === 0)
        this.say('No label lies over a whole pass of a riff, so nothing was changed.');
      this.change((d) => setSections(d, sections));
    } catch (error) {
      this.say(
        error instanceof Error ? `This is no label track: ${error.message}` : 'This is no label track.',
      );
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
