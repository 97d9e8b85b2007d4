/** Everything that changes what is written, at the strums or the place that is chosen. */
import { inject, Injectable } from '@angular/core';
import { strumsAsHeard } from '@wild-needle/core/draft';
import {
  placeOwnShape,
  placeShape,
  POWER_SHAPES,
  type OwnShape,
  type StringFret,
} from '@wild-needle/core/guitar';
import {
  addStrums,
  barOf,
  barStartsTicks,
  changeRiff,
  clearFret,
  giveToOther,
  isBlank,
  lengthenStrums,
  markChecked,
  moveStrums,
  PLAIN_STRUM,
  placeBehind,
  removeStrums,
  repeatBar,
  riffTicks,
  setFret,
  setFrets,
  setMark,
  setStrumNote,
  shiftFrets,
  type MarkCommand,
  type SongDocument,
  type Strum,
} from '@wild-needle/core/riff';
import { TICKS_PER_QUARTER } from '@wild-needle/core/units';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { createFretEntry } from './fret-entry';
import { RiffView } from '../view/riff-view';

/** Strums are added on eighths, and moved by sixteenths. */
const ADD_STEP = TICKS_PER_QUARTER / 2;
export const MOVE_STEP = TICKS_PER_QUARTER / 4;

@Injectable()
export class StrumEdits {
  private readonly song = inject(OpenSongStore);
  private readonly view = inject(RiffView);
  private readonly fretEntry = createFretEntry();
  /** Cut loose from the song they were copied in: ticks count from the first of them. */
  private copied: readonly Strum[] = [];

  /** A digit on the chosen string: of the chosen strum, or of a new one at the chosen place. */
  writeDigit(digit: number, nowMs: number): void {
    const riffId = this.song.riffId();
    if (riffId === null) return;
    const string = this.song.string() ?? this.view.tuning().stringsMidi.length;
    this.song.selectString(string);
    const place = this.song.strumId() ?? this.newStrum({});
    if (place === null) return;
    const fret = this.fretEntry.type(digit, `${place}/${string}`, nowMs) - this.view.movedFrets();
    this.song.changeWritten((document) => setFret(document, riffId, place, { string, fret }));
  }

  /** A place on the neck as it sounds here: written, or taken out where it is written already. False where nothing is chosen. */
  press({ string, fret }: StringFret): boolean {
    const riffId = this.song.riffId();
    if (riffId === null) return false;
    const strumId = this.song.strumId() ?? this.newStrum({});
    if (strumId === null) return false;
    this.song.selectString(string);
    const place = { string, fret: fret - this.view.movedFrets() };
    const isWritten = this.song.strum()?.frets.some((f) => f.string === string && f.fret === place.fret);
    this.song.changeWritten((document) =>
      isWritten ? clearFret(document, riffId, strumId, string) : setFret(document, riffId, strumId, place),
    );
    return true;
  }

  clearString(): void {
    const [riffId, strumId, string] = [this.song.riffId(), this.song.strumId(), this.song.string()];
    if (riffId === null || strumId === null) return;
    const ids = this.song.selectedIds();
    const frets = this.song.strum()?.frets ?? [];
    if (ids.size > 1 || string === null || !frets.some((f) => f.string === string)) this.remove();
    else this.song.changeWritten((document) => clearFret(document, riffId, strumId, string));
  }

  /** Takes the chosen strums out; the place of the first is written next. */
  remove(): void {
    const strum = this.firstSelected();
    this.edit((document, riffId, ids) => removeStrums(document, riffId, ids));
    if (strum) this.song.selectPlace(strum.startTicks);
  }

  mark(command: MarkCommand): void {
    if (this.song.strumId() === null && (command === 'dead' || command === 'rest')) this.newStrum({});
    this.edit((document, riffId, ids) => setMark(document, riffId, ids, command));
  }

  check(): void {
    this.edit(markChecked);
  }

  note(text: string): void {
    const [riffId, strumId] = [this.song.riffId(), this.song.strumId()];
    if (riffId !== null && strumId !== null) {
      this.song.changeWritten((document) => setStrumNote(document, riffId, strumId, text));
    }
  }

  /** Other frets for the chosen strums, as when another way to play them is taken. */
  play(frets: readonly StringFret[]): void {
    this.edit((document, riffId, ids) => setFrets(document, riffId, ids, frets));
  }

  /** A shape by its key, on the fret of the chosen string. */
  shape(index: number): void {
    const shape = POWER_SHAPES[index];
    if (shape) this.put((root) => placeShape(shape, root, this.view.tuning()));
  }

  ownShape(shape: OwnShape): void {
    this.put((root) => placeOwnShape(shape, root, this.view.tuning()));
  }

  /** Moves the shape along the neck, or across to the next string. */
  shift(by: { readonly frets: number; readonly strings: number }): void {
    const string = this.song.string();
    this.edit((document, riffId, ids) => shiftFrets(document, riffId, ids, by));
    const frets = this.song.strum()?.frets ?? [];
    if (string !== null && frets.some((f) => f.string === string + by.strings)) {
      this.song.selectString(string + by.strings);
    }
  }

  lengthen(by: 1 | -1): void {
    this.edit((document, riffId, ids) => lengthenStrums(document, riffId, ids, by * MOVE_STEP));
  }

  move(by: 1 | -1): void {
    this.edit((document, riffId, ids) => moveStrums(document, riffId, ids, by * MOVE_STEP));
  }

  /** Strikes the chosen chord once more behind it; closer than an eighth where the next one stands near. */
  repeat(): void {
    const riff = this.song.riff();
    const place = this.song.placeTicks();
    const model =
      this.song.strum() ?? riff?.strums.findLast((s) => place !== null && s.startTicks < place) ?? null;
    if (!riff || !model) return;
    const at =
      place ??
      placeBehind(riff, model.startTicks, ADD_STEP) ??
      placeBehind(riff, model.startTicks, MOVE_STEP);
    // It is struck this time, however the one before was reached.
    const marks = { ...model.marks, join: null, slideIn: null };
    if (at !== null) this.addStrum({ ...model, marks, note: '', trust: 'checked' }, at);
  }

  /** Strikes the bar of the chosen strum once more in the next one. */
  repeatBar(): void {
    const [riff, strum] = [this.song.riff(), this.song.strum()];
    if (!riff || !strum) return;
    const bar = barOf(riff, strum.startTicks);
    this.song.changeWritten((document) => repeatBar(document, riff.id, bar, () => crypto.randomUUID()));
  }

  /** The place that is written next: an eighth further on than the chosen strum or place. */
  nextPlace(by: 1 | -1): void {
    const riff = this.song.riff();
    if (!riff) return;
    const at = this.song.placeTicks() ?? this.song.strum()?.startTicks ?? -ADD_STEP;
    const length = riffTicks(riff);
    const next = ((((Math.floor(at / ADD_STEP) + by) * ADD_STEP) % length) + length) % length;
    const there = riff.strums.find((s) => s.startTicks === next);
    if (there) this.song.selectStrum(there.id);
    else this.song.selectPlace(next);
  }

  copy(): void {
    const ids = this.song.selectedIds();
    const strums = (this.song.riff()?.strums ?? []).filter((s) => ids.has(s.id));
    this.copied = strums.map((s) => ({ ...s, startTicks: s.startTicks - strums[0].startTicks }));
  }

  /** Puts copied strums behind the chosen one, or at the chosen place. */
  paste(): void {
    const [riff, last] = [this.song.riff(), this.lastSelected()];
    if (!riff || this.copied.length === 0) return;
    const at = this.song.placeTicks() ?? (last ? placeBehind(riff, last.startTicks, ADD_STEP) : null);
    if (at === null) return;
    const put = this.copied.map((s) => ({ ...s, id: crypto.randomUUID(), startTicks: s.startTicks + at }));
    this.song.changeWritten((document) => addStrums(document, riff.id, put, this.song.variationId()));
    this.song.selectStrum(put[0].id);
    this.song.selectTo(put.at(-1)!.id);
  }

  giveToOther(): void {
    this.edit((document, riffId, ids) => giveToOther(document, riffId, ids));
  }

  /** A stroke tapped along: on the nearest sixteenth, to be filled in later. */
  tap(ticks: number): void {
    const riff = this.song.riff();
    if (!riff) return;
    const at = (Math.round(ticks / MOVE_STEP) * MOVE_STEP) % riffTicks(riff);
    this.addStrum({ ...PLAIN_STRUM, durationTicks: ADD_STEP, trust: 'guessed' }, at);
  }

  /** Writes the riff anew as it was heard in the pass under the needle, or in the first one. */
  writeAsHeard(): void {
    const passes = this.view.heardPasses();
    const here = this.view.passHere()?.index;
    const heard = passes.find((p) => p.pass.index === here) ?? passes[0];
    const riffId = this.song.riffId();
    if (!heard || riffId === null) return;
    this.song.changeWritten((document) =>
      changeRiff(document, riffId, (riff) => ({
        ...riff,
        strums: strumsAsHeard(riff, heard.strokes, document.tuning, () => crypto.randomUUID()),
      })),
    );
  }

  private edit(
    change: (document: SongDocument, riffId: string, ids: ReadonlySet<string>) => SongDocument,
  ): void {
    const [riffId, ids] = [this.song.riffId(), this.song.selectedIds()];
    if (riffId !== null && ids.size > 0) this.song.changeWritten((document) => change(document, riffId, ids));
  }

  private firstSelected(): Strum | null {
    const ids = this.song.selectedIds();
    return this.song.riff()?.strums.find((s) => ids.has(s.id)) ?? null;
  }

  private lastSelected(): Strum | null {
    const ids = this.song.selectedIds();
    return this.song.riff()?.strums.findLast((s) => ids.has(s.id)) ?? null;
  }

  /** The shape on the fret of the chosen string; on its lowest one when the string is not played. */
  private put(place: (root: StringFret) => StringFret[] | null): void {
    const string = this.song.string() ?? this.view.tuning().stringsMidi.length;
    if (this.song.strumId() === null) this.newStrum({});
    const strum = this.song.strum();
    const before = this.song.riff()?.strums.findLast((s) => s.startTicks < (strum?.startTicks ?? 0));
    const root = [...(strum?.frets ?? []), ...(before?.frets ?? [])].find((f) => f.string === string) ??
      strum?.frets[0] ?? { string, fret: 0 };
    const frets = place(root);
    if (!frets) return;
    this.play(frets);
    this.song.selectString(root.string);
  }

  private newStrum(changes: Partial<Strum>): string | null {
    const at = this.song.placeTicks();
    if (at === null) return null;
    return this.addStrum({ ...PLAIN_STRUM, durationTicks: ADD_STEP, trust: 'checked', ...changes }, at);
  }

  /** Adds a strum and chooses it; answers its id, or null where one stands already. */
  private addStrum(strum: Omit<Strum, 'id' | 'startTicks'>, startTicks: number): string | null {
    const riff = this.song.riff();
    if (!riff) return null;
    const there = riff.strums.find((s) => s.startTicks === startTicks);
    if (there) return isBlank(there) ? there.id : null;
    const next = riff.strums.find((s) => s.startTicks > startTicks)?.startTicks ?? riffTicks(riff);
    const end = barStartsTicks(riff).find((t) => t > startTicks) ?? riffTicks(riff);
    const id = crypto.randomUUID();
    const durationTicks = Math.max(1, Math.min(strum.durationTicks, next - startTicks, end - startTicks));
    const added = { ...strum, id, startTicks, durationTicks };
    this.song.changeWritten((document) => addStrums(document, riff.id, [added], this.song.variationId()));
    this.song.selectStrum(id);
    return id;
  }
}
