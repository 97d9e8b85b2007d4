/**
 * Write the tab under the sound: the riff written once on top, its passes below on the same ruler, the chosen strum
 * at the side.
 */
import type { ElementRef, OnDestroy } from '@angular/core';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
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
import { Store } from '@ngrx/store';
import type { StringFret } from '@wild-needle/core/guitar';
import {
  passTicksToSeconds,
  riffTicks,
  secondsToPassTicks,
  type Layer,
  type MarkCommand,
} from '@wild-needle/core/riff';
import { Player } from '../../../transport/player';
import type { HeardPass } from '../../../open-song/heard-passes';
import { Now } from '../../../transport/now';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { PassAnswers } from '../../../open-song/pass-answers';
import { DeckControl } from '../../../transport/deck-control';
import { doubtWords, isOpen } from '../../../shared/doubt-words';
import { GuitarSwitch } from '../../../shared/guitar-switch';
import { HistoryButtons } from '../../../shared/history-buttons';
import { historyHandlers } from '../../../shared/history-keys';
import { callOf, runScreenKey, type KeyHandlers } from '../../../shared/key-map';
import { ScreenKeys } from '../../../shared/screen-keys';
import { Needle } from '../../../shared/needle';
import { observeSize } from '../../../shared/observe-size';
import { counted } from '../../../shared/words';
import { shapesActions } from '../../../state/shapes/shapes.actions';
import { shapesFeature } from '../../../state/shapes/shapes.reducer';
import { ListenAgain } from '../../../open-song/listen-again';
import { variationLabel } from '../../../shared/difference-words';
import { PassRow } from '../passes/pass-row';
import { MARK_COMMANDS } from '../tab/mark-views';
import { RIFF_KEYS } from '../keys/riff-keys';
import { RiffMenu } from './riff-menu';
import { GUTTER, RiffView } from '../view/riff-view';
import { MOVE_STEP, StrumEdits } from '../edit/strum-edits';
import { StrumPanel } from '../strum/strum-panel';
import { StrumStudy } from '../strum/strum-study';
import { WrittenRow } from '../tab/written-row';

const LAYERS: readonly Layer[] = ['chords', 'strokes', 'all'];
const MESSAGE = { duration: 6000, panelClass: 'above-deck' };

/** What a way that is tried outlasts, and what answers it. */
const WAY_KEYS: readonly (keyof typeof RIFF_KEYS)[] = ['fingering', 'repeat', 'letGo', 'undo', 'nextLayer'];

type MarkHandlers = Pick<KeyHandlers<typeof RIFF_KEYS>, `mark-${MarkCommand}`>;

@Component({
  selector: 'wn-riffs-page',
  imports: [
    GuitarSwitch,
    HistoryButtons,
    MatButton,
    MatButtonToggleModule,
    MatMenuModule,
    Needle,
    PassRow,
    RiffMenu,
    StrumPanel,
    WrittenRow,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  providers: [RiffView, StrumEdits, StrumStudy],
  templateUrl: './riffs.page.html',
  styleUrl: './riffs.page.scss',
})
export class RiffsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly player = inject(Player);
  protected readonly listening = inject(ListenAgain);
  protected readonly view = inject(RiffView);
  protected readonly edits = inject(StrumEdits);
  private readonly study = inject(StrumStudy);
  private readonly answers = inject(PassAnswers);
  private readonly now = inject(Now);
  private readonly deck = inject(DeckControl);
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly app = inject(ApplicationRef);
  private readonly stack = viewChild<ElementRef<HTMLElement>>('stack');
  private readonly passList = viewChild<ElementRef<HTMLElement>>('passList');
  private readonly panel = viewChild(StrumPanel);
  private readonly writtenRow = viewChild(WrittenRow);
  private readonly shapes = this.store.selectSignal(shapesFeature.selectShapes);

  protected readonly GUTTER = GUTTER;
  protected readonly keys = RIFF_KEYS;
  protected readonly riffs = computed(() => this.song.written()?.riffs ?? []);
  protected readonly doubts = computed(() => {
    const grid = this.song.document()?.grid;
    const doubts = this.song.analysis()?.doubts ?? [];
    return doubts.filter((doubt) => !grid || isOpen(doubt, grid)).map(doubtWords);
  });
  /** Sections that play the chosen riff. */
  protected readonly sections = computed(() => {
    const riffId = this.song.riffId();
    return (this.song.document()?.sections ?? []).filter((s) => s.riffId === riffId);
  });
  protected readonly variations = computed(() => {
    const riff = this.riffs().find((r) => r.id === this.song.riffId());
    return (riff?.variations ?? []).map((v) => ({ id: v.id, label: variationLabel(riff!, v) }));
  });
  protected readonly facts = computed(() => {
    const riff = this.song.riff();
    if (!riff) return '';
    const todo = riff.barNotes.filter((n) => n.todo).length;
    const words = `${counted(riff.bars.length, 'bar')}, ${counted(riff.strums.length, 'strum')}`;
    return todo > 0 ? `${words}, ${todo} to do` : words;
  });
  protected readonly tapping = signal(false);

  constructor() {
    observeSize(this.stack, ({ width }) => this.view.stackWidth.set(width));
    observeSize(this.passList, ({ height }) => this.view.passListHeight.set(height));
    this.store.dispatch(shapesActions.opened());
    inject(ScreenKeys).show(RIFF_KEYS);
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
    this.deck.tapping = null;
    this.listening.cancel();
    this.snackBar.dismiss();
  }

  protected onKey(event: KeyboardEvent): void {
    // Tab walks the strings up from within the tab, and leaves it behind the highest; elsewhere it moves the focus as usual.
    if (event.key === 'Tab') {
      const inGrid = event.target instanceof Element && event.target.getAttribute('role') === 'grid';
      if (!inGrid || event.shiftKey || this.song.string() === 1) return;
    }
    const call = callOf(RIFF_KEYS, event)?.name;
    // Whatever is done next is done to the way that was tried.
    if (call && !WAY_KEYS.includes(call)) this.study.take();
    // Now and not when the next frame begins: that frame then only has to paint.
    if (runScreenKey(RIFF_KEYS, this.handlers, event)) this.app.tick();
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

  protected chooseStrum(chosen: { strumId: string; string: number | null; extend: boolean }): void {
    if (chosen.extend) this.song.selectTo(chosen.strumId);
    else this.song.selectStrum(chosen.strumId);
    if (chosen.string !== null) this.song.selectString(chosen.string);
  }

  /** A place on the neck: written, or taken out where it is written already. */
  protected pressNeck(place: StringFret): void {
    this.study.take();
    if (!this.edits.press(place)) this.say('Choose a strum or a place in the tab first');
  }

  protected choosePlace({ x, string }: { x: number; string: number }): void {
    const { fromTicks, toTicks } = this.view.window();
    const ticks = fromTicks + (x / this.view.laneWidth()) * (toTicks - fromTicks);
    const place = Math.round(ticks / MOVE_STEP) * MOVE_STEP;
    const riff = this.song.riff();
    if (!riff || place >= riffTicks(riff)) return;
    this.song.selectPlace(place);
    this.song.selectString(string);
  }

  /** The keys belong to the tab again, as after a menu. */
  protected focusTab(): void {
    this.writtenRow()?.focus();
  }

  protected setLayer(layer: Layer): void {
    this.view.layer.set(layer);
  }

  /** Taps the rhythm to the playing loop with Space, until it is pressed again. */
  protected toggleTapping(): void {
    const on = !this.tapping();
    this.tapping.set(on);
    this.deck.tapping = on ? () => this.tap() : null;
    if (on) this.say('Play the loop and tap the strokes with Space; J ends it');
  }

  protected giveAway(): void {
    if (this.song.document()?.guitar2) this.edits.giveToOther();
    else this.say('This song has one guitar; add the second in the riff menu');
  }

  /** Hears the loop, or the whole song, once more; see ListenAgain. */
  protected async listenAgain(): Promise<void> {
    const before = this.song.analysis();
    if (!before || this.listening.progress()) return;
    const loop = this.player.loop();
    try {
      const changed = await this.listening.start(loop, this.player.hearing());
      if (changed === null) return;
      const where = loop ? 'in the loop' : 'in the song';
      const said =
        changed === 0 ? `Heard the same ${where}` : `${counted(changed, 'strum')} heard anew ${where}`;
      this.snackBar
        .open(said, changed === 0 ? undefined : 'Back', { duration: 8000, panelClass: 'above-deck' })
        .onAction()
        .subscribe(() => this.song.showHeard(before));
    } catch {
      this.say('The recording could not be heard again; is the server still there?');
    }
  }

  private readonly handlers: KeyHandlers<typeof RIFF_KEYS> = {
    ...this.markHandlers(),
    digit: (digit, { timeStamp }) => this.edits.writeDigit(digit, timeStamp),
    shape: (index) => this.edits.shape(index),
    ownShape: (index) => this.placeOwnShape(index),
    stepStrum: (by) => this.stepStrum(by),
    select: (by) => this.extendSelection(by),
    selectAll: () => this.song.selectAll(),
    stepPass: (by) => this.stepPass(by),
    move: (by) => this.edits.move(by),
    lengthen: (by) => this.edits.lengthen(by),
    shift: (by) => this.edits.shift(by),
    cross: (by) => this.edits.shift(by),
    nextPlace: (by) => this.edits.nextPlace(by),
    fingering: (by) => this.study.step(by),
    repeat: () => {
      if (!this.study.take()) this.edits.repeat();
    },
    repeatBar: () => this.edits.repeatBar(),
    clear: () => this.edits.clearString(),
    remove: () => this.edits.remove(),
    check: () => this.edits.check(),
    note: () => this.panel()?.writeNote(),
    nextString: () => this.nextString(),
    letGo: () => {
      if (!this.study.drop()) this.song.selectNothing();
    },
    copy: () => this.edits.copy(),
    paste: () => this.edits.paste(),
    listen: () => void this.listenAgain(),
    keepVariation: () => this.answer('keep', this.view.asked()),
    sameRiff: () => this.answer('same', this.view.asked()),
    tapRhythm: () => this.toggleTapping(),
    nextLayer: () => this.nextLayer(),
    otherGuitar: () => this.song.selectGuitar(this.song.guitar() === 1 ? 2 : 1),
    giveAway: () => this.giveAway(),
    ...historyHandlers({
      undo: () => {
        if (!this.study.drop()) this.song.undo();
      },
      redo: () => this.song.redo(),
    }),
  };

  /** Says what a pass that differs is. */
  protected answer(answer: 'keep' | 'same', pass: HeardPass | null | undefined): void {
    if (pass) this.answers[answer](pass);
  }

  private markHandlers(): MarkHandlers {
    const press = (mark: MarkCommand): void => this.edits.mark(mark);
    return Object.fromEntries(
      MARK_COMMANDS.map((mark) => [`mark-${mark}`, press]),
    ) as unknown as MarkHandlers;
  }

  private placeOwnShape(index: number): void {
    const shape = this.shapes()[index];
    if (shape) this.edits.ownShape(shape);
    else this.say('No shape of yours has this key yet');
  }

  private nextLayer(): void {
    this.view.layer.update((layer) => LAYERS[(LAYERS.indexOf(layer) + 1) % LAYERS.length]);
  }

  private needleTicks(): number | null {
    const [pass, riff, document] = [this.view.passHere(), this.song.riff(), this.song.document()];
    return pass && riff && document ? secondsToPassTicks(pass, document.grid, this.player.nowS()) : null;
  }

  private tap(): void {
    const ticks = this.needleTicks();
    if (ticks !== null) this.edits.tap(ticks);
  }

  /** From the lowest string up. */
  private nextString(): void {
    const count = this.view.tuning().stringsMidi.length;
    const string = this.song.string() ?? 1;
    this.song.selectString(string === 1 ? count : string - 1);
  }

  private extendSelection(step: 1 | -1): void {
    const strums = this.song.riff()?.strums ?? [];
    const next = strums[strums.findIndex((s) => s.id === this.song.strumId()) + step];
    if (next && this.song.strumId() !== null) this.song.selectTo(next.id);
  }

  private stepStrum(step: 1 | -1): void {
    const [riff, document] = [this.song.riff(), this.song.document()];
    if (!riff || !document || riff.strums.length === 0) return;
    // Without a strum the walk goes on from where the needle stands.
    const place = this.song.placeTicks() ?? (this.song.strumId() === null ? this.needleTicks() : null);
    const at =
      place === null
        ? riff.strums.findIndex((s) => s.id === this.song.strumId())
        : riff.strums.findLastIndex((s) => s.startTicks < place) + (step < 0 ? 1 : 0);
    const next = riff.strums[(at + step + riff.strums.length) % riff.strums.length];
    this.song.selectStrum(next.id);
    // The needle goes along while it rests; while it plays it keeps its place.
    const pass = this.view.passHere() ?? this.song.passes()[0];
    if (pass && !this.player.playing()) {
      this.player.seek(passTicksToSeconds(pass, document.grid, next.startTicks));
    }
  }

  private stepPass(step: 1 | -1): void {
    const passes = this.song.passes();
    const index = (this.view.passHere()?.index ?? (step > 0 ? -1 : 0)) + step;
    const pass = passes[Math.min(passes.length - 1, Math.max(0, index))];
    if (pass) this.player.seek(pass.startS);
  }

  private say(words: string): void {
    this.snackBar.open(words, undefined, MESSAGE);
  }
}
