/** The four parts of the band: how loud each is, and how far the band is taken apart. A row between the work and the deck. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  untracked,
} from '@angular/core';
import { MatButton, MatIconButton } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import type { Engine } from '@wild-needle/contract';
import {
  PART_LEVELS_DB,
  PARTS,
  PIECE_S,
  setLevel,
  toggleAlone,
  toggleSilent,
  type Part,
} from '@wild-needle/core/parts';
import { InstrumentsStore } from '../../open-song/instruments.store';
import { Icon } from '../../shared/icon';
import { megabytes } from '../../shared/size-words';
import { DeckControl } from '../../transport/deck-control';
import { Player } from '../../transport/player';
import { commandOf, PART_KEYS, type InstrumentCommand } from './instrument-keys';
import {
  durationWords,
  ENGINE_WORDS,
  levelWords,
  MISSING_WORDS,
  PART_WORDS,
  progressWords,
} from './instrument-words';

const WEDGE = 108;

@Component({
  selector: 'wn-instruments-panel',
  imports: [Icon, MatButton, MatIconButton, MatSliderModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    tabindex: '-1',
    role: 'region',
    'aria-label': 'Instruments',
    '(focusin)': 'control.instrumentsHaveKeys.set(true)',
    '(focusout)': 'control.instrumentsHaveKeys.set(false)',
    '(click)': 'onClick($event)',
    '(keydown)': 'onKey($event)',
  },
  templateUrl: './instruments-panel.html',
  styleUrl: './instruments-panel.scss',
})
export class InstrumentsPanel {
  protected readonly store = inject(InstrumentsStore);
  private readonly player = inject(Player);
  protected readonly control = inject(DeckControl);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  protected readonly parts = PARTS;
  protected readonly partWords = PART_WORDS;
  protected readonly missingWords = MISSING_WORDS;
  protected readonly partKeys = PART_KEYS;
  protected readonly engineWords = ENGINE_WORDS;
  protected readonly duration = durationWords;
  protected readonly range = PART_LEVELS_DB;

  protected readonly separation = this.store.separation;
  protected readonly size = computed(() => megabytes(this.store.byteLength()));
  protected readonly rough = computed(() => this.store.info()?.engines.find((e) => e.engine === 'rough'));
  private readonly networkFacts = computed(() =>
    this.store.info()?.engines.find((e) => e.engine === 'network'),
  );
  /** The network, where it can run. */
  protected readonly network = computed(() => {
    const facts = this.networkFacts();
    return facts?.isHere && facts.problem === null ? facts : null;
  });
  protected readonly networkWords = computed(() => {
    const facts = this.networkFacts();
    if (!facts) return '';
    if (!facts.isHere) return 'Cleaner by a network, for personal use: npm run get:instruments';
    return facts.problem ?? 'The network is for personal and research use';
  });
  protected readonly progress = computed(() => {
    const separation = this.separation();
    return separation && progressWords(separation);
  });
  protected readonly underwayWords = computed(() => {
    const progress = this.progress();
    return progress === null ? 'Taking the band apart' : `Taking the band apart, ${progress}`;
  });
  /** Stretches that are apart, per cent of the song. */
  protected readonly runs = computed(() => {
    const separation = this.separation();
    if (!separation) return [];
    const share = 100 / separation.pieces;
    const sorted = [...separation.ready].sort((a, b) => a - b);
    const runs: { left: number; width: number }[] = [];
    for (const piece of sorted) {
      const last = runs.at(-1);
      if (last && Math.abs(last.left + last.width - piece * share) < share / 2) last.width += share;
      else runs.push({ left: piece * share, width: share });
    }
    return runs;
  });
  protected readonly needle = computed(
    () => (100 * this.player.nowS()) / Math.max(1, this.player.durationS()),
  );
  protected readonly isHere = computed(() => this.store.isApartAt(this.player.nowS()));
  protected readonly loopWords = computed(() => {
    const loop = this.player.loop();
    if (!loop) return this.isHere() ? 'here it is ready' : '';
    const from = Math.floor(loop.startS / PIECE_S);
    const to = Math.floor(Math.max(loop.startS, loop.endS - 1e-3) / PIECE_S);
    for (let piece = from; piece <= to; piece++)
      if (!this.store.addresses()[piece]) return 'the loop comes first';
    return 'the loop is ready';
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.control.instrumentsHaveKeys.set(false));
    effect(() => {
      if (this.control.instrumentsFocused() > 0) untracked(() => this.host.nativeElement.focus());
    });
  }

  protected start(engine: Engine): void {
    void this.store.takeApart(engine, this.player.loop()?.startS ?? this.player.nowS());
  }

  protected act(part: Part, command: InstrumentCommand): void {
    this.store.changeMix((mix) => (command === 'alone' ? toggleAlone(mix, part) : toggleSilent(mix, part)));
  }

  protected setLevel(part: Part, db: number): void {
    this.store.changeMix((mix) => setLevel(mix, part, db));
  }

  protected isMissing(part: Part): boolean {
    return this.separation()?.missing.includes(part) ?? false;
  }

  protected level(part: Part): string {
    return levelWords(this.store.mix(), part);
  }

  protected decibels(part: Part): string {
    return `${this.store.mix().levelsDb[part]} decibels`;
  }

  /** As it is said in 'Only the drums'. */
  protected spoken(part: Part): string {
    return `the ${PART_WORDS[part].toLowerCase()}`;
  }

  protected isUnheard(part: Part): boolean {
    const { alone, silent } = this.store.mix();
    return alone === null ? silent.includes(part) : alone !== part;
  }

  /** The wedge up to the level. */
  protected wedge(part: Part): string {
    const { from, to } = PART_LEVELS_DB;
    const share = (this.store.mix().levelsDb[part] - from) / (to - from);
    return `M0 11 ${WEDGE * share} ${11 - 9 * share}v${16 * share}Z`;
  }

  /** Who clicks here goes on here: the digits are its keys and not frets. */
  protected onClick({ detail, target }: MouseEvent): void {
    const isMouse = detail > 0 && target instanceof Element;
    if (isMouse && !target.closest('[aria-label="Close the instruments"]')) this.host.nativeElement.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const asked = commandOf(event.key);
    if (asked) this.act(asked.part, asked.command);
    else if (event.key === 'Escape') (event.target as HTMLElement).blur();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
}
