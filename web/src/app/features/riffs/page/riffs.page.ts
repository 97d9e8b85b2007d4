/**
 * Write the tab under the sound: the riff written once on top, its passes below on the same ruler, the chosen strum
 * at the side.
 */
import type { OnDestroy } from '@angular/core';
import {
  afterRenderEffect,
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
  viewChildren,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store } from '@ngrx/store';
import type { StringFret } from '@wild-needle/core/guitar';
import {
  answerOf,
  useReading,
  passTicksToSeconds,
  riffTicks,
  type Layer,
  type MarkCommand,
  type Reading,
  type Strum,
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
import { isInSight, scrollIntoSight } from '../../../shared/scroll-into-sight';
import { observeSize } from '../../../shared/observe-size';
import { counted } from '../../../shared/words';
import { shapesActions } from '../../../state/shapes/shapes.actions';
import { shapesFeature } from '../../../state/shapes/shapes.reducer';
import { ListenAgain } from '../../../open-song/listen-again';
import { variationLabel } from '../../../shared/difference-words';
import { changeBetween } from '../../../shared/undo-words';
import { PassRow } from '../passes/pass-row';
import { MARK_COMMANDS } from '../tab/mark-views';
import { RIFF_KEYS } from '../keys/riff-keys';
import { RiffMenu } from './riff-menu';
import { GUTTER, PANEL_PX, RiffView } from '../view/riff-view';
import { StrumEdits } from '../edit/strum-edits';
import { StrumPanel } from '../strum/strum-panel';
import { StrumStudy } from '../strum/strum-study';
import { WrittenRow } from '../tab/written-row';

/** A click this near to a strum means it. */
const NEAR_PX = 3;
/** One notch of a wheel, or one stroke over a touchpad, turns one page. */
const WHEEL_REST_MS = 250;
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
  host: {
    '(window:keydown)': 'onKey($event)',
    '[style.--panel]': "PANEL_PX[view.panel()] + 'px'",
    '[class.small]': 'view.isSmall()',
    '[style.--gutter]': "GUTTER + 'px'",
  },
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
  protected readonly answers = inject(PassAnswers);
  private readonly now = inject(Now);
  private readonly deck = inject(DeckControl);
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
  private readonly app = inject(ApplicationRef);
  private readonly passList = viewChild<ElementRef<HTMLElement>>('passList');
  private readonly passRows = viewChildren<ElementRef<HTMLElement>>('passRow');
  private readonly panel = viewChild(StrumPanel);
  private readonly writtenRow = viewChild(WrittenRow);
  private readonly shapes = this.store.selectSignal(shapesFeature.selectShapes);

  /** Bar of the song that taps count from while no pass of the riff sounds. */
  private tapsFromBar = 0;
  /** When the wheel last turned the bars. */
  private wheeledMs = -Infinity;
  protected readonly PANEL_PX = PANEL_PX;
  protected readonly GUTTER = GUTTER;
  protected readonly keys = RIFF_KEYS;
  protected readonly riffs = computed(() => this.song.written()?.riffs ?? []);
  protected readonly doubts = computed(() => {
    const grid = this.song.document()?.grid;
    const doubts = this.song.analysis()?.doubts ?? [];
    return doubts
      .filter((doubt) => !grid || isOpen(doubt, grid))
      .map((doubt) => ({
        words: doubtWords(doubt),
        reading: doubt.kind === 'tempo' && grid && grid.bars.length > 0 ? doubt.other : null,
      }));
  });
  /** Another reading of tempo and meter is taken; what is written keeps its place in the sound. */
  protected useReading(reading: Reading): void {
    this.song.change((document) => useReading(document, reading));
  }

  /** 'bars 1 to 4 of 8' */
  protected readonly barWords = computed(() => {
    const chips = this.view.barChips();
    const shown = chips.filter((bar) => bar.isShown).map((bar) => bar.number);
    const [first, last] = [shown[0], shown.at(-1)];
    return shown.length === 1
      ? `Bar ${first} of ${chips.length}`
      : `Bars ${first} to ${last} of ${chips.length}`;
  });
  protected readonly isTurning = computed(() => this.view.barChips().some((bar) => !bar.isShown));
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
    observeSize(signal(inject<ElementRef<HTMLElement>>(ElementRef)), ({ width }) =>
      this.view.pageWidth.set(width),
    );
    observeSize(this.passList, ({ height }) => this.view.passListHeight.set(height));
    this.store.dispatch(shapesActions.opened());
    inject(ScreenKeys).show(RIFF_KEYS);
    // The list follows the needle, which keys move along as well.
    const atPass = computed(() => this.view.passes().findIndex((pass) => pass.sounding));
    afterRenderEffect(() => this.showPass(atPass()));
    // While it plays the screen follows the needle from one section into the next; what was chosen besides stays until then.
    const needleSection = computed(() => this.now.pass()?.sectionId ?? null);
    let before = untracked(needleSection);
    effect(() => {
      const sectionId = needleSection();
      const pass = untracked(this.now.pass);
      const hasLeft = before !== null && sectionId !== before;
      before = sectionId ?? before;
      if (!pass || !hasLeft || !untracked(this.player.playing) || untracked(this.tapping)) return;
      untracked(() => this.song.selectRiff(pass.riffId, pass.sectionId));
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

  protected chooseStrum(chosen: {
    strumId: string;
    string: number | null;
    extend: boolean;
    picked: boolean;
  }): void {
    const before = this.song.strumId();
    if (chosen.picked) this.song.pick([chosen.strumId, ...(before ? [before] : [])]);
    else if (chosen.extend) this.song.selectTo(chosen.strumId);
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
    // Beside a strum but on one of its strings: that string of it is written.
    const block = this.view.layout()?.blocks.find((b) => x >= b.x - NEAR_PX && x <= b.x + b.width + NEAR_PX);
    if (block) {
      this.song.selectStrum(block.id);
      this.song.selectString(string);
      return;
    }
    const ticks = fromTicks + (x / this.view.laneWidth()) * (toTicks - fromTicks);
    const { fineTicks } = this.edits.step();
    const place = Math.round(ticks / fineTicks) * fineTicks;
    const riff = this.song.riff();
    if (!riff || place >= riffTicks(riff)) return;
    this.song.selectPlace(place);
    this.song.selectString(string);
  }

  /** The wheel over the tab turns its bars. */
  protected wheel(event: WheelEvent): void {
    const by = Math.sign(event.deltaY + event.deltaX);
    if (by === 0 || event.ctrlKey || this.view.barChips().every((bar) => bar.isShown)) return;
    event.preventDefault();
    if (event.timeStamp - this.wheeledMs < WHEEL_REST_MS) return;
    this.wheeledMs = event.timeStamp;
    this.view.turn(by);
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
    this.edits.beginTapping();
    this.tapsFromBar = this.view.barAtLoop();
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
    chooseString: (by) => this.chooseString(by),
    select: (by) => this.extendSelection(by),
    selectAll: () => this.song.selectAll(),
    pick: () => this.pick(),
    selectAlike: () => this.selectAlike(),
    nextDoubt: (by) => this.nextDoubt(by),
    acceptHeard: () => this.edits.acceptHeard(),
    nextStep: () => this.edits.nextStep(),
    stepRiff: (by) => this.stepRiff(by),
    stepSection: (by) => this.stepSection(by),
    nextVariation: () => this.nextVariation(),
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
    note: () => {
      this.view.openPanel();
      this.panel()?.writeNote();
    },
    turnBars: (by) => this.view.turn(by),
    panel: () => this.view.togglePanel(),
    nextString: () => this.nextString(),
    letGo: () => {
      if (!this.study.drop()) this.song.selectNothing();
    },
    copy: () => this.edits.copy(),
    paste: () => this.edits.paste(),
    listen: () => void this.listenAgain(),
    keepVariation: () => this.answerAsked('keep'),
    sameRiff: () => this.answerAsked('same'),
    tapRhythm: () => this.toggleTapping(),
    nextLayer: () => this.nextLayer(),
    otherGuitar: () => this.song.selectGuitar(this.song.guitar() === 1 ? 2 : 1),
    giveAway: () => this.giveAway(),
    ...historyHandlers({
      undo: () => {
        if (!this.study.drop()) this.travel('undo');
      },
      redo: () => this.travel('redo'),
    }),
  };

  /** Says what a pass that differs is. */
  protected answer(answer: 'keep' | 'same', pass: HeardPass | null | undefined): void {
    if (pass) this.answers[answer](pass);
  }

  protected isAnswered({ pass }: HeardPass): boolean {
    const section = this.song.section();
    return section !== null && answerOf(section, pass.index) !== null;
  }

  protected isAsWritten(pass: HeardPass): boolean {
    return this.isAnswered(pass) && pass.variation === null;
  }

  /** A key answers only what can be read: a question out of sight is shown first. */
  private answerAsked(answer: 'keep' | 'same'): void {
    const asked = this.view.asked();
    if (!asked) {
      this.say('No pass of this section asks anything');
      return;
    }
    const [list, row] = this.passPlace(this.view.heardPasses().indexOf(asked));
    if (list && row && !isInSight(list, row)) {
      scrollIntoSight(list, row);
      this.say(`Pass ${asked.pass.index + 1} is asked about; press once more to answer`);
    } else this.answer(answer, asked);
  }

  private showPass(index: number): void {
    const [list, row] = this.passPlace(index);
    if (list && row) scrollIntoSight(list, row);
  }

  private passPlace(index: number): [HTMLElement | undefined, HTMLElement | undefined] {
    return [
      this.passList()?.nativeElement,
      this.passRows().at(index === -1 ? Infinity : index)?.nativeElement,
    ];
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

  private tap(): void {
    const ticks = this.view.needleTicks() ?? this.view.ticksFrom(this.tapsFromBar);
    if (ticks !== null) this.edits.tap(ticks);
    else this.say('There are no beats here to tap to: set them under Sections first');
  }

  /** Back or forth by one step; says what changed, and goes there. */
  protected travel(way: 'undo' | 'redo'): void {
    const before = this.song.document();
    this.song[way]();
    const after = this.song.document();
    const change = before && after && changeBetween(before, after);
    if (!change) return;
    this.say(`${way === 'undo' ? 'Undone' : 'Done again'}: ${change.words}`);
    if (change.riffId !== null && change.riffId !== this.song.riffId()) this.song.selectRiff(change.riffId);
    if (change.strumId !== null) this.song.selectStrum(change.strumId);
  }

  /** The string above or below, of the chosen strum or place. */
  private chooseString(by: 1 | -1): void {
    const count = this.view.tuning().stringsMidi.length;
    const string = this.song.string() ?? (by > 0 ? 0 : count + 1);
    this.song.selectString(Math.max(1, Math.min(count, string + by)));
  }

  /** The chosen strum stays chosen while others are walked to. */
  private pick(): void {
    const strumId = this.song.strumId();
    if (strumId !== null) this.song.pick([strumId]);
  }

  /** All strums of the riff that press what the chosen one presses. */
  private selectAlike(): void {
    const strum = this.song.strum();
    if (!strum) return;
    const pressed = (s: Strum): string =>
      `${s.dead}${s.rest}${s.frets.map((f) => `${f.string}/${f.fret}`).join()}`;
    const alike = (this.song.riff()?.strums ?? []).filter((s) => pressed(s) === pressed(strum));
    this.song.selectStrum(strum.id);
    this.song.pick(alike.map((s) => s.id));
    this.say(`${counted(alike.length, 'strum')} like this one`);
  }

  /** The next strum that is guessed, or on which the recording does not agree. */
  private nextDoubt(by: 1 | -1): void {
    const strums = this.shownStrums();
    const doubtful = new Set(
      this.view
        .heardPasses()
        .flatMap(({ comparison }) =>
          comparison.verdicts.filter((v) => v.verdict !== 'agrees').map((v) => v.strumId),
        ),
    );
    const at = strums.findIndex((s) => s.id === this.song.strumId());
    const around = strums.map(
      (_, i) => strums[(((at + by * (i + 1)) % strums.length) + strums.length) % strums.length],
    );
    const next = around.find((s) => s.trust !== 'checked' && (s.trust === 'guessed' || doubtful.has(s.id)));
    if (next) this.goTo(next);
    else this.say('No strum of this riff is doubtful');
  }

  private stepRiff(by: 1 | -1): void {
    const riffs = this.riffs();
    const at = riffs.findIndex((r) => r.id === this.song.riffId()) + by;
    if (riffs[at]) this.song.selectRiff(riffs[at].id);
  }

  private stepSection(by: 1 | -1): void {
    const sections = this.sections();
    const at = sections.findIndex((s) => s.id === this.song.sectionId()) + by;
    if (sections[at]) this.song.selectRiff(this.song.riffId(), sections[at].id);
  }

  private nextVariation(): void {
    const ids = [null, ...this.variations().map((v) => v.id)];
    if (ids.length === 1) this.say('This riff has no variation');
    else this.song.selectVariation(ids[(ids.indexOf(this.song.variationId()) + 1) % ids.length]);
  }

  /** From the lowest string up. */
  private nextString(): void {
    const count = this.view.tuning().stringsMidi.length;
    const string = this.song.string() ?? 1;
    this.song.selectString(string === 1 ? count : string - 1);
  }

  private shownStrums(): readonly Strum[] {
    const shown = this.view.shownIds();
    return (this.song.riff()?.strums ?? []).filter((s) => shown.has(s.id));
  }

  private extendSelection(step: 1 | -1): void {
    const strums = this.shownStrums();
    const next = strums[strums.findIndex((s) => s.id === this.song.strumId()) + step];
    if (next && this.song.strumId() !== null) this.song.selectTo(next.id);
  }

  private stepStrum(step: 1 | -1): void {
    const strums = this.shownStrums();
    if (strums.length === 0) return;
    // Without a strum the walk goes on from where the needle stands.
    const place = this.song.placeTicks() ?? (this.song.strumId() === null ? this.view.needleTicks() : null);
    const at =
      place === null
        ? strums.findIndex((s) => s.id === this.song.strumId())
        : strums.findLastIndex((s) => s.startTicks < place) + (step < 0 ? 1 : 0);
    this.goTo(strums[(at + step + strums.length) % strums.length]);
  }

  private goTo(next: Strum): void {
    this.song.selectStrum(next.id, true);
    // The needle goes along while it rests; while it plays it keeps its place.
    const pass = this.view.passHere() ?? this.song.passes()[0];
    const grid = this.song.document()?.grid;
    if (pass && grid && !this.player.playing()) {
      this.player.seek(passTicksToSeconds(pass, grid, next.startTicks));
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
