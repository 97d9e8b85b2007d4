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
import { MatSnackBar } from '@angular/material/snack-bar';
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

/** Bars of a new riff: what most riffs have. */
const NEW_BARS = 2;

@Component({
  selector: 'wn-riff-menu',
  imports: [MatButton, MatMenuModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      mat-stroked-button
      [matMenuTriggerFor]="takeAway"
      [matMenuTriggerRestoreFocus]="false"
      (menuClosed)="closed.emit()"
      [disabled]="!song.riff()"
    >
      Export
    </button>
    <mat-menu #takeAway="matMenu">
      @for (format of formats; track format.id) {
        <button mat-menu-item (click)="download(format)">{{ format.label }} as a file</button>
        <button mat-menu-item (click)="copy(format)">Copy the {{ format.label.toLowerCase() }}</button>
      }
    </mat-menu>
    <button
      mat-stroked-button
      #root="matMenuTrigger"
      [matMenuTriggerFor]="menu"
      [matMenuTriggerRestoreFocus]="false"
      (menuClosed)="closed.emit()"
      [disabled]="!song.document()"
    >
      Riff …
    </button>
    <mat-menu #menu="matMenu">
      <button mat-menu-item (click)="add()">New riff</button>
      <button mat-menu-item [disabled]="sectionsOfRiff() === 0" (click)="edits.writeAsHeard()">
        Write it as heard in this pass
      </button>
      <button mat-menu-item [disabled]="!song.riff()" (click)="change(1)">One bar more</button>
      <button mat-menu-item [disabled]="(song.riff()?.bars?.length ?? 0) < 2" (click)="change(-1)">
        One bar less
      </button>
      <button mat-menu-item [disabled]="!song.riff()" (click)="double()">Double the riff's length</button>
      <button mat-menu-item [disabled]="sectionsOfRiff() < 2" (click)="split()">
        A riff of its own for this section
      </button>
      <button mat-menu-item [matMenuTriggerFor]="merge" [disabled]="others().length === 0">
        Same as riff …
      </button>
      <button mat-menu-item [disabled]="sectionsOfRiff() > 0 || !song.riff()" (click)="remove()">
        Remove this riff
      </button>
      <button mat-menu-item [matMenuTriggerFor]="bar" [disabled]="!song.strum()">This bar …</button>
      <button mat-menu-item [matMenuTriggerFor]="group" [disabled]="!song.strum()">Name a part …</button>
      <button mat-menu-item [matMenuTriggerFor]="variation" [disabled]="!song.riff()">Variation …</button>
      <button mat-menu-item [matMenuTriggerFor]="shapes">My shapes …</button>
      @if (song.document()?.guitar2) {
        <button mat-menu-item (click)="edits.giveToOther()">
          Give to the other guitar <kbd>{{ keys.giveAway.caps }}</kbd>
        </button>
        <button mat-menu-item (click)="removeSecond()">Remove guitar 2</button>
      } @else {
        <button mat-menu-item (click)="addSecond()">Add a second guitar</button>
      }
      <button mat-menu-item (click)="edits.nextStep()">
        Places: {{ edits.step().words }} <kbd>{{ keys.nextStep.caps }}</kbd>
      </button>
      <button mat-menu-item (click)="tapWanted.emit()">
        Tap the rhythm <kbd>{{ keys.tapRhythm.caps }}</kbd>
      </button>
    </mat-menu>
    <mat-menu #variation="matMenu">
      @if (song.variation(); as shown) {
        <label class="bar-note" (click)="$event.stopPropagation()" (keydown)="holdKey($event)">
          Name of this variation
          <input
            #variationName
            type="text"
            [maxLength]="limits.name"
            [value]="shown.name"
            (keydown.enter)="renameVariation(variationName.value)"
          />
          <button mat-stroked-button (click)="renameVariation(variationName.value)">Keep</button>
        </label>
        @for (other of otherVariations(); track other.id) {
          <button mat-menu-item (click)="mergeVariation(other.id)">The same as “{{ other.label }}”</button>
        }
        <button mat-menu-item (click)="forgetVariation()">Forget this variation</button>
      } @else {
        <button mat-menu-item [disabled]="chosenBars() === null" (click)="newVariation()">
          New variation of {{ chosenBars()?.words ?? 'the chosen bars' }}
        </button>
      }
    </mat-menu>
    <mat-menu #merge="matMenu">
      @for (other of others(); track other.id) {
        <button mat-menu-item [disabled]="other.why !== null" (click)="mergeInto(other.id)">
          {{ other.letter }} {{ other.name }}
          @if (other.why) {
            <small>{{ other.why }}</small>
          }
        </button>
      }
    </mat-menu>
    <mat-menu #bar="matMenu">
      <button mat-menu-item (click)="edits.repeatBar()">
        Again in the next bar <kbd>{{ keys.repeatBar.caps }}</kbd>
      </button>
      <label class="bar-note" (click)="$event.stopPropagation()" (keydown)="holdKey($event)">
        Remark
        <input
          #remark
          type="text"
          [maxLength]="limits.note"
          [value]="barNote()?.text ?? ''"
          (keydown.enter)="note(remark.value, todo.checked)"
        />
        <span>
          <input #todo type="checkbox" [checked]="barNote()?.todo ?? true" /> to do
          <button mat-stroked-button (click)="note(remark.value, todo.checked)">Keep</button>
        </span>
      </label>
    </mat-menu>
    <mat-menu #group="matMenu">
      <label class="bar-note" (click)="$event.stopPropagation()" (keydown)="holdKey($event)">
        Name of the chosen bars, as “turn”
        <input
          #groupName
          type="text"
          [maxLength]="limits.name"
          (keydown.enter)="nameGroup(groupName.value)"
        />
        <button mat-stroked-button (click)="nameGroup(groupName.value)">Keep</button>
      </label>
    </mat-menu>
    <mat-menu #shapes="matMenu">
      @for (shape of ownShapes(); track shape.id; let i = $index) {
        <button mat-menu-item (click)="edits.ownShape(shape)">
          {{ shape.name }}
          @if (i < 9) {
            <kbd>Alt {{ i + 1 }}</kbd>
          }
        </button>
      }
      <label class="bar-note" (click)="$event.stopPropagation()" (keydown)="holdKey($event)">
        {{ pressed() ? 'Keep what is pressed here as' : 'Choose a strum to keep its shape' }}
        <input
          #shapeName
          type="text"
          [maxLength]="limits.name"
          placeholder="Name"
          [disabled]="!pressed()"
          (keydown.enter)="keepShape(shapeName.value)"
        />
        <button mat-stroked-button [disabled]="!pressed()" (click)="keepShape(shapeName.value)">Keep</button>
      </label>
      @for (shape of ownShapes(); track shape.id) {
        <button mat-menu-item (click)="forget(shape.id)">Forget {{ shape.name }}</button>
      }
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
      gap: 8px;
    }
    button[mat-stroked-button] {
      padding: 0 12px;
    }
    .bar-note {
      display: flex;
      flex-direction: column;
      gap: 6px;
      padding: 8px 16px;
    }
    .bar-note span {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    .bar-note input[type='text'] {
      height: 34px;
      padding: 0 8px;
      border: 1px solid var(--edge);
      border-radius: 8px;
      background: none;
    }
    small {
      display: block;
    }
    kbd {
      margin-left: 8px;
    }
  `,
})
export class RiffMenu {
  protected readonly keys = RIFF_KEYS;
  protected readonly limits = TEXT_LIMITS;
  protected readonly formats = FORMATS.filter((f) => f.holds === 'tab');
  protected readonly song = inject(OpenSongStore);
  protected readonly edits = inject(StrumEdits);
  private readonly store = inject(Store);
  private readonly snackBar = inject(MatSnackBar);
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
    if (document) exportAs(this.page, format, document);
  }

  protected async copy(format: Format): Promise<void> {
    const document = this.song.document();
    if (!document) return;
    const said = await copyAs(format, document).then(
      () => 'The tab is on the clipboard',
      () => 'The browser does not let us copy; download the tab instead',
    );
    this.say(said);
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
    const why = whyNotDouble(document, riffId);
    if (why !== null) this.say(refusalWords(why));
    else this.song.change((d) => doubleRiff(d, riffId, () => crypto.randomUUID()));
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
    this.say(
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
    this.say(`“${shape.name}” is kept; it is offered where it fits`);
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

  private say(words: string): void {
    this.snackBar.open(words, undefined, { duration: 5000, panelClass: 'above-deck' });
  }
}
