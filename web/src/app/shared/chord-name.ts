/** A chord or note name with real accidentals: the fonts that ship lack both signs, so they are drawn. */
import { booleanAttribute, ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

export interface NamePart {
  readonly kind: 'text' | 'sharp' | 'flat';
  readonly text: string;
}

/** 'C#5/Bb' → C ♯ 5/B ♭. A `b` counts as a flat only behind a note letter. */
export function splitName(name: string): NamePart[] {
  const parts: NamePart[] = [];
  let text = '';
  const flush = (): void => {
    if (text !== '') parts.push({ kind: 'text', text });
    text = '';
  };
  name.split('').forEach((char, i) => {
    const behindLetter = i > 0 && /[A-G]/.test(name[i - 1]) && (i === 1 || name[i - 2] === '/');
    if (char === '#' || char === '♯' || char === '♭' || (char === 'b' && behindLetter)) {
      flush();
      parts.push({ kind: char === '#' || char === '♯' ? 'sharp' : 'flat', text: char });
    } else text += char;
  });
  flush();
  return parts;
}

/** How a screen reader says it. */
export function spokenName(name: string): string {
  return splitName(name)
    .map(({ kind, text }) => (kind === 'sharp' ? ' sharp ' : kind === 'flat' ? ' flat ' : text))
    .join('')
    .trim();
}

@Component({
  selector: 'wn-chord-name',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.role]': "mute() ? null : 'img'", '[attr.aria-label]': 'mute() ? null : spoken()' },
  template: `
    <span aria-hidden="true">
      @for (part of parts(); track $index) {
        @switch (part.kind) {
          @case ('sharp') {
            <svg viewBox="0 0 12 20"><path d="M4 2.5v16M8 1.5v16M1.5 8l9-2.6M1.5 14.5l9-2.6" /></svg>
          }
          @case ('flat') {
            <svg viewBox="0 0 10 20"><path d="M2.5 1v16.5c3-1.4 6-4 6-6.6 0-3.2-4-3.4-6-.4" /></svg>
          }
          @default {
            <span>{{ part.text }}</span>
          }
        }
      }
    </span>
  `,
  styles: `
    :host {
      white-space: nowrap;
    }
    svg {
      height: 0.72em;
      width: auto;
      vertical-align: 0.02em;
      fill: none;
      stroke: currentColor;
      stroke-width: 2.2;
      stroke-linejoin: round;
      // A clip for each sign would cost a layer each.
      overflow: visible;
    }
  `,
})
export class ChordName {
  readonly name = input.required<string>();
  /** What stands around it says it. */
  readonly mute = input(false, { transform: booleanAttribute });
  protected readonly parts = computed(() => splitName(this.name()));
  protected readonly spoken = computed(() => spokenName(this.name()));
}
