/**
 * Write the tab under the sound: the riff written once on top, its passes below on the same ruler, the chosen strum
 * at the side.
 */
import type { ElementRef, OnDestroy } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { STANDARD_TUNING, type StringFret } from '@wild-needle/core/guitar';
import {
  clearFret,
  markChecked,
  passTicksToSeconds,
  riffTicks,
  secondsToPassTicks,
  setFret,
  setFrets,
  toggleDead,
  togglePalmMute,
  type Pass,
  type Riff,
  type SongDocument,
} from '@wild-needle/core/riff';
import { Player } from '../../audio/player';
import { EnvelopeStore } from '../../open-song/envelope.store';
import { Now } from '../../open-song/now';
import { OpenSongStore } from '../../open-song/open-song.store';
import { doubtWords } from '../../shared/doubt-words';
import { groovePath } from '../../shared/groove-path';
import { Icon } from '../../shared/icon';
import { isCommandKey, steppedInHistory } from '../../shared/keys';
import { Needle } from '../../shared/needle';
import { observeSize } from '../../shared/observe-size';
import { counted, movedBy } from '../../shared/words';
import { createFretEntry } from './fret-entry';
import { PassRow, type HeardMark, type PassView } from './pass-row';
import { layoutRow, xOf, type TickWindow } from './row-layout';
import { StrumEdits } from './strum-edits';
import { StrumPanel } from './strum-panel';
import { copyTab, downloadTab } from './take-away';
import { ListenAgain } from '../../workers/listen-again';
import { WrittenRow } from './written-row';

/** Bars on screen at once: more would make sixteenths narrower than a digit. */
const BARS_SHOWN = 4;
/** Left of the lane: string names and pass numbers. */
const GUTTER = 104;
const LANE_PADDING = 24;
/** A strum heard with less confidence gets a question mark. */
const DOUBT_BELOW = 0.5;
/** Rows of the passes share the height there is; the sounding one is taller, for names read from afar. */
const MIN_ROW = 34;
const MAX_ROW = 56;
const SOUNDING_MORE = 26;
/** Of a row, the part below its names. */
const GROOVE_SHARE = 0.45;
/** A strum that comes up to this much early still belongs to the pass it is played for. */
const EARLY_S = 0.06;

@Component({
  selector: 'wn-riffs-page',
  imports: [Icon, MatButton, MatButtonToggleModule, MatMenuModule, Needle, PassRow, StrumPanel, WrittenRow],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  providers: [StrumEdits],
  templateUrl: './riffs.page.html',
  styleUrl: './riffs.page.scss',
})
export class RiffsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly player = inject(Player);
  private readonly now = inject(Now);
  private readonly envelope = inject(EnvelopeStore).envelope;
  protected readonly listening = inject(ListenAgain);
  private readonly snackBar = inject(MatSnackBar);
  private readonly page = inject(DOCUMENT);
  private readonly edits = inject(StrumEdits);
  private readonly fretEntry = createFretEntry();
  private readonly stack = viewChild<ElementRef<HTMLElement>>('stack');
  private readonly passList = viewChild<ElementRef<HTMLElement>>('passList');
  private readonly panel = viewChild(StrumPanel);

  protected readonly riffs = computed(() => this.song.document()?.riffs ?? []);
  protected readonly tuning = computed(() => this.song.document()?.tuning ?? STANDARD_TUNING);
  protected readonly key = computed(() => this.song.document()?.key ?? null);
  protected readonly doubts = computed(() => (this.song.analysis()?.doubts ?? []).map(doubtWords));
  /** Sections that play the chosen riff. */
  protected readonly sections = computed(() => {
    const riffId = this.song.riffId();
    return (this.song.document()?.sections ?? []).filter((s) => s.riffId === riffId);
  });
  protected readonly facts = computed(() => {
    const riff = this.song.riff();
    return riff ? `${counted(riff.bars.length, 'bar')}, ${counted(riff.strums.length, 'strum')}` : '';
  });

  /** Width of the stack on screen; follows the window. */
  private readonly stackWidth = signal(Math.max(400, innerWidth - 344));
  private readonly passListHeight = signal(0);
  protected readonly laneWidth = computed(() => this.stackWidth() - GUTTER - LANE_PADDING);

  /** Which page of a long riff is on screen: that of the sounding strum, else of the chosen one. */
  private readonly window = computed((): TickWindow => {
    const riff = this.song.riff();
    if (!riff) return { fromTicks: 0, toTicks: 1 };
    const barTicks = riffTicks(riff) / riff.bars.length;
    const pageTicks = Math.min(BARS_SHOWN, riff.bars.length) * barTicks;
    const shown = riff.strums.find((s) => s.id === (this.soundingHere() ?? this.song.strumId()));
    const page = Math.floor((shown?.startTicks ?? 0) / pageTicks);
    return { fromTicks: page * pageTicks, toTicks: (page + 1) * pageTicks };
  });

  /** The pass under the needle, if it is one of the shown section's. */
  private readonly passHere = computed((): Pass | null => {
    const pass = this.now.pass();
    return pass?.sectionId === this.song.sectionId() ? pass : null;
  });
  protected readonly soundingHere = computed(() =>
    this.passHere() && this.player.playing() ? this.now.strumId() : null,
  );

  protected readonly layout = computed(() => {
    const riff = this.song.riff();
    return riff
      ? layoutRow(riff, {
          tuning: this.tuning(),
          key: this.key(),
          widthPx: this.laneWidth(),
          window: this.window(),
          openString: this.song.string(),
        })
      : null;
  });

  protected readonly needleX = computed((): number | null => {
    const [pass, riff, document] = [this.passHere(), this.song.riff(), this.song.document()];
    if (!pass || !riff || !document) return null;
    const x = xOf(
      secondsToPassTicks(pass, riff, document.grid, this.player.nowS()),
      this.window(),
      this.laneWidth(),
    );
    return x >= 0 && x <= this.laneWidth() ? x : null;
  });

  protected readonly passes = computed((): PassView[] => {
    const [riff, document] = [this.song.riff(), this.song.document()];
    if (!riff || !document) return [];
    const soundingIndex = this.passHere()?.index ?? -1;
    const loop = this.player.loop();
    const passes = this.song.passes();
    const share = Math.floor((this.passListHeight() - SOUNDING_MORE) / passes.length) - 1;
    const plainPx = Math.min(MAX_ROW, Math.max(MIN_ROW, share));
    return passes.map((pass) => {
      const sounding = pass.index === soundingIndex;
      const rowPx = sounding ? plainPx + SOUNDING_MORE : plainPx;
      const groovePx = Math.round(rowPx * GROOVE_SHARE);
      return {
        id: `${pass.sectionId}-${pass.index}`,
        number: pass.index + 1,
        barsText:
          pass.bars === 1 ? String(pass.startBar + 1) : `${pass.startBar + 1}–${pass.startBar + pass.bars}`,
        sounding,
        looped: loop !== null && pass.startS >= loop.startS - 0.01 && pass.endS <= loop.endS + 0.01,
        moved: movedBy(pass.transpose),
        marks: this.heardIn(pass, riff, document),
        path: this.groove(pass, riff, document, groovePx),
        rowPx,
        groovePx,
      };
    });
  });

  constructor() {
    observeSize(this.stack, ({ width }) => this.stackWidth.set(width));
    observeSize(this.passList, ({ height }) => this.passListHeight.set(height));
    // While it plays the screen follows the needle into the next section.
    effect(() => {
      const pass = this.now.pass();
      if (!pass || !this.player.playing()) return;
      untracked(() => {
        if (pass.sectionId !== this.song.sectionId()) this.song.selectRiff(pass.riffId, pass.sectionId);
      });
    });
  }

  ngOnDestroy(): void {
    this.listening.cancel();
    this.snackBar.dismiss();
  }

  protected onKey(event: KeyboardEvent): void {
    if (steppedInHistory(event, this.song)) return;
    if (!isCommandKey(event)) return;
    if (this.handleKey(event)) event.preventDefault();
  }

  protected seekToPass(index: number): void {
    const pass = this.song.passes()[index];
    if (pass) this.player.seek(pass.startS);
  }

  protected loopPass(index: number): void {
    const pass = this.song.passes()[index];
    if (!pass) return;
    this.player.setLoop({ startS: pass.startS, endS: pass.endS });
    this.player.seek(pass.startS);
  }

  protected chooseStrum({ strumId, string }: { strumId: string; string: number | null }): void {
    this.song.selectStrum(strumId);
    if (string !== null) this.song.selectString(string);
  }

  protected play(frets: readonly StringFret[]): void {
    this.editStrum((document, riffId, strumId) => setFrets(document, riffId, strumId, frets));
  }

  protected mute(): void {
    this.editStrum(togglePalmMute);
  }

  protected dead(): void {
    this.editStrum(toggleDead);
  }

  protected check(): void {
    this.editStrum(markChecked);
  }

  protected download(): void {
    const document = this.song.document();
    if (document) downloadTab(document, this.page);
  }

  /** Hears the loop, or the whole song, once more; see ListenAgain. */
  protected async listenAgain(): Promise<void> {
    const before = this.song.analysis();
    if (!before || this.listening.progress()) return;
    const loop = this.player.loop();
    try {
      const changed = await this.listening.start(loop);
      if (changed === null) return;
      const where = loop ? 'in the loop' : 'in the song';
      const said =
        changed === 0 ? `Heard the same ${where}` : `${counted(changed, 'strum')} heard anew ${where}`;
      this.snackBar
        .open(said, changed === 0 ? undefined : 'Back', { duration: 8000, panelClass: 'above-deck' })
        .onAction()
        .subscribe(() => this.song.showHeard(before));
    } catch {
      this.snackBar.open('The recording could not be heard again; is the server still there?', undefined, {
        duration: 8000,
        panelClass: 'above-deck',
      });
    }
  }

  protected async copy(): Promise<void> {
    const document = this.song.document();
    if (!document) return;
    const said = await copyTab(document).then(
      () => 'The tab is on the clipboard',
      () => 'The browser does not let us copy; download the tab instead',
    );
    this.snackBar.open(said, undefined, { duration: 3000, panelClass: 'above-deck' });
  }

  /** True when the key was one of this screen's. */
  private handleKey(event: KeyboardEvent): boolean {
    const { key } = event;
    if (/^[0-9]$/.test(key)) {
      this.writeDigit(Number(key), event.timeStamp);
      return true;
    }
    // Tab walks the strings only from within the tab; elsewhere it moves the focus as usual.
    if (key === 'Tab') {
      const inGrid = event.target instanceof Element && event.target.getAttribute('role') === 'grid';
      if (!inGrid || event.shiftKey) return false;
      this.nextString();
      return true;
    }
    const commands: Record<string, () => void> = {
      ArrowLeft: () => (event.shiftKey ? this.edits.move(-1) : this.stepStrum(-1)),
      ArrowRight: () => (event.shiftKey ? this.edits.move(1) : this.stepStrum(1)),
      Enter: () => this.edits.repeat(),
      ArrowUp: () => this.stepPass(-1),
      ArrowDown: () => this.stepPass(1),
      Backspace: () => this.clearString(),
      Delete: () => this.clearString(),
      m: () => this.mute(),
      x: () => this.dead(),
      c: () => this.check(),
      g: () => void this.listenAgain(),
      ',': () => this.playNeighbour(-1),
      '.': () => this.playNeighbour(1),
    };
    const command = commands[key.length === 1 ? key.toLowerCase() : key];
    command?.();
    return command !== undefined;
  }

  private editStrum(edit: (document: SongDocument, riffId: string, strumId: string) => SongDocument): void {
    const [riffId, strumId] = [this.song.riffId(), this.song.strumId()];
    if (riffId !== null && strumId !== null) this.song.change((document) => edit(document, riffId, strumId));
  }

  private writeDigit(digit: number, nowMs: number): void {
    const [string, strumId] = [this.song.string() ?? this.tuning().stringsMidi.length, this.song.strumId()];
    if (strumId === null) return;
    this.song.selectString(string);
    const fret = this.fretEntry.type(digit, `${strumId}/${string}`, nowMs);
    this.editStrum((document, riffId, id) => setFret(document, riffId, id, { string, fret }));
  }

  private clearString(): void {
    const string = this.song.string();
    if (string !== null)
      this.editStrum((document, riffId, strumId) => clearFret(document, riffId, strumId, string));
  }

  private playNeighbour(step: 1 | -1): void {
    const frets = this.panel()?.neighbour(step);
    if (frets) this.play(frets);
  }

  /** From the lowest string up, then round. */
  private nextString(): void {
    const count = this.tuning().stringsMidi.length;
    const string = this.song.string() ?? 1;
    this.song.selectString(string === 1 ? count : string - 1);
  }

  private stepStrum(step: 1 | -1): void {
    const [riff, document] = [this.song.riff(), this.song.document()];
    if (!riff || !document || riff.strums.length === 0) return;
    const at = riff.strums.findIndex((s) => s.id === this.song.strumId());
    const next = riff.strums[(at + step + riff.strums.length) % riff.strums.length];
    this.song.selectStrum(next.id);
    // The needle goes along while it rests; while it plays it keeps its place.
    const pass = this.passHere() ?? this.song.passes()[0];
    if (pass && !this.player.playing()) {
      this.player.seek(passTicksToSeconds(pass, riff, document.grid, next.startTicks));
    }
  }

  private stepPass(step: 1 | -1): void {
    const passes = this.song.passes();
    const index = (this.passHere()?.index ?? (step > 0 ? -1 : 0)) + step;
    const pass = passes[Math.min(passes.length - 1, Math.max(0, index))];
    if (pass) this.player.seek(pass.startS);
  }

  private heardIn(pass: Pass, riff: Riff, document: SongDocument): HeardMark[] {
    const window = this.window();
    return (this.song.analysis()?.strums ?? [])
      .filter((s) => s.timeS >= pass.startS - EARLY_S && s.timeS < pass.endS - EARLY_S)
      .map((s) => ({
        x: xOf(secondsToPassTicks(pass, riff, document.grid, s.timeS), window, this.laneWidth()),
        name: s.dead ? '×' : s.name,
        doubtful: s.confidence < DOUBT_BELOW,
        muted: s.palmMuted || s.dead,
      }))
      .filter((mark) => mark.x > -10 && mark.x < this.laneWidth())
      .map((mark, i, all) => ({
        ...mark,
        roomPx: (all[i + 1]?.x ?? this.laneWidth() + LANE_PADDING) - mark.x - 6,
      }));
  }

  private groove(pass: Pass, riff: Riff, document: SongDocument, heightPx: number): string {
    const [envelope, { fromTicks, toTicks }, width] = [this.envelope(), this.window(), this.laneWidth()];
    if (!envelope) return '';
    const timeAt = (x: number): number =>
      passTicksToSeconds(pass, riff, document.grid, fromTicks + (x / width) * (toTicks - fromTicks));
    return groovePath(envelope, width, heightPx, timeAt, 2);
  }
}
