/** What is decided about a pass that differs: kept as a variation, or declared to be the riff. */
import { inject, Injectable } from '@angular/core';
import { variationOfPass, wholePassVariation } from '@wild-needle/core/draft';
import { keepVariation, reopenPass, sameRiff, useVariation } from '@wild-needle/core/riff';
import { variationName, wholePassNames } from '../shared/difference-words';
import type { HeardPass } from './heard-passes';
import { OpenSongStore } from './open-song.store';

@Injectable({ providedIn: 'root' })
export class PassAnswers {
  private readonly song = inject(OpenSongStore);

  /** What the pass would be called: the next free ending or variation. */
  nameFor({ riff, differences, whole }: Pick<HeardPass, 'riff' | 'differences' | 'whole'>): string {
    return whole ? wholePassNames(riff, whole).name : variationName(riff, differences);
  }

  /** Keeps what was heard in the pass as a variation of its riff, under the next free name or the given one. */
  keep(heard: Pick<HeardPass, 'pass' | 'strokes' | 'differences' | 'whole'>, name = ''): void {
    const { pass, strokes, differences, whole } = heard;
    const document = this.song.written();
    const riff = document?.riffs.find((r) => r.id === pass.riffId);
    if (!document || !riff) return;
    const own = {
      id: crypto.randomUUID(),
      name: name.trim() === '' ? this.nameFor({ riff, differences, whole }) : name.trim(),
      newId: () => crypto.randomUUID(),
    };
    const variation = whole
      ? wholePassVariation(riff, whole, document.tuning, { ...own, note: wholePassNames(riff, whole).note })
      : variationOfPass(riff, strokes, differences, document.tuning, own);
    if (variation) this.song.changeWritten((d) => keepVariation(d, pass.sectionId, pass.index, variation));
  }

  /** The pass plays a variation that the riff has. */
  use({ pass }: Pick<HeardPass, 'pass'>, variationId: string): void {
    this.song.change((document) => useVariation(document, pass.sectionId, pass.index, variationId));
  }

  /** Nothing is decided about the pass any more. */
  reopen({ pass }: Pick<HeardPass, 'pass'>): void {
    this.song.change((document) => reopenPass(document, pass.sectionId, pass.index));
  }

  /** The pass is the riff, whatever was heard. */
  same({ pass }: Pick<HeardPass, 'pass'>): void {
    this.song.change((document) => sameRiff(document, pass.sectionId, pass.index));
  }
}
