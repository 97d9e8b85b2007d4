/** What stands on the sheet: the chosen version of the song, laid out in systems and pages. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  type BarGroup,
  asGuitar,
  overallTempo,
  strumsInPasses,
  whereVaried,
  withVariation,
  type Riff,
  type SongDocument,
  type Strum,
  type Variation,
} from '@wild-needle/core/riff';
import {
  chordBoxes,
  makeVersion,
  paginate,
  paperOf,
  SHEET_VERSIONS,
  systemsOf,
  withEnding,
  type Bracket,
  type PaperName,
  type SheetVersion,
  type System,
} from '@wild-needle/core/sheet';
import { spellingKey, spellPitchClass, pitchClassOf } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../open-song/open-song.store';
import { variationLabel } from '../../shared/difference-words';
import { settingsFeature } from '../../state/settings/settings.reducer';
import { layoutRow, type RowLayout } from '../../tab/row-layout';
import { cautionsOf, factsOf, footOf, listenFor, movedWords, roadMapOf } from './sheet-words';

/** Of the page, in its own pixels. */
export const MARGIN = 50;
/** Staves are drawn so much smaller than the tab on Riffs. */
export const STAVE_SCALE = 0.6;
/** Before the first strum of a row: room for the sign of a repeat. */
export const INSET_PX = 26;
/** Under the last string there is room for strokes, which stand there only when they are shown. */
export const STROKES_PX = 18;
const HEAD_PX = 118;
const ROAD_MAP_PX = 62;
const BOXES_PX = 112;
const LATER_HEAD_PX = 34;
const FOOT_PX = 34;
const RIFF_HEAD_PX = 34;
const NAMES_PX = 20;
const MUTES_PX = 18;
const COUNTS_PX = 18;
/** Endings and named parts, over the names of the chords. */
const ABOVE_PX = 20;
const GAP_PX = 12;
/** Blocks stand in from the margin by this. */
export const BLOCK_PX = 10;
/** Words of a line at the end. */
const NOTE_PX = 22;
/** Boxes in the row under the title. */
const MOST_BOXES = 14;

export interface StaveView {
  readonly kind: 'stave';
  readonly id: string;
  readonly heightPx: number;
  readonly isContinued: boolean;
  /** Over the first stave of a riff: its letter, its name and what belongs to it. */
  readonly head: { readonly letter: string; readonly name: string; readonly words: string } | null;
  /** 'Guitar 2', 'Ending 2, bar 4: pass 4 of Verse 1'; '' for the riff itself. */
  readonly label: string;
  readonly layout: RowLayout;
  readonly isRepeated: boolean;
  /** The repeat ends behind this bar. */
  readonly repeatEndBar: number;
  readonly brackets: readonly Bracket[];
  /** Named parts of the riff. */
  readonly groups: readonly BarGroup[];
  readonly system: System;
  /** Ids of strums in brackets. */
  readonly bracketed: ReadonlySet<string>;
}

export interface NoteView {
  readonly kind: 'note';
  readonly id: string;
  readonly heightPx: number;
  readonly isContinued: boolean;
  readonly title: string;
  readonly words: string;
}

export type SheetBlock = StaveView | NoteView;

/** What may be left out. */
export interface Shown {
  readonly roadMap: boolean;
  readonly names: boolean;
  readonly counts: boolean;
  readonly boxes: boolean;
  readonly mutes: boolean;
  readonly notes: boolean;
  readonly strokes: boolean;
  readonly variations: boolean;
}

export const ALL_SHOWN: Shown = {
  roadMap: true,
  names: true,
  counts: true,
  boxes: true,
  mutes: true,
  notes: true,
  strokes: false,
  variations: true,
};

/** Paper says of a strum that it was left doubtful, where it is to say so, and nothing of who has seen it. */
function onPaper(riff: Riff, mark: DoubtMark): Riff {
  const isOpen = ({ trust }: Strum): boolean =>
    trust === 'guessed' || trust === 'heard' || (trust === 'doubtful' && mark !== 'above');
  if (!riff.strums.some(isOpen)) return riff;
  return { ...riff, strums: riff.strums.map((s) => (isOpen(s) ? { ...s, trust: 'checked' } : s)) };
}

/** How a strum that was left doubtful stands on paper. */
export type DoubtMark = 'above' | 'brackets' | 'none';

@Injectable()
export class SheetView {
  private readonly song = inject(OpenSongStore);
  private readonly spelling = inject(Store).selectSignal(settingsFeature.selectSpelling);

  readonly version = signal<SheetVersion>('as-written');
  readonly paperName = signal<PaperName>('a4');
  readonly isUpright = signal(false);
  readonly shown = signal<Shown>(ALL_SHOWN);
  readonly doubtMark = signal<DoubtMark>('above');
  /** Whose page it is; '' for nobody in particular. */
  readonly forWhom = signal('');

  readonly hasTwoGuitars = computed(() => (this.song.document()?.guitar2 ?? null) !== null);
  readonly made = computed(() => {
    const document = this.song.document();
    return document && makeVersion(document, this.version());
  });
  /** The song in this version. */
  readonly document = computed(() => this.made()?.document ?? null);
  readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  readonly paper = computed(() => paperOf(this.paperName(), this.isUpright()));
  /** Of the music in a row. */
  private readonly widthPx = computed(() => this.paper().widthPx - 2 * MARGIN - BLOCK_PX - INSET_PX);

  readonly facts = computed(() => {
    const document = this.document();
    return document ? factsOf(document, this.version(), overallTempo(document.grid), this.key()) : [];
  });
  readonly strings = computed(() => {
    const { stringsMidi = [], capo = 0 } = this.document()?.tuning ?? {};
    return stringsMidi.map((midi) => spellPitchClass(pitchClassOf(midi + capo), this.key()));
  });
  readonly order = computed(() => {
    const document = this.document();
    return document ? roadMapOf(document) : [];
  });
  readonly boxes = computed(() => {
    const document = this.document();
    return document ? chordBoxes(document, this.key()).slice(0, MOST_BOXES) : [];
  });
  /** Strums that the ear has left open, and guesses. */
  readonly doubtful = computed(() => {
    const document = this.song.document();
    const open = document ? strumsInPasses(document).filter((s) => s.strum.trust === 'doubtful') : [];
    return new Set(open.map((s) => s.strum.id)).size;
  });
  readonly foot = computed(() => {
    const [document, recording] = [this.document(), this.song.recording()];
    return document
      ? footOf(document, recording?.durationS ?? null, this.doubtful(), {
          forWhom: this.forWhom().trim(),
          on: new Date(),
        })
      : '';
  });
  readonly cautions = computed(() => {
    const document = this.document();
    return document ? cautionsOf(document.tuning) : [];
  });

  private readonly blocks = computed((): readonly SheetBlock[] => {
    const [document, shown] = [this.document(), this.shown()];
    if (!document) return [];
    const staves = document.riffs
      .filter((riff) => riff.strums.length + riff.guitar2.length > 0)
      .flatMap((riff) => this.riffBlocks(document, riff));
    const notes = shown.notes ? listenFor(document) : [];
    return [
      ...staves,
      ...[...notes, ...this.cautions().map((words) => ({ title: 'Take care', words }))].map(
        ({ title, words }, i): NoteView => ({
          ...{ kind: 'note', id: `note-${i}`, heightPx: NOTE_PX, isContinued: false, title, words },
        }),
      ),
    ];
  });

  /** Blocks of each page. */
  readonly pages = computed((): readonly (readonly SheetBlock[])[] => {
    const [blocks, { heightPx }, shown] = [this.blocks(), this.paper(), this.shown()];
    const inside = heightPx - 2 * MARGIN - FOOT_PX;
    const head =
      HEAD_PX + (shown.roadMap ? ROAD_MAP_PX : 0) + (shown.boxes && this.boxes().length > 0 ? BOXES_PX : 0);
    return paginate(blocks, inside - head, inside - LATER_HEAD_PX).map((page) => page.map((i) => blocks[i]));
  });

  show(what: keyof Shown, isShown: boolean): void {
    this.shown.update((shown) => ({ ...shown, [what]: isShown }));
  }

  stepVersion(by: number): void {
    const can = SHEET_VERSIONS.filter((v) => v !== 'one-guitar' || this.hasTwoGuitars());
    const at = can.indexOf(this.version());
    this.version.set(can[Math.min(can.length - 1, Math.max(0, at + by))]);
  }

  private riffBlocks(document: SongDocument, riff: Riff): StaveView[] {
    const sections = document.sections.filter((s) => s.riffId === riff.id);
    const isRepeated = sections.some((s) => s.passes > 1);
    const second = document.guitar2 && riff.guitar2.length > 0 ? asGuitar(document, 2) : null;
    const words = movedWords(document, riff);
    const ended = this.shown().variations ? withEnding(document, riff) : null;
    const written = ended?.riff ?? riff;
    const signs = {
      repeatEndBar: ended?.repeatEndBar ?? riff.bars.length,
      brackets: ended?.brackets ?? [],
    };
    const systems = systemsOf(written, this.widthPx()).flatMap((system, i) => {
      const head = i === 0 ? { letter: riff.letter, name: riff.name || `Riff ${riff.letter}`, words } : null;
      const label = second ? 'Guitar 1' : '';
      const first = this.stave(document, written, system, { ...signs, head, label, isRepeated });
      const their = second?.riffs.find((r) => r.id === riff.id);
      const own = second && their && ((ended && withEnding(second, their)?.riff) ?? their);
      return second && own
        ? [first, this.stave(second, own, system, { ...signs, head: null, label: 'Guitar 2', isRepeated })]
        : [first];
    });
    const variations = this.shown().variations
      ? riff.variations
          .filter(({ id }) => id !== ended?.variationId)
          .flatMap((variation) => this.variationBlocks(document, riff, variation))
      : [];
    return [...systems, ...variations];
  }

  /** The bars that a variation stands for, as it plays them. */
  private variationBlocks(document: SongDocument, riff: Riff, variation: Variation): StaveView[] {
    const where = whereVaried(document, riff, variation);
    if (where === '') return [];
    const label = `${variationLabel(riff, variation)}: ${where}`;
    const played = withVariation(riff, variation);
    return systemsOf(played, this.widthPx())
      .filter((s) => s.fromTicks < variation.toTicks && s.toTicks > variation.fromTicks)
      .map((system, i) =>
        this.stave(document, played, system, {
          head: null,
          label: i === 0 ? label : '',
          isRepeated: false,
          repeatEndBar: riff.bars.length,
          brackets: [],
        }),
      );
  }

  private stave(
    document: SongDocument,
    riff: Riff,
    system: System,
    { head, label, ...signs }: Pick<StaveView, 'head' | 'label' | 'isRepeated' | 'repeatEndBar' | 'brackets'>,
  ): StaveView {
    const shown = this.shown();
    const layout = layoutRow(onPaper(riff, this.doubtMark()), {
      tuning: document.tuning,
      key: this.key(),
      widthPx: this.widthPx() / STAVE_SCALE,
      window: { fromTicks: system.fromTicks, toTicks: system.toTicks },
      openString: null,
    });
    const end = system.fromBar + system.bars;
    const brackets = signs.brackets.filter((b) => b.fromBar < end && b.toBar > system.fromBar);
    const groups = riff.groups.filter((g) => g.startBar < end && g.startBar + g.bars > system.fromBar);
    const heightPx =
      (head ? RIFF_HEAD_PX : label === '' ? 0 : NOTE_PX) +
      (brackets.length + groups.length > 0 ? ABOVE_PX : 0) +
      (shown.names ? NAMES_PX : 0) +
      STAVE_SCALE * (layout.height - (shown.strokes ? 0 : STROKES_PX)) +
      (shown.mutes && layout.blocks.some((b) => b.palmMute) ? MUTES_PX : 0) +
      (shown.counts ? COUNTS_PX : 0) +
      GAP_PX;
    const id = `${riff.id}/${label}/${system.fromBar}`;
    return {
      kind: 'stave',
      id,
      heightPx,
      isContinued: head === null,
      head,
      label,
      layout,
      ...signs,
      brackets,
      groups,
      system,
      bracketed: new Set(
        this.doubtMark() === 'brackets'
          ? riff.strums.filter((s) => s.trust === 'doubtful').map((s) => s.id)
          : [],
      ),
    };
  }
}
