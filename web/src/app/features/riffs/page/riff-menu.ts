/** What is done with a riff as a whole: take it away, new ones, longer and shorter, the second guitar, own shapes. */
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  inject,
  output,
  viewChild,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { MatMenuTrigger } from '@angular/material/menu';
import { MatMenuModule } from '@angular/material/menu';
import { Store } from '@ngrx/store';
import { shapeOf, STANDARD_TUNING } from '@wild-needle/core/guitar';
import {
  addBars,
  addRiff,
  addSecondGuitar,
  addVariation,
  barOf,
  barStartsTicks,
  mergeRiffs,
  mergeVariations,
  removeRiff,
  removeSecondGuitar,
  removeVariation,
  renameVariation,
  riffTicks,
  setBarNote,
  setGroup,
  splitRiff,
  doubleRiff,
  whyNotMerge,
  whyNotDouble,
  TEXT_LIMITS,
} from '@wild-needle/core/riff';
import { FORMATS, type Format } from '@wild-needle/core/formats';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { shapesActions } from '../../../state/shapes/shapes.actions';
import { shapesFeature } from '../../../state/shapes/shapes.reducer';
import { StrumEdits } from '../edit/strum-edits';
import { RIFF_KEYS } from '../keys/riff-keys';
import { copyAs, exportAs } from '../../../shared/export';
import { nextVariationName, variationLabel } from '../../../shared/difference-words';
import { refusalWords } from '../../../shared/refusal-words';
import { Say } from '../../../shared/say';

/** Bars of a new riff: what most riffs have. */
const NEW_BARS = 2;

@Component({
  selector: 'wn-riff-menu',
  imports: [MatButton, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './riff-menu.html',
  styleUrl: './riff-menu.scss',
})
export class RiffMenu {
  protected readonly keys = RIFF_KEYS;
  protected readonly limits = TEXT_LIMITS;
  protected readonly formats = FORMATS.filter((f) => f.holds === 'tab');
  protected readonly song = inject(OpenSongStore);
  protected readonly edits = inject(StrumEdits);
  private readonly store = inject(Store);
  private readonly said = inject(Say);
  private readonly page = inject(DOCUMENT);
  readonly tapWanted = output();
  /** The keys belong to the tab again. */
  readonly closed = output();

  protected readonly ownShapes = this.store.selectSignal(shapesFeature.selectShapes);
  protected readonly pressed = computed(() =>
    shapeOf(this.song.strum()?.frets ?? [], this.song.written()?.tuning ?? STANDARD_TUNING),
  );
  protected readonly sectionsOfRiff = computed(
    () => (this.song.document()?.sections ?? []).filter((s) => s.riffId === this.song.riffId()).length,
  );
  protected readonly others = computed(() => {
    const [document, riffId] = [this.song.document(), this.song.riffId()];
    if (!document || riffId === null) return [];
    return document.riffs
      .filter((r) => r.id !== riffId)
      .map(({ id, letter, name }) => {
        const why = whyNotMerge(document, riffId, id);
        return { id, letter, name, why: why && refusalWords(why) };
      });
  });
  private readonly barHere = computed(() => {
    const [riff, strum] = [this.song.riff(), this.song.strum()];
    return riff && strum ? barOf(riff, strum.startTicks) : null;
  });
  protected readonly barNote = computed(() =>
    this.song.riff()?.barNotes.find((n) => n.bar === this.barHere()),
  );

  private readonly root = viewChild.required<MatMenuTrigger>('root');

  /** What is typed in a field of the menu is no command of the menu; Escape and Tab stay. */
  protected holdKey(event: KeyboardEvent): void {
    if (event.key !== 'Escape' && event.key !== 'Tab') event.stopPropagation();
  }

  protected download(format: Format): void {
    const document = this.song.document();
    if (document) void exportAs(this.page, format, document);
  }

  protected async copy(format: Format): Promise<void> {
    const document = this.song.document();
    if (!document) return;
    const said = await copyAs(format, document).then(
      () => 'The tab is on the clipboard',
      () => 'The browser does not let us copy; download the tab instead',
    );
    this.said.say(said);
  }

  protected add(): void {
    const id = crypto.randomUUID();
    this.song.change((document) => addRiff(document, id, NEW_BARS));
    this.song.selectRiff(id);
  }

  protected change(by: 1 | -1): void {
    const riffId = this.song.riffId();
    if (riffId !== null) this.song.change((document) => addBars(document, riffId, by));
  }

  protected double(): void {
    const [document, riffId] = [this.song.document(), this.song.riffId()];
    if (!document || riffId === null) return;
    if (this.said.mayDo(whyNotDouble(document, riffId)))
      this.song.change((d) => doubleRiff(d, riffId, () => crypto.randomUUID()));
  }

  protected split(): void {
    const sectionId = this.song.sectionId();
    if (sectionId === null) return;
    this.song.change((document) => splitRiff(document, sectionId, () => crypto.randomUUID()));
    const riffId = this.song.document()?.sections.find((s) => s.id === sectionId)?.riffId ?? null;
    this.song.selectRiff(riffId, sectionId);
  }

  protected mergeInto(intoId: string): void {
    const [riffId, sectionId] = [this.song.riffId(), this.song.sectionId()];
    if (riffId === null) return;
    this.song.change((document) => mergeRiffs(document, riffId, intoId));
    this.song.selectRiff(intoId, sectionId);
  }

  protected remove(): void {
    const riffId = this.song.riffId();
    if (riffId !== null) this.song.change((document) => removeRiff(document, riffId));
  }

  protected note(text: string, todo: boolean): void {
    const [riffId, bar] = [this.song.riffId(), this.barHere()];
    if (riffId !== null && bar !== null) {
      this.song.change((document) => setBarNote(document, riffId, bar, text, todo));
    }
    this.root().closeMenu();
  }

  /** Names the bars that the chosen strums are in; an empty name takes it away. */
  protected nameGroup(name: string): void {
    const riff = this.song.riff();
    const ids = this.song.selectedIds();
    if (!riff) return;
    const bars = riff.strums.filter((s) => ids.has(s.id)).map((s) => barOf(riff, s.startTicks));
    const [first, last] = [Math.min(...bars), Math.max(...bars)];
    this.song.change((document) => setGroup(document, riff.id, first, last - first + 1, name));
    this.root().closeMenu();
  }

  /** The bars that the chosen strums are in. */
  protected readonly chosenBars = computed(() => {
    const [riff, ids] = [this.song.riff(), this.song.selectedIds()];
    if (!riff || ids.size === 0) return null;
    const bars = riff.strums.filter((s) => ids.has(s.id)).map((s) => barOf(riff, s.startTicks));
    const [first, last] = [Math.min(...bars), Math.max(...bars)];
    const starts = [...barStartsTicks(riff), riffTicks(riff)];
    const words = first === last ? `bar ${first + 1}` : `bars ${first + 1} to ${last + 1}`;
    return { fromTicks: starts[first], toTicks: starts[last + 1], words };
  });
  protected readonly otherVariations = computed(() => {
    const [riff, shown] = [this.song.riff(), this.song.variation()];
    return (riff?.variations ?? [])
      .filter((v) => v.id !== shown?.id)
      .map((v) => ({ id: v.id, label: variationLabel(riff!, v) }));
  });

  protected newVariation(): void {
    const [riff, bars] = [this.song.riff(), this.chosenBars()];
    if (!riff || !bars) return;
    const id = crypto.randomUUID();
    const name = nextVariationName(riff, bars.toTicks >= riffTicks(riff));
    const isAdded = this.song.change((document) =>
      addVariation(document, riff.id, { id, name, ...bars }, () => crypto.randomUUID()),
    );
    if (isAdded) this.song.selectVariation(id);
    this.said.say(
      isAdded
        ? `“${name}” is a copy of ${bars.words}; passes play it from the … of their row`
        : 'This riff has as many variations as it can have',
    );
  }

  protected renameVariation(name: string): void {
    const [riffId, variationId] = [this.song.riffId(), this.song.variationId()];
    if (riffId !== null && variationId !== null)
      this.song.change((document) => renameVariation(document, riffId, variationId, name));
    this.root().closeMenu();
  }

  /** The shown variation and another one are one. */
  protected mergeVariation(intoId: string): void {
    const [riffId, variationId] = [this.song.riffId(), this.song.variationId()];
    if (riffId === null || variationId === null) return;
    this.song.change((document) => mergeVariations(document, riffId, variationId, intoId));
    this.song.selectVariation(intoId);
  }

  protected forgetVariation(): void {
    const [riffId, variationId] = [this.song.riffId(), this.song.variationId()];
    if (riffId === null || variationId === null) return;
    this.song.change((document) => removeVariation(document, riffId, variationId));
  }

  protected keepShape(name: string): void {
    const notes = this.pressed();
    if (!notes || name.trim() === '') return;
    const shape = { id: crypto.randomUUID(), name: name.trim(), notes: [...notes] };
    this.store.dispatch(shapesActions.shapeKept({ shape }));
    this.said.say(`“${shape.name}” is kept; it is offered where it fits`);
    this.root().closeMenu();
  }

  protected forget(id: string): void {
    this.store.dispatch(shapesActions.shapeForgotten({ id }));
  }

  protected addSecond(): void {
    this.song.change(addSecondGuitar);
    this.song.selectGuitar(2);
  }

  protected removeSecond(): void {
    this.song.selectGuitar(1);
    this.song.change(removeSecondGuitar);
  }
}
