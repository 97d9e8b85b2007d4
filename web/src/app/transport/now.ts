/** What the needle is on: bar and beat, section, pass and written strum. Changes only when one of them does. */
import { computed, inject, Injectable } from '@angular/core';
import {
  countAt,
  passesOf,
  passTicksToSeconds,
  riffOfPass,
  sectionTimesS,
  tempoAt,
  type Pass,
  type Riff,
  type Section,
} from '@wild-needle/core/riff';
import { Player } from './player';
import { OpenSongStore } from '../open-song/open-song.store';

@Injectable({ providedIn: 'root' })
export class Now {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);

  /** All passes of the song in order of time. */
  readonly allPasses = computed((): Pass[] => {
    const document = this.song.document();
    if (!document) return [];
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId);
      return riff ? passesOf(section, riff, document.grid) : [];
    });
  });

  /** The section under the needle, with a riff or without; null between sections. */
  readonly section = computed((): Section | null => {
    const [document, now] = [this.song.document(), this.player.nowS()];
    if (!document) return null;
    return (
      document.sections.find((section) => {
        const times = sectionTimesS(document, section);
        return times !== null && now >= times.startS && now < times.endS;
      }) ?? null
    );
  });

  /** The pass under the needle; null between sections, and where no riff is played. */
  readonly pass = computed((): Pass | null => {
    const now = this.player.nowS();
    return this.allPasses().find((p) => now >= p.startS && now < p.endS) ?? null;
  });

  /** What is played in that pass, with its variation. */
  private readonly played = computed((): Riff | null => {
    const [pass, document] = [this.pass(), this.song.written()];
    const riff = document?.riffs.find((r) => r.id === pass?.riffId);
    const section = document?.sections.find((s) => s.id === pass?.sectionId);
    return pass && riff && section ? riffOfPass(riff, section, pass) : null;
  });

  /** Id of the written strum that sounds. */
  readonly strumId = computed((): string | null => {
    const [pass, document, riff] = [this.pass(), this.song.document(), this.played()];
    if (!pass || !document || !riff) return null;
    const now = this.player.nowS();
    let sounding: string | null = null;
    for (const strum of riff.strums) {
      if (passTicksToSeconds(pass, document.grid, strum.startTicks) > now + 1e-3) break;
      const end = passTicksToSeconds(pass, document.grid, strum.startTicks + strum.durationTicks);
      sounding = now < end ? strum.id : null;
    }
    return sounding;
  });

  /** '14.1' */
  readonly count = computed((): string => {
    const grid = this.song.document()?.grid;
    const count = grid && countAt(grid, this.player.nowS() + 1e-3);
    return count ? `${count.bar}.${count.beat}` : '–';
  });

  /** Beats per minute as heard at the present speed; null without a grid. */
  readonly heardBpm = computed((): number | null => {
    const grid = this.song.document()?.grid;
    const bpm = grid ? tempoAt(grid, this.player.nowS()) : null;
    return bpm === null ? null : Math.round(bpm * this.player.speed());
  });
}
