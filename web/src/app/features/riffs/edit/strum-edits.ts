/** Everything that changes what is written, at the strums or the place that is chosen. */
import { computed, inject, Injectable, signal } from '@angular/core';
import { asHeard, strumsAsHeard } from '@wild-needle/core/draft';
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
  markUnchecked,
  moveStrums,
  PLAIN_STRUM,
  placeBehind,
  removeStrums,
  repeatBar,
  rewriteStrums,
  riffTicks,
  setFret,
  setFrets,
  setMark,
  setStrumNote,
  shiftFrets,
  type MarkCommand,
  type Riff,
  type SongDocument,
  type Strum,
} from '@wild-needle/core/riff';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { Say } from '../../../shared/say';
import { createFretEntry } from './fret-entry';
import { STEPS } from './steps';
import { RiffView } from '../view/riff-view';

/** Marks that take other marks away; pressed again they give them back. */
type Silencing = 'dead' | 'rest';

function isSilencing(command: MarkCommand): command is Silencing {
  return command === 'dead' || command === 'rest';
}

@Injectable()
export class StrumEdits {
  private readonly song = inject(OpenSongStore);
  private readonly view = inject(RiffView);
  private readonly said = inject(Say);
  private readonly fretEntry = createFretEntry();
  private readonly stepIndex = signal(0);
  /** How far apart the places are. */
  readonly step = computed(() => STEPS[this.stepIndex()]);
  /** What strums were before a mark took their other marks, by the strum that it made of them. */
  private readonly silenced = new WeakMap<Strum, { readonly by: MarkCommand; readonly before: Strum }>();
  /** Cut loose from the song they were copied in: ticks count from the first of them. */
  private copied: readonly Strum[] = [];

  /** A digit on the chosen string: of the chosen strum, or of a new one at the chosen place. */
  writeDigit(digit: number, nowMs: number): void {
    const riffId = this.song.riffId();
    if (riffId === null) return;
    const string = this.song.string() ?? this.view.tuning().stringsMidi.length;
    this.song.selectString(string);
    const before = this.song.strumId();
    const fretOf = (strumId: string): number =>
      this.fretEntry.type(digit, `${strumId}/${string}`, nowMs) - this.view.movedFrets();
    // A strum that comes with its fret is one step back.
    const strumId = before ?? this.newStrum((id) => ({ frets: [{ string, fret: Math.max(0, fretOf(id)) }] }));
    if (strumId === null || (before === null && this.song.strum()?.frets.length === 1)) return;
    const fret = fretOf(strumId);
    this.change(
      (document) => setFret(document, riffId, strumId, { string, fret }),
      'The neck ends before that fret',
    );
  }

  /** A place on the neck as it sounds here: written, or taken out where it is written already. False where nothing is chosen. */
  press({ string, fret }: StringFret): boolean {
    const riffId = this.song.riffId();
    if (riffId === null) return false;
    const strumId = this.song.strumId() ?? this.newStrum();
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
    if (this.song.strumId() === null && isSilencing(command)) {
      // A dead stroke is struck on the strings of the chord before it.
      const frets = this.strumBefore(this.song.placeTicks() ?? 0)?.frets ?? [];
      this.newStrum(() => ({ frets, dead: command === 'dead', rest: command === 'rest' }));
      return;
    }
    if (!isSilencing(command) || !this.giveMarksBack(command)) this.setMark(command);
  }

  /** Ticks the chosen strums off, or takes the tick back where all have it. */
  check(): void {
    const strums = this.selected();
    if (strums.some((s) => s.trust !== 'checked' && !isBlank(s))) this.edit(markChecked);
    else {
      const heard = new Set(
        this.view
          .heardPasses()
          .flatMap(({ comparison }) =>
            comparison.verdicts.flatMap((v) => (v.heard === null ? [] : [v.strumId])),
          ),
      );
      this.edit((document, riffId, ids) => markUnchecked(document, riffId, ids, (id) => heard.has(id)));
    }
  }

  /** Writes the chosen strum as it was heard in the pass under the needle, or in the first that has it. */
  acceptHeard(): void {
    const strumId = this.song.strumId();
    const passes = this.view.heardPasses();
    const here = this.view.passHere()?.index;
    for (const { comparison, strokes } of [...passes.filter((p) => p.pass.index === here), ...passes]) {
      const index = comparison.verdicts.find((v) => v.strumId === strumId)?.heard;
      if (index === null || index === undefined) continue;
      const played = asHeard(strokes[index], 'chord', this.view.tuning());
      const isWritten = this.edit((document, riffId, ids) =>
        rewriteStrums(
          document,
          riffId,
          new Map([...ids].filter((id) => id === strumId).map((id) => [id, played])),
        ),
      );
      if (!isWritten) this.said.say('It is written as it was heard');
      return;
    }
    this.said.say('Nothing was heard at this strum');
  }

  /** Other places for strums that are written by hand. */
  nextStep(): void {
    this.stepIndex.update((i) => (i + 1) % STEPS.length);
    this.said.say(`Places are ${this.step().words} now`);
  }

  note(text: string): void {
    const [riffId, strumId] = [this.song.riffId(), this.song.strumId()];
    if (riffId !== null && strumId !== null) {
      this.song.changeWritten((document) => setStrumNote(document, riffId, strumId, text));
    }
  }

  /** Other frets for the chosen strums, as when another way to play them is taken; at the height that is shown. */
  play(frets: readonly StringFret[]): void {
    const by = this.view.movedFrets();
    const written = frets.map(({ string, fret }) => ({ string, fret: fret - by }));
    if (written.some((f) => f.fret < 0)) {
      this.said.say('Where the riff is written, that is below the open string');
      return;
    }
    this.setFrets(written);
  }

  /** A shape by its key, on the fret of the chosen string. */
  shape(index: number): void {
    const shape = POWER_SHAPES[index];
    if (shape) this.put(shape.name, (root) => placeShape(shape, root, this.view.tuning()));
  }

  ownShape(shape: OwnShape): void {
    this.put(shape.name, (root) => placeOwnShape(shape, root, this.view.tuning()));
  }

  /** Moves the shape along the neck, or across to the next string. */
  shift(by: { readonly frets: number; readonly strings: number }): void {
    const string = this.song.string();
    this.edit((document, riffId, ids) => shiftFrets(document, riffId, ids, by), 'The neck ends there');
    const frets = this.song.strum()?.frets ?? [];
    if (string !== null && frets.some((f) => f.string === string + by.strings)) {
      this.song.selectString(string + by.strings);
    }
  }

  lengthen(by: 1 | -1): void {
    const ticks = by * this.step().fineTicks;
    this.edit(
      (document, riffId, ids) => lengthenStrums(document, riffId, ids, ticks),
      by > 0 ? 'It sounds until the next strum already' : 'It can’t sound shorter than a step',
    );
  }

  move(by: 1 | -1): void {
    const ticks = by * this.step().fineTicks;
    this.edit(
      (document, riffId, ids) => moveStrums(document, riffId, ids, ticks),
      'No room: another strum or the end of the riff is in the way',
    );
  }

  /** Strikes the chosen chord once more behind it; closer than an eighth where the next one stands near. */
  repeat(): void {
    const riff = this.song.riff();
    const place = this.song.placeTicks();
    const model = this.song.strum() ?? (place === null ? null : this.strumBefore(place));
    if (!riff || !model) return;
    const at =
      place ??
      placeBehind(riff, model.startTicks, this.step().ticks) ??
      placeBehind(riff, model.startTicks, this.step().fineTicks);
    // It is struck this time, however the one before was reached.
    const marks = { ...model.marks, join: null, slideIn: null };
    if (at === null) this.said.say('There is no room behind it');
    else this.addStrum(() => ({ ...model, marks, note: '', trust: 'checked' }), at);
  }

  /** Strikes the bar of the chosen strum once more in the next one, and goes on there. */
  repeatBar(): void {
    const [riff, strum] = [this.song.riff(), this.song.strum()];
    if (!riff || !strum) return;
    const bar = barOf(riff, strum.startTicks);
    const isRepeated = this.change(
      (document) => repeatBar(document, riff.id, bar, () => crypto.randomUUID()),
      'There is no bar behind it, or it has another meter',
    );
    const starts = barStartsTicks(riff);
    const at = strum.startTicks + starts[bar + 1] - starts[bar];
    const there = isRepeated && this.song.riff()?.strums.find((s) => s.startTicks === at);
    if (there) this.song.selectStrum(there.id);
  }

  /** The place that is written next: a step further on than the chosen strum or place. */
  nextPlace(by: 1 | -1): void {
    const riff = this.song.riff();
    if (!riff) return;
    const { ticks } = this.step();
    const at = this.song.placeTicks() ?? this.song.strum()?.startTicks ?? -ticks;
    const length = riffTicks(riff);
    const next = ((((Math.floor(at / ticks) + by) * ticks) % length) + length) % length;
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
    const at =
      this.song.placeTicks() ?? (last ? placeBehind(riff, last.startTicks, this.step().ticks) : null);
    if (at === null) {
      this.said.say('Choose a strum or a place to put them behind');
      return;
    }
    const put = this.copied.map((s) => ({ ...s, id: crypto.randomUUID(), startTicks: s.startTicks + at }));
    this.song.changeWritten((document) => addStrums(document, riff.id, put, this.song.variationId()));
    this.song.selectStrum(put[0].id);
    this.song.selectTo(put.at(-1)!.id);
  }

  giveToOther(): void {
    this.edit((document, riffId, ids) => giveToOther(document, riffId, ids));
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

  /** Changes the chosen strums, of which those count that are shown; false, and why, where nothing could be changed. */
  private edit(
    change: (document: SongDocument, riffId: string, ids: ReadonlySet<string>) => SongDocument,
    refused = '',
  ): boolean {
    const [riffId, ids] = [this.song.riffId(), new Set(this.selected().map((s) => s.id))];
    if (riffId === null || ids.size === 0) {
      this.said.say('Choose a strum first');
      return false;
    }
    return this.change((document) => change(document, riffId, ids), refused);
  }

  private change(change: (document: SongDocument) => SongDocument, refused: string): boolean {
    const before = this.song.variation();
    const isChanged = this.song.changeWritten(change);
    if (!isChanged && refused !== '') this.said.say(refused);
    // Beside the bars of the variation that is shown, the riff itself is written.
    if (isChanged && before !== null && this.song.variation() === before)
      this.said.say(`Outside of “${before.name}”: written in the riff itself`);
    return isChanged;
  }

  private setMark(command: MarkCommand): void {
    const before = this.selected();
    this.edit((document, riffId, ids) => setMark(document, riffId, ids, command));
    for (const was of before) {
      const made = this.song.riff()?.strums.find((s) => s.id === was.id);
      if (made && made !== was) this.silenced.set(made, { by: command, before: was });
    }
  }

  /** Pressed again, a mark that took others gives them back; false where nothing was taken by it. */
  private giveMarksBack(command: Silencing): boolean {
    const before = new Map<string, Strum>();
    for (const strum of this.selected()) {
      const silenced = this.silenced.get(strum);
      if (silenced?.by !== command || silenced.before[command]) return false;
      before.set(strum.id, silenced.before);
    }
    const played = new Map(
      [...before].map(([id, { frets, palmMute, dead, rest, marks }]) => [
        id,
        { frets, palmMute, dead, rest, marks },
      ]),
    );
    return before.size > 0 && this.edit((document, riffId) => rewriteStrums(document, riffId, played));
  }

  /** The chosen strums that are shown. */
  private selected(): Strum[] {
    const [ids, shown] = [this.song.selectedIds(), this.view.shownIds()];
    return (this.song.riff()?.strums ?? []).filter((s) => ids.has(s.id) && shown.has(s.id));
  }

  private setFrets(frets: readonly StringFret[]): void {
    this.edit((document, riffId, ids) => setFrets(document, riffId, ids, frets));
  }

  private strumBefore(ticks: number): Strum | null {
    return this.song.riff()?.strums.findLast((s) => s.startTicks < ticks) ?? null;
  }

  private firstSelected(): Strum | null {
    return this.selected()[0] ?? null;
  }

  private lastSelected(): Strum | null {
    return this.selected().at(-1) ?? null;
  }

  /** The shape on the fret of the chosen string; on its lowest one when the string is not played. */
  private put(name: string, place: (root: StringFret) => StringFret[] | null): void {
    const string = this.song.string() ?? this.view.tuning().stringsMidi.length;
    const at = this.song.strum()?.startTicks ?? this.song.placeTicks() ?? 0;
    const own = this.song.strum()?.frets ?? [];
    const root = [...own, ...(this.strumBefore(at)?.frets ?? [])].find((f) => f.string === string) ??
      own[0] ?? { string, fret: 0 };
    const frets = place(root);
    if (!frets) {
      this.said.say(`${name} does not fit with its root on string ${root.string}, fret ${root.fret}`);
      return;
    }
    const isNew = this.song.strumId() === null && this.newStrum(() => ({ frets })) !== null;
    if (!isNew || this.song.strum()?.frets.length === 0) this.setFrets(frets);
    this.song.selectString(root.string);
  }

  private newStrum(changes: (id: string) => Partial<Strum> = () => ({})): string | null {
    const at = this.song.placeTicks();
    if (at === null) return null;
    const durationTicks = this.step().ticks;
    return this.addStrum((id) => ({ ...PLAIN_STRUM, durationTicks, trust: 'checked', ...changes(id) }), at);
  }

  /** Adds a strum and chooses it; answers its id, or null where one stands already. */
  private addStrum(
    make: (id: string) => Omit<Strum, 'id' | 'startTicks'>,
    startTicks: number,
  ): string | null {
    const riff = this.song.riff();
    if (!riff) return null;
    const there = riff.strums.find((s) => s.startTicks === startTicks);
    if (there) return isBlank(there) ? there.id : null;
    const id = crypto.randomUUID();
    const added = withinReach([{ ...make(id), id, startTicks }], riff);
    this.song.changeWritten((document) => addStrums(document, riff.id, added, this.song.variationId()));
    this.song.selectStrum(id);
    return id;
  }
}

/** Strums that sound no longer than to the next one, or to the end of their bar. */
export function withinReach(strums: readonly Strum[], riff: Riff): Strum[] {
  const starts = [...riff.strums, ...strums].map((s) => s.startTicks);
  const ends = [...barStartsTicks(riff), riffTicks(riff)];
  return strums.map((s) => {
    const next = Math.min(...[...starts, ...ends].filter((t) => t > s.startTicks));
    return { ...s, durationTicks: Math.max(1, Math.min(s.durationTicks, next - s.startTicks)) };
  });
}
