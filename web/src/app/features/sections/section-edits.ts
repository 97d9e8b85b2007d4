/** What is done to sections, at the needle and by hand; where something can't be done, why is said. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { draftPart } from '@wild-needle/core/draft';
import {
  addPasses,
  addRiff,
  beginPart,
  beginSection,
  confirmStart,
  joinWithNext,
  lengthenSection,
  moveSection,
  nearestBarLine,
  removeSection,
  renameSection,
  setSectionKey,
  setSectionRiff,
  setSectionTone,
  setSectionTranspose,
  splitSection,
  whyNotBegin,
  whyNotJoin,
  whyNotSplit,
  type Refusal,
  type SongDocument,
} from '@wild-needle/core/riff';
import type { Key } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../open-song/open-song.store';
import { PassAnswers } from '../../open-song/pass-answers';
import { refusalWords } from '../../shared/refusal-words';
import { Say } from '../../shared/say';
import { Player } from '../../transport/player';
import { SectionRows } from './section-rows';

/** Bars of a riff that is made for a section that had none. */
const NEW_RIFF_BARS = 4;
/** A section is taken away by a second press within this time. */
const ARMED_MS = 5000;

@Injectable()
export class SectionEdits {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly answers = inject(PassAnswers);
  private readonly rows = inject(SectionRows);
  private readonly said = inject(Say);
  /** What the user would rather call the pass that differs. */
  readonly ownName = signal('');
  /** The section that a second press takes away. */
  readonly armed = signal<string | null>(null);

  /** The bar line nearest to the needle: a press comes a little early or late. */
  private readonly lineHere = computed(() => {
    const grid = this.song.document()?.grid;
    return grid ? nearestBarLine(grid, this.player.nowS()) : 0;
  });
  private readonly refusedSplit = computed((): Refusal | null => {
    const [document, id] = [this.song.document(), this.song.sectionId()];
    return document && id !== null ? whyNotSplit(document, id, this.lineHere()) : { kind: 'no-section' };
  });
  private readonly refusedJoin = computed((): Refusal | null => {
    const [document, id] = [this.song.document(), this.song.sectionId()];
    return document && id !== null ? whyNotJoin(document, id) : { kind: 'no-section' };
  });
  private readonly refusedBegin = computed((): Refusal | null => {
    const document = this.song.document();
    return document ? whyNotBegin(document, this.lineHere()) : { kind: 'no-beats' };
  });
  readonly whyNotSplit = computed(() => this.words(this.refusedSplit()));
  readonly whyNotJoin = computed(() => this.words(this.refusedJoin()));
  readonly whyNotBegin = computed(() => this.words(this.refusedBegin()));

  choose(id: string): void {
    const row = this.rows.rows().find((r) => r.id === id);
    if (!row) return;
    this.song.selectRiff(row.riffId ?? this.song.riffId(), id);
    // A needle inside of it stays: it may be where the section is to be split.
    const needleS = this.player.nowS();
    const isInside = needleS >= row.startS && needleS < row.endS;
    if (!this.player.playing() && !isInside) this.player.seek(row.startS);
  }

  step(by: 1 | -1): void {
    const rows = this.rows.rows();
    const at = rows.findIndex((r) => r.isChosen);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    if (next) this.choose(next.id);
  }

  rename(name: string): void {
    this.change((document, id) => renameSection(document, id, name));
  }

  move(bars: number): void {
    this.change((document, id) => moveSection(document, id, bars));
  }

  lengthen(bars: number): void {
    this.change((document, id) => lengthenSection(document, id, bars));
  }

  repeat(by: number): void {
    this.change((document, id) => addPasses(document, id, by));
  }

  transpose(semitones: number): void {
    this.change((document, id) => setSectionTranspose(document, id, semitones));
  }

  setKey(key: Key | null): void {
    this.change((document, id) => setSectionKey(document, id, key));
  }

  setTone(tone: string): void {
    this.change((document, id) => setSectionTone(document, id, tone));
  }

  playRiff(riffId: string | null): void {
    this.change((document, id) => confirmStart(setSectionRiff(document, id, riffId), id));
    const id = this.song.sectionId();
    if (id !== null) this.song.selectRiff(riffId ?? this.song.riffId(), id);
  }

  /** An empty riff of its own. */
  playNewRiff(): void {
    const riffId = crypto.randomUUID();
    this.change((document, id) => {
      const bars = Math.min(NEW_RIFF_BARS, this.rows.chosen()?.bars ?? NEW_RIFF_BARS);
      return confirmStart(setSectionRiff(addRiff(document, riffId, bars), id, riffId), id);
    });
    this.song.selectRiff(riffId, this.song.sectionId());
  }

  /** A riff as long as the part, with what was heard in it. */
  writeAsHeard(): void {
    const riffId = crypto.randomUUID();
    const strums = this.song.analysis()?.strums ?? [];
    this.change((document, id) => confirmStart(draftPart(document, strums, id, riffId), id));
    this.song.selectRiff(riffId, this.song.sectionId());
  }

  /** A part begins at the needle, with a riff of its own. */
  begin(): void {
    const sectionId = crypto.randomUUID();
    const riffId = crypto.randomUUID();
    const bar = this.lineHere();
    if (!this.said.mayDo(this.refusedBegin())) return;
    this.song.change((document) => beginPart(document, bar, { sectionId, riffId }));
    this.song.selectRiff(riffId, sectionId);
  }

  split(): void {
    const bar = this.lineHere();
    if (this.said.mayDo(this.refusedSplit()))
      this.change((document, id) => splitSection(document, id, bar, crypto.randomUUID()));
  }

  join(): void {
    if (this.said.mayDo(this.refusedJoin())) this.change(joinWithNext);
  }

  /** Asks by being pressed twice. */
  remove(): void {
    const id = this.song.sectionId();
    if (id === null || this.armed() !== id) {
      this.armed.set(id);
      setTimeout(() => this.disarm(), ARMED_MS);
      return;
    }
    this.disarm();
    this.change(removeSection);
  }

  disarm(): void {
    this.armed.set(null);
  }

  /** What the asked pass plays is a variation or an ending of the riff. */
  keepPass(): void {
    const pass = this.rows.asked();
    if (pass) this.answers.keep(pass, this.ownName());
    this.ownName.set('');
  }

  /** The asked pass is the riff; without one, a start in doubt is right. */
  samePass(): void {
    const [pass, row] = [this.rows.asked(), this.rows.chosen()];
    if (pass) this.answers.same(pass);
    else if (row?.doubt || row?.isUnnamed) this.confirmStart();
  }

  beginAt(bar: number): void {
    this.change((document, id) => beginSection(document, id, bar));
  }

  confirmStart(): void {
    this.change(confirmStart);
  }

  private change(change: (document: SongDocument, id: string) => SongDocument): void {
    const id = this.song.sectionId();
    if (id !== null) this.song.change((document) => change(document, id));
  }

  private words(why: Refusal | null): string | null {
    return why && refusalWords(why);
  }
}
