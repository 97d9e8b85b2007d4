/** A file that is brought in: read in a worker, put right where it is text, and taken over only when it is said how. */
import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { decodeText, putBeside, putInPlace, type Kind, type Remark } from '@wild-needle/core/formats';
import { changesBetween, type SongDocument } from '@wild-needle/core/riff';
import { Api } from '../../../api/api';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { changeWords } from '../../../shared/change-words';
import { Say } from '../../../shared/say';
import { contentWords, overWords } from './bring-words';
import { createReaderClient, type ReadFile } from './reader-client';

/** Read anew when the hands rest. */
const REST_MS = 250;
/** Of what differs, as many lines are shown. */
const SHOWN_DIFFERENCES = 12;

type Reading =
  | { readonly state: 'reading' }
  | { readonly state: 'read'; readonly read: ReadFile }
  | { readonly state: 'failed'; readonly words: string };

interface OpenFile {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Null until it is known. */
  readonly kind: Kind | null;
  /** As it is put right; null for a file that is no text tab. */
  readonly text: string | null;
}

@Injectable()
export class Bringing {
  private readonly song = inject(OpenSongStore);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly said = inject(Say);
  private readonly reader = createReaderClient();
  private readonly fileSignal = signal<OpenFile | null>(null);
  private readonly readingSignal = signal<Reading>({ state: 'reading' });
  private track: number | null = null;
  private resting: ReturnType<typeof setTimeout> | undefined;

  readonly file = this.fileSignal.asReadonly();
  readonly reading = this.readingSignal.asReadonly();
  readonly read = computed(() => {
    const reading = this.readingSignal();
    return reading.state === 'read' ? reading.read : null;
  });
  readonly remarks = computed<readonly Remark[]>(() => this.read()?.remarks ?? []);
  /** 'Three riffs and a road map in this file.' */
  readonly words = computed(() => {
    const read = this.read();
    return read ? contentWords(read) : '';
  });
  /** What would change where riffs of the same letter are replaced, in words. */
  readonly differences = computed(() => {
    const [mine, read] = [this.song.document(), this.read()];
    if (!mine || !read || read.kind === 'label-track') return [];
    const letters = new Set(mine.riffs.map((r) => r.letter));
    if (!read.document.riffs.some((r) => letters.has(r.letter))) return [];
    let count = 0;
    const after = putInPlace(mine, read.document, () => `compared-${count++}`);
    const words = changesBetween(mine, after).map((change) => changeWords(change, [mine, after], mine.key));
    return words.length > SHOWN_DIFFERENCES
      ? [...words.slice(0, SHOWN_DIFFERENCES), `and ${words.length - SHOWN_DIFFERENCES} more`]
      : words;
  });
  readonly hasSameLetters = computed(() => this.differences().length > 0);

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      clearTimeout(this.resting);
      this.reader.end();
    });
  }

  async open(file: File): Promise<void> {
    this.track = null;
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      this.fileSignal.set({ name: file.name, bytes, kind: null, text: null });
    } catch {
      this.said.say('This file can’t be read. Is it still where it was?');
      return;
    }
    await this.readAnew();
  }

  /** The text as the user has put it right. */
  setText(text: string): void {
    const file = this.fileSignal();
    if (!file) return;
    this.fileSignal.set({ ...file, text, bytes: new TextEncoder().encode(text) });
    clearTimeout(this.resting);
    this.resting = setTimeout(() => void this.readAnew(), REST_MS);
  }

  setTrack(track: number): void {
    this.track = track;
    void this.readAnew();
  }

  cancel(): void {
    clearTimeout(this.resting);
    this.reader.end();
    this.fileSignal.set(null);
  }

  private async readAnew(): Promise<void> {
    const [file, document] = [this.fileSignal(), this.song.document()];
    if (!file || !document) return;
    // What was read stays on screen while it is read anew.
    if (this.readingSignal().state !== 'read' || file.kind === null)
      this.readingSignal.set({ state: 'reading' });
    const answer = await this.reader.read({
      bytes: file.bytes,
      tuning: document.tuning,
      track: this.track,
      document,
    });
    const now = this.fileSignal();
    if (now?.bytes !== file.bytes) return;
    const kind = answer.ok ? answer.read.kind : answer.kind;
    const text = kind === 'text-tab' ? (now.text ?? decodeText(now.bytes)) : null;
    this.fileSignal.set({ ...now, kind, text });
    this.readingSignal.set(
      answer.ok ? { state: 'read', read: answer.read } : { state: 'failed', words: answer.words },
    );
  }

  /** Behind what is written; of a label track its sections. */
  putBeside(): void {
    this.takeOver((mine, theirs) => putBeside(mine, theirs, newId));
  }

  /** Where both have a riff of the same letter, theirs. */
  putInPlace(): void {
    this.takeOver((mine, theirs) => putInPlace(mine, theirs, newId));
  }

  private takeOver(put: (mine: SongDocument, theirs: SongDocument) => SongDocument): void {
    const read = this.read();
    if (!read) return;
    try {
      const isChanged = this.song.change((mine) =>
        read.kind === 'label-track'
          ? { ...mine, sections: read.document.sections }
          : put(mine, read.document),
      );
      this.said.say(isChanged ? overWords(read) : 'Nothing in it is new');
      this.cancel();
    } catch (error) {
      this.said.say(error instanceof RangeError ? error.message : String(error));
    }
  }

  async asNewSong(): Promise<void> {
    const [read, file] = [this.read(), this.fileSignal()];
    if (!read || !file || read.kind === 'label-track') return;
    const title = read.document.title === 'Without a title' ? file.name.replace(/\.[^.]+$/, '') : '';
    const document = { ...read.document, recordings: [], ...(title !== '' && { title }) };
    try {
      const { songId } = await firstValueFrom(this.api.createSong({ document }));
      this.cancel();
      await this.router.navigate(['/songs', songId, 'riffs']);
      this.said.say(
        'On the shelf, without a recording. To check a tab, bring it in beside a song that has one',
      );
    } catch (error) {
      this.said.say(`The song could not be put on the shelf: ${error instanceof Error ? error.message : ''}`);
    }
  }
}

function newId(): string {
  return crypto.randomUUID();
}
