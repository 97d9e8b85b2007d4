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
import { Store } from '@ngrx/store';
import type { Verdict } from '@wild-needle/core/draft';
import type { StringFret } from '@wild-needle/core/guitar';
import {
  answerOf,
  useReading,
  riffTicks,
  type Layer,
  type MarkCommand,
  type Reading,
} from '@wild-needle/core/riff';
import { Player } from '../../../transport/player';
import type { HeardPass } from '../../../open-song/heard-passes';
import { Now } from '../../../transport/now';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { PassAnswers } from '../../../open-song/pass-answers';
import { doubtWords, isOpen } from '../../../shared/doubt-words';
import { GuitarSwitch } from '../../../shared/guitar-switch';
import { HistoryButtons } from '../../../shared/history-buttons';
import { historyHandlers } from '../../../shared/history-keys';
import { callOf, runScreenKey, type KeyHandlers } from '../../../shared/key-map';
import { ScreenKeys } from '../../../shared/screen-keys';
import { Needle } from '../../../shared/needle';
import { isInSight, scrollIntoSight } from '../../../shared/scroll-into-sight';
import { VerdictMark } from '../../../shared/verdict-mark';
import { observeSize } from '../../../shared/observe-size';
import { Say } from '../../../shared/say';
import { counted } from '../../../shared/words';
import { shapesActions } from '../../../state/shapes/shapes.actions';
import { shapesFeature } from '../../../state/shapes/shapes.reducer';
import { ListenAgain } from '../../../open-song/listen-again';
import { changeBetween } from '../../../shared/undo-words';
import { HeardAnewStrip } from '../anew/heard-anew-strip';
import { PassRow } from '../passes/pass-row';
import { MARK_COMMANDS } from '../../../tab/mark-views';
import { RIFF_KEYS } from '../keys/riff-keys';
import { RiffMenu } from './riff-menu';
import { GUTTER, Lane, PANEL_PX } from '../view/lane';
import { RiffView } from '../view/riff-view';
import { Choosing } from '../edit/choosing';
import { HearAnew } from '../anew/hear-anew';
import { StrumEdits } from '../edit/strum-edits';
import { TapAlong } from '../edit/tap-along';
import { StrumPanel } from '../strum/strum-panel';
import { StrumStudy } from '../strum/strum-study';
import { WrittenRow } from '../view/written-row';

/** A click this near to a strum means it. */
const NEAR_PX = 3;
/** One notch of a wheel, or one stroke over a touchpad, turns one page. */
const WHEEL_REST_MS = 250;
const LAYERS: readonly Layer[] = ['chords', 'strokes', 'all'];

/** What a way that is tried outlasts, and what answers it. */
const WAY_KEYS: readonly (keyof typeof RIFF_KEYS)[] = ['fingering', 'repeat', 'letGo', 'undo', 'nextLayer'];

type MarkHandlers = Pick<KeyHandlers<typeof RIFF_KEYS>, `mark-${MarkCommand}`>;

@Component({
  selector: 'wn-riffs-page',
  imports: [
    GuitarSwitch,
    HeardAnewStrip,
    HistoryButtons,
    MatButton,
    MatButtonToggleModule,
    MatMenuModule,
    Needle,
    PassRow,
    RiffMenu,
    StrumPanel,
    VerdictMark,
    WrittenRow,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(window:keydown)': 'onKey($event)',
    '[style.--panel]': "PANEL_PX[lane.panel()] + 'px'",
    '[class.small]': 'lane.isSmall()',
    '[style.--gutter]': "GUTTER + 'px'",
  },
  providers: [Choosing, HearAnew, Lane, RiffView, StrumEdits, StrumStudy, TapAlong],
  templateUrl: './riffs.page.html',
  styleUrl: './riffs.page.scss',
})
export class RiffsPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly player = inject(Player);
  protected readonly listening = inject(ListenAgain);
  protected readonly view = inject(RiffView);
  protected readonly lane = inject(Lane);
  protected readonly edits = inject(StrumEdits);
  protected readonly choosing = inject(Choosing);
  protected readonly tapAlong = inject(TapAlong);
  protected readonly anew = inject(HearAnew);
  private readonly study = inject(StrumStudy);
  protected readonly answers = inject(PassAnswers);
  private readonly now = inject(Now);
  private readonly store = inject(Store);
  private readonly said = inject(Say);
  private readonly app = inject(ApplicationRef);
  private readonly passList = viewChild<ElementRef<HTMLElement>>('passList');
  private readonly passRows = viewChildren<ElementRef<HTMLElement>>('passRow');
  private readonly panel = viewChild(StrumPanel);
  private readonly writtenRow = viewChild(WrittenRow);
  private readonly shapes = this.store.selectSignal(shapesFeature.selectShapes);

  /** When the wheel last turned the bars. */
  private wheeledMs = -Infinity;
  protected readonly PANEL_PX = PANEL_PX;
  protected readonly GUTTER = GUTTER;
  protected readonly keys = RIFF_KEYS;
  /** The signs in the rows of the passes. */
  protected readonly legend: readonly { readonly verdict: Verdict; readonly words: string }[] = [
    { verdict: 'agrees', words: 'same' },
    { verdict: 'doubtful', words: 'unsure' },
    { verdict: 'clashes', words: 'different' },
    { verdict: 'missing', words: 'not heard' },
    { verdict: 'unchecked', words: 'extra' },
  ];
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
    const chips = this.lane.barChips();
    const shown = chips.filter((bar) => bar.isShown).map((bar) => bar.number);
    const [first, last] = [shown[0], shown.at(-1)];
    return shown.length === 1
      ? `Bar ${first} of ${chips.length}`
      : `Bars ${first} to ${last} of ${chips.length}`;
  });
  protected readonly isTurning = computed(() => this.lane.barChips().some((bar) => !bar.isShown));
  protected readonly facts = computed(() => {
    const riff = this.song.riff();
    if (!riff) return '';
    const todo = riff.barNotes.filter((n) => n.todo).length;
    const words = `${counted(riff.bars.length, 'bar')}, ${counted(riff.strums.length, 'strum')}`;
    return todo > 0 ? `${words}, ${todo} to do` : words;
  });
  constructor() {
    observeSize(signal(inject<ElementRef<HTMLElement>>(ElementRef)), ({ width }) =>
      this.lane.pageWidth.set(width),
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
    // What was tapped is filled in next: it stays until the sound is stopped.
    let isTapped = false;
    effect(() => {
      isTapped = this.tapAlong.isOn() || (isTapped && this.player.playing());
    });
    effect(() => {
      const sectionId = needleSection();
      const pass = untracked(this.now.pass);
      const hasLeft = before !== null && sectionId !== before;
      before = sectionId ?? before;
      if (!pass || !hasLeft || !untracked(this.player.playing) || isTapped) return;
      untracked(() => this.song.selectRiff(pass.riffId, pass.sectionId));
    });
  }

  ngOnDestroy(): void {
    this.tapAlong.end();
    this.listening.cancel();
    this.said.silence();
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
    if (!this.edits.press(place)) this.said.say('Choose a strum or a place in the tab first');
  }

  protected choosePlace({ x, string }: { x: number; string: number }): void {
    const { fromTicks, toTicks } = this.lane.window();
    // Beside a strum but on one of its strings: that string of it is written.
    const block = this.view.layout()?.blocks.find((b) => x >= b.x - NEAR_PX && x <= b.x + b.width + NEAR_PX);
    if (block) {
      this.song.selectStrum(block.id);
      this.song.selectString(string);
      return;
    }
    const ticks = fromTicks + (x / this.lane.width()) * (toTicks - fromTicks);
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
    if (by === 0 || event.ctrlKey || this.lane.barChips().every((bar) => bar.isShown)) return;
    event.preventDefault();
    if (event.timeStamp - this.wheeledMs < WHEEL_REST_MS) return;
    this.wheeledMs = event.timeStamp;
    this.lane.turn(by);
  }

  /** The keys belong to the tab again, as after a menu. */
  protected focusTab(): void {
    this.writtenRow()?.focus();
  }

  protected setLayer(layer: Layer): void {
    this.view.layer.set(layer);
  }

  protected giveAway(): void {
    if (this.song.document()?.guitar2) this.edits.giveToOther();
    else this.said.say('This song has one guitar; add the second in the riff menu');
  }

  private readonly handlers: KeyHandlers<typeof RIFF_KEYS> = {
    ...this.markHandlers(),
    digit: (digit, { timeStamp }) => this.edits.writeDigit(digit, timeStamp),
    shape: (index) => this.edits.shape(index),
    ownShape: (index) => this.placeOwnShape(index),
    stepStrum: (by) => this.choosing.stepStrum(by),
    chooseString: (by) => this.choosing.chooseString(by),
    select: (by) => this.choosing.extendSelection(by),
    selectAll: () => this.song.selectAll(),
    pick: () => this.choosing.pick(),
    selectAlike: () => this.choosing.selectAlike(),
    nextDoubt: (by) => this.choosing.nextDoubt(by),
    acceptHeard: () => this.edits.acceptHeard(),
    nextStep: () => this.edits.nextStep(),
    stepRiff: (by) => this.choosing.stepRiff(by),
    stepSection: (by) => this.choosing.stepSection(by),
    nextVariation: () => this.choosing.nextVariation(),
    stepPass: (by) => this.choosing.stepPass(by),
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
      this.lane.openPanel();
      this.panel()?.writeNote();
    },
    turnBars: (by) => this.lane.turn(by),
    panel: () => this.lane.togglePanel(),
    nextString: () => this.choosing.nextString(),
    letGo: () => {
      if (!this.study.drop()) this.song.selectNothing();
    },
    copy: () => this.edits.copy(),
    paste: () => this.edits.paste(),
    listen: () => void this.anew.listen(),
    takeAnew: () => this.anew.take(),
    leaveAnew: () => this.anew.leave(),
    keepVariation: () => this.answerAsked('keep'),
    sameRiff: () => this.answerAsked('same'),
    tapRhythm: () => this.tapAlong.toggle(),
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
      this.said.say('No pass of this section asks anything');
      return;
    }
    const [list, row] = this.passPlace(this.view.heardPasses().indexOf(asked));
    if (list && row && !isInSight(list, row)) {
      scrollIntoSight(list, row);
      this.said.say(`Pass ${asked.pass.index + 1} is asked about; press once more to answer`);
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
    else this.said.say('No shape of yours has this key yet');
  }

  private nextLayer(): void {
    this.view.layer.update((layer) => LAYERS[(LAYERS.indexOf(layer) + 1) % LAYERS.length]);
  }

  /** Back or forth by one step; says what changed, and goes there. */
  protected travel(way: 'undo' | 'redo'): void {
    const before = this.song.document();
    this.song[way]();
    const after = this.song.document();
    const change = before && after && changeBetween(before, after);
    if (!change) return;
    this.said.say(`${way === 'undo' ? 'Undone' : 'Done again'}: ${change.words}`);
    if (change.riffId !== null && change.riffId !== this.song.riffId()) this.song.selectRiff(change.riffId);
    if (change.strumId !== null) this.song.selectStrum(change.strumId);
  }
}
