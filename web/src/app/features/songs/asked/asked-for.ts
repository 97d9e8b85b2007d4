/** Who waits for what, until when: the nearest day first; a row is ticked off, and opens its song at its place. */
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { Router } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import type { SongRequest, SongSummary } from '@wild-needle/contract';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import type { SheetVersion } from '@wild-needle/core/sheet';
import { Api } from '../../../api/api';
import { SHELF_KEYS } from '../shelf-keys';
import { dueWords } from '../row/shelf-words';
import { isCalled, partsOfNamed } from './parts-of-named';

const FORMAT_WORDS = [
  { format: null, words: 'in no special form' },
  { format: 'sheet', words: 'as a sheet' },
  { format: 'text-tab', words: 'as text' },
  { format: 'musicxml', words: 'as MusicXML' },
  { format: 'midi', words: 'as MIDI' },
] as const;

const VERSION_NAMES: Readonly<Record<SheetVersion, string>> = {
  'as-written': 'as written',
  'two-strings': 'two strings',
  'one-string': 'one string',
  'no-mutes': 'without mutes',
  'standard-tuning': 'in standard tuning',
  'with-capo': 'with a capo',
  'one-guitar': 'one guitar for both',
};

const VERSIONS = Object.keys(VERSION_NAMES) as SheetVersion[];

/** 'Bridge, two strings, as a sheet'. */
export function wantedWords({ wanted, sectionName, version, format }: SongRequest): string {
  const form = FORMAT_WORDS.find((f) => f.format === format && format !== null)?.words ?? '';
  const parts = [sectionName, wanted, version === null ? '' : VERSION_NAMES[version], form];
  return parts.filter((words) => words !== '').join(', ') || 'full song';
}

@Component({
  selector: 'wn-asked-for',
  imports: [MatButton, MatCheckbox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './asked-for.html',
  styleUrl: './asked-for.scss',
})
export class AskedFor {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  readonly songs = input.required<readonly SongSummary[]>();
  /** A request has come, gone or changed: what is due is another. */
  readonly changed = output();
  protected readonly keys = SHELF_KEYS;
  protected readonly FORMATS = FORMAT_WORDS;
  protected readonly VERSIONS = VERSIONS.map((version) => ({ version, words: VERSION_NAMES[version] }));
  protected readonly isAdding = signal(false);
  protected readonly problem = signal('');
  private readonly requests = signal<readonly SongRequest[]>([]);
  protected readonly rows = computed(() => {
    const now = new Date();
    return this.requests().map((request) => ({
      request,
      wanted: wantedWords(request),
      ...dueWords(request.dueOn, now),
    }));
  });

  /** Of the song, as the form names it; a part of it may be asked for once it is known which song. */
  protected readonly title = signal('');
  protected readonly sections = partsOfNamed(this.songs, this.title);

  constructor() {
    void this.load();
  }

  add(): void {
    this.title.set('');
    this.isAdding.set(true);
  }

  protected async keep(form: HTMLFormElement): Promise<void> {
    const given = new FormData(form);
    const text = (name: string): string => {
      const value = given.get(name);
      return typeof value === 'string' ? value.trim() : '';
    };
    if (text('initials') === '' || text('song') === '') {
      this.problem.set('Initials and a song are needed; the rest may be left open.');
      return;
    }
    await this.work(async () => {
      const songId = await this.songCalled(text('song'));
      const format = FORMAT_WORDS.find((f) => (f.format ?? '') === text('format'))?.format ?? null;
      await firstValueFrom(
        this.api.keepRequest(crypto.randomUUID(), {
          songId,
          initials: text('initials').slice(0, 8),
          wanted: text('wanted'),
          section: text('section'),
          format,
          version: VERSIONS.find((v) => v === text('version')) ?? null,
          dueOn: text('dueOn') || null,
          isDone: false,
        }),
      );
      this.isAdding.set(false);
    });
  }

  protected async tick(
    { id, title: _t, sectionName: _s, doneAt: _d, ...body }: SongRequest,
    isDone: boolean,
  ): Promise<void> {
    await this.work(() => firstValueFrom(this.api.keepRequest(id, { ...body, isDone })));
  }

  protected async forget({ id }: SongRequest): Promise<void> {
    await this.work(() => firstValueFrom(this.api.forgetRequest(id)));
  }

  /** The sheet for what is taken away or in another version, the riffs for the rest; there the section that is asked for. */
  protected open({ songId, section, format, version }: SongRequest): void {
    const step = format === null && version === null ? 'riffs' : 'sheet';
    void this.router.navigate(['/songs', songId, step], {
      queryParams: { section: section || null, version },
    });
  }

  /** A song that is wanted and has no recording yet stands on the shelf too. */
  private async songCalled(title: string): Promise<string> {
    const same = (song: SongSummary): boolean => isCalled(song, title);
    const known =
      this.songs().find(same) ?? (await firstValueFrom(this.api.listSongs({ search: title }))).find(same);
    if (known) return known.id;
    const { songId } = await firstValueFrom(this.api.createSong({ document: { ...PLAIN_SONG, title } }));
    return songId;
  }

  private async work(doIt: () => Promise<unknown>): Promise<void> {
    this.problem.set('');
    try {
      await doIt();
      this.changed.emit();
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    }
    await this.load();
  }

  private async load(): Promise<void> {
    try {
      this.requests.set(await firstValueFrom(this.api.requests()));
    } catch {
      // The shelf says that the server does not answer.
    }
  }
}
