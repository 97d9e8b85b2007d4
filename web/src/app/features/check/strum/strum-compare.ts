/** The strum, large: what is written, what is heard now, and how they stand to each other. */
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { StringFret } from '@wild-needle/core/guitar';
import { ChordName } from '../../../shared/chord-name';
import { verdictPath } from '../../../shared/verdict-paths';
import { CHARACTER_WIDTH } from '../../../tab/row-layout';
import { CheckWalk } from '../walk/check-walk';
import { heardName, reasonWords, writtenName } from '../walk/question-words';

const NAME_PX = 124;
/** The stroke before a bass reaches lower than its letters. */
const SLASH_PX = 104;
/** Room for a name beside its frets. */
const ROOM_PX = 250;

interface Side {
  readonly name: string;
  readonly sizePx: number;
  readonly words: string;
  readonly frets: readonly { readonly text: string; readonly differs: boolean }[];
}

function sizeOf(name: string): number {
  return Math.min(
    name.includes('/') ? SLASH_PX : NAME_PX,
    ROOM_PX / (CHARACTER_WIDTH * Math.max(1, name.length)),
  );
}

@Component({
  selector: 'wn-strum-compare',
  imports: [ChordName],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="side written">
      <span class="title">{{ writtenTitle() }}</span>
      <span class="chord">
        @if (written().name !== '') {
          <wn-chord-name class="display name" [style.--name]="written().sizePx" [name]="written().name" />
        } @else {
          <span class="display nothing">{{ written().words }}</span>
        }
        <span class="frets display" aria-hidden="true">
          @for (fret of written().frets; track $index) {
            <span>{{ fret.text }}</span>
          }
        </span>
      </span>
    </div>
    <svg class="sign" viewBox="0 0 16 16" role="img" [attr.aria-label]="words()">
      <path [class]="'verdict-' + sign()" [attr.d]="path()" />
    </svg>
    <div class="side heard">
      <span class="title">{{ heardTitle() }}</span>
      <span class="chord">
        @if (heard().name !== '') {
          <wn-chord-name class="display name" [style.--name]="heard().sizePx" [name]="heard().name" />
        } @else {
          <span class="display nothing">{{ heard().words }}</span>
        }
        <span class="frets display" aria-hidden="true">
          @for (fret of heard().frets; track $index) {
            <span [class.differs]="fret.differs">{{ fret.text }}</span>
          }
        </span>
      </span>
    </div>
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 76px minmax(0, 1fr);
      align-items: center;
      min-width: 0;
    }
    .side {
      display: flex;
      flex-direction: column;
      height: calc(32px + 100px * var(--check-scale, 1));
      min-width: 0;
    }
    .title {
      height: 20px;
      color: var(--ink2);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .chord {
      display: flex;
      flex: 1;
      align-items: center;
      gap: 14px;
      min-width: 0;
    }
    .name {
      font-size: calc(1px * var(--name) * var(--check-scale, 1));
      font-weight: 800;
      line-height: 0.9;
    }
    .frets {
      display: grid;
      font-size: calc(30px * var(--check-scale, 1));
      font-weight: 600;
      line-height: 1.1;
      text-align: center;
    }
    .differs {
      text-decoration: underline 3px;
      text-underline-offset: 3px;
    }
    .heard .name,
    .heard .frets,
    .heard .nothing {
      color: var(--needle);
    }
    .nothing {
      font-size: 34px;
      font-weight: 600;
      line-height: 36px;
      white-space: normal;
    }
    .sign {
      width: 56px;
      height: 56px;
      justify-self: center;
    }
  `,
})
export class StrumCompare {
  readonly heardFrets = input.required<readonly StringFret[]>();
  private readonly walk = inject(CheckWalk);

  protected readonly writtenTitle = computed(() => {
    const question = this.walk.chosen();
    return question?.strum ? `Written in riff ${question.riff.letter}` : 'Nothing is written here';
  });
  protected readonly heardTitle = computed(() => {
    const verdict = this.walk.chosen()?.verdict;
    return verdict === 'unchecked' ? 'Comparing …' : 'Heard now';
  });
  protected readonly words = computed(() => {
    const question = this.walk.chosen();
    return question ? reasonWords(question, this.walk.key()) : '';
  });
  protected readonly sign = computed(() => {
    const question = this.walk.chosen();
    return question?.settled === 'kept' ? 'agrees' : (question?.verdict ?? 'unchecked');
  });
  protected readonly path = computed(() => verdictPath(this.sign(), 8, 8));

  protected readonly written = computed((): Side => {
    const question = this.walk.chosen();
    const name = question ? writtenName(question, this.walk.key()) : '';
    const muted = question?.strum?.palmMute && !question.strum.dead ? 'muted' : '';
    const frets = question?.strum?.dead ? [] : (question?.strum?.frets ?? []);
    return { name, sizePx: sizeOf(name), words: muted || '–', frets: this.column(frets, []) };
  });
  protected readonly heard = computed((): Side => {
    const question = this.walk.chosen();
    const name = question ? heardName(question, this.walk.key()) : '';
    const words = question?.verdict === 'unchecked' ? '' : 'Nothing is struck';
    const frets = this.heardFrets();
    return { name, sizePx: sizeOf(name), words, frets: this.column(frets, question?.strum?.frets ?? frets) };
  });

  /** From the highest string down; what differs from `others` is marked. */
  private column(frets: readonly StringFret[], others: readonly StringFret[]): Side['frets'] {
    return [...frets]
      .sort((a, b) => a.string - b.string)
      .map(({ string, fret }) => ({
        text: String(fret),
        differs: others.length > 0 && !others.some((o) => o.string === string && o.fret === fret),
      }));
  }
}
