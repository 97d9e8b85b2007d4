/** The answers, the likeliest first and wide; the key of each, and what it does here. */
import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { behindPaint } from '../../../shared/behind-paint';
import { ChordName } from '../../../shared/chord-name';
import { CHECK_KEYS } from '../check-keys';
import { CheckAnswers, type AnswerKind } from './check-answers';
import { CheckWalk } from './check-walk';
import { heardName, writtenName } from './question-words';

interface Answer {
  readonly kind: AnswerKind | 'again';
  readonly cap: string;
  readonly words: string;
  /** Of the chord that it leaves standing; '' for none. */
  readonly name: string;
  readonly does: string;
}

/** Behind the main one, in this order. */
const ORDER: readonly Answer['kind'][] = ['riff', 'pass', 'keep', 'again', 'doubtful'];

@Component({
  selector: 'wn-answer-bar',
  imports: [ChordName, MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (answer of shown(); track answer.kind; let first = $first) {
      @if (first) {
        <button mat-flat-button class="main" (click)="gave.emit(answer.kind)">
          <span class="words"
            >{{ answer.words }}
            @if (answer.name) {
              <wn-chord-name [name]="answer.name" />
            }
          </span>
          <span class="does"
            ><kbd>{{ answer.cap }}</kbd> {{ answer.does }}</span
          >
        </button>
      } @else {
        <button mat-stroked-button (click)="gave.emit(answer.kind)">
          <span class="words"
            >{{ answer.words }}
            @if (answer.name) {
              <wn-chord-name [name]="answer.name" />
            }
          </span>
          <span class="does"
            ><kbd>{{ answer.cap }}</kbd> {{ answer.does }}</span
          >
        </button>
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      gap: 8px;
      max-width: 1200px;
    }
    button {
      flex: 1 1 0;
      min-width: 0;
      height: var(--answer-height, 64px);
      padding: 0 10px;
      border-radius: 12px;
    }
    button:nth-child(n + 2):not(:nth-last-child(-n + 2)) {
      flex-grow: 1.4;
    }
    button.main {
      flex-grow: 1.9;
    }
    .words {
      display: block;
      font-size: 16px;
      font-weight: 600;
      line-height: 24px;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .does {
      display: block;
      font-size: 13px;
      font-weight: 400;
      line-height: 20px;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  `,
})
export class AnswerBar {
  readonly gave = output<Answer['kind']>();
  private readonly walk = inject(CheckWalk);
  private readonly answers = inject(CheckAnswers);

  private readonly main = behindPaint(this.answers.main);
  protected readonly shown = computed(() => {
    const main = this.main();
    return [main, ...ORDER.filter((kind) => kind !== main)].map((kind) => this.describe(kind));
  });

  private describe(kind: Answer['kind']): Answer {
    const [question, key] = [this.walk.studied(), this.walk.key()];
    const letter = question?.riff.letter ?? '';
    const written = question ? writtenName(question, key) : '';
    const heard = question ? heardName(question, key) : '';
    const bar = question ? this.walk.barOf(question) : null;
    switch (kind) {
      case 'keep':
        return written === ''
          ? { kind, cap: CHECK_KEYS.keep.caps, words: 'Nothing here', name: '', does: 'as written' }
          : { kind, cap: CHECK_KEYS.keep.caps, words: 'Keep', name: written, does: 'as written' };
      case 'riff':
        return {
          kind,
          cap: CHECK_KEYS.riff.caps,
          words: this.changeWords(),
          name: '',
          does: this.riffDoes(heard),
        };
      case 'pass':
        return {
          kind,
          cap: CHECK_KEYS.pass.caps,
          words: this.main() === 'pass' ? 'Keep as a variation of this pass' : 'Variation of this pass',
          name: '',
          does: `riff ${letter} stays as it is`,
        };
      case 'again':
        return {
          kind,
          cap: CHECK_KEYS.again.caps,
          words: 'Again at 50 %',
          name: '',
          does: bar ? `bar ${bar.bar + 1}` : '',
        };
      case 'doubtful':
        return { kind, cap: CHECK_KEYS.doubtful.caps, words: 'Leave doubtful', name: '', does: 'for later' };
    }
  }

  private changeWords(): string {
    const question = this.walk.studied();
    if (question?.strum === null) return 'Write it into the riff';
    if (question?.reason.kind === 'not-heard') return 'Take it out of the riff';
    return question?.reason.kind === 'time' ? 'Move it to where it is heard' : 'Change to what is heard';
  }

  private riffDoes(heard: string): string {
    const { compared } = this.answers.passes();
    const question = this.walk.studied();
    const frets = question ? this.answers.fretsInstead(question) : [];
    const what = [...frets].sort((a, b) => b.string - a.string).map((f) => f.fret);
    const words = what.length > 0 ? what.join(' ') : heard;
    return compared > 1 ? `${words} in all passes`.trim() : words || 'in this pass';
  }
}
