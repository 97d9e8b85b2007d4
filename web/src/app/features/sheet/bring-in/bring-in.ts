/**
 * Bring in, on the desk where the pages lie: what the file holds, what of it could not be understood and where, the text itself to put
 * that right, and how it is to be taken over.
 */
import { ChangeDetectionStrategy, Component, type ElementRef, inject, viewChild } from '@angular/core';
import { MatButton } from '@angular/material/button';
import type { Remark } from '@wild-needle/core/formats';
import { Bringing } from './bringing';
import { remarkPlace } from './bring-words';

@Component({
  selector: 'wn-bring-in',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (bringing.file(); as file) {
      <header>
        <h2 class="display">Bring in</h2>
        <span class="name">{{ file.name }}</span>
        <button mat-stroked-button (click)="bringing.cancel()">Leave it <kbd>Esc</kbd></button>
      </header>
      @switch (bringing.reading().state) {
        @case ('reading') {
          <p class="quiet" role="status">Reading the file …</p>
        }
        @case ('failed') {
          <p class="failed" role="alert">This file can’t be read: {{ failedWords() }}.</p>
        }
        @case ('read') {
          <p role="status">
            <b>{{ bringing.words() }}</b> What is there stays until you say so.
          </p>
        }
      }
      @if (bringing.read(); as read) {
        @if (read.tracks.length > 0) {
          <label class="track">
            The guitar is
            <select [value]="read.track" (change)="bringing.setTrack(+track.value)" #track>
              @for (voice of read.tracks; track $index) {
                <option [value]="$index" [selected]="$index === read.track">
                  {{ voice.name }}, {{ voice.notes }} {{ voice.notes === 1 ? 'note' : 'notes' }}
                </option>
              }
            </select>
          </label>
        }
        <div class="choices">
          @if (read.kind === 'label-track') {
            <button mat-flat-button (click)="bringing.putBeside()">Take these sections <kbd>1</kbd></button>
          } @else {
            <button mat-flat-button (click)="bringing.putBeside()">Put beside mine <kbd>1</kbd></button>
            <button
              mat-stroked-button
              [disabled]="!bringing.hasSameLetters()"
              (click)="bringing.putInPlace()"
            >
              In place of mine <kbd>2</kbd>
            </button>
            <button mat-stroked-button (click)="bringing.asNewSong()">As a new song <kbd>3</kbd></button>
          }
        </div>
      }
      <div class="columns">
        @if (file.text !== null) {
          <label class="text">
            <span>The tab, to put right</span>
            <textarea
              #text
              class="mono"
              wrap="off"
              spellcheck="false"
              autocomplete="off"
              [value]="file.text"
              (input)="bringing.setText(text.value)"
              (keydown.escape)="text.blur()"
            ></textarea>
          </label>
        }
        <div class="lists">
          @if (bringing.remarks().length > 0) {
            <h3>Not understood</h3>
            <ul class="remarks" aria-label="Not understood">
              @for (remark of bringing.remarks(); track $index) {
                <li>
                  <button type="button" [disabled]="remark.line === null" (click)="goTo(remark)">
                    <b>{{ place(remark) }}</b> {{ remark.words }}
                  </button>
                </li>
              }
            </ul>
          } @else if (bringing.read() && file.text !== null) {
            <p class="quiet">All of it is understood.</p>
          }
          @if (bringing.differences().length > 0) {
            <h3>In place of yours it would change</h3>
            <ul class="differences" aria-label="What would change">
              @for (line of bringing.differences(); track $index) {
                <li>{{ line }}</li>
              }
            </ul>
          }
          @if (bringing.read(); as read) {
            @if (read.kind !== 'label-track') {
              <h3>In the file</h3>
              <ul class="riffs">
                @for (riff of read.document.riffs; track riff.id) {
                  <li>
                    <b class="display">{{ riff.letter }}</b> {{ riff.name }}
                    <span class="quiet"
                      >{{ riff.bars.length }} {{ riff.bars.length === 1 ? 'bar' : 'bars' }},
                      {{ riff.strums.length }} {{ riff.strums.length === 1 ? 'strum' : 'strums' }}</span
                    >
                  </li>
                }
              </ul>
            }
          }
        </div>
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      gap: 12px;
      min-height: 0;
      padding: 16px 24px;
      background: var(--sleeve);
      overflow: auto;
    }
    header {
      display: flex;
      align-items: center;
      gap: 16px;
    }
    h2 {
      font-size: 28px;
      font-weight: 600;
    }
    .name {
      flex: 1;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .failed {
      color: var(--clash);
      font-weight: 600;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .track select {
      height: 34px;
      margin-left: 8px;
      padding: 0 8px;
      font: inherit;
      color: inherit;
      background: var(--paper);
      border: 1px solid var(--line2);
      border-radius: 8px;
    }
    .columns {
      display: flex;
      flex: 1;
      gap: 24px;
      min-height: 240px;
    }
    .text {
      display: flex;
      flex: 1 1 60%;
      flex-direction: column;
      gap: 4px;
      min-width: 0;
    }
    textarea {
      flex: 1;
      min-height: 200px;
      padding: 12px;
      resize: none;
      font-size: 13px;
      line-height: 18px;
      white-space: pre;
      color: inherit;
      background: var(--paper);
      border: 1px solid var(--line2);
      border-radius: 8px;
    }
    .lists {
      flex: 1 1 40%;
      min-width: 0;
      overflow: auto;
    }
    h3 {
      margin: 0 0 4px;
      font: 700 15px/22px var(--words);
    }
    ul {
      margin: 0 0 16px;
      padding: 0;
      list-style: none;
    }
    li {
      line-height: 22px;
    }
    .riffs b {
      display: inline-block;
      min-width: 24px;
    }
    .remarks button {
      padding: 4px 0;
      text-align: left;
      font: inherit;
      color: inherit;
      background: none;
      border: 0;
      cursor: pointer;

      &:disabled {
        cursor: default;
      }
    }
  `,
})
export class BringIn {
  protected readonly bringing = inject(Bringing);
  private readonly text = viewChild<ElementRef<HTMLTextAreaElement>>('text');
  protected readonly place = remarkPlace;

  protected failedWords(): string {
    const reading = this.bringing.reading();
    return reading.state === 'failed' ? reading.words : '';
  }

  /** The cursor to where it could not be understood. */
  protected goTo({ line, column }: Remark): void {
    const area = this.text()?.nativeElement;
    if (!area || line === null) return;
    const lines = area.value.split('\n');
    const start = lines.slice(0, line - 1).reduce((sum, l) => sum + l.length + 1, 0) + (column ?? 1) - 1;
    area.focus();
    area.setSelectionRange(start, column === null ? start + (lines[line - 1]?.length ?? 0) : start + 1);
    area.scrollTop = Math.max(0, (line - 6) * 18);
  }
}
