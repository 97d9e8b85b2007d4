/**
 * What is known of the chosen strum beyond its writing: which notes the recording sounds where it is played, and the ways to
 * play it, ranked by that. Without a strum, which notes sound at the place that is written at, or at the needle. Measured and
 * searched in workers; nothing here waits.
 */
import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { candidateVoicings, type Fingering, type StringFret } from '@wild-needle/core/guitar';
import type { HeardNotes, NoteSpan } from '@wild-needle/core/mir';
import { passTicksToSeconds, setFrets, type Strum } from '@wild-needle/core/riff';
import { Player } from '../../../transport/player';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { shapesFeature } from '../../../state/shapes/shapes.reducer';
import { createFingeringsClient } from './fingerings-client';
import { RiffView } from '../view/riff-view';

/** Note that index 0 of the measured notes stands for, see `FIRST_HEARD_NOTE` of core. */
export const FIRST_HEARD_NOTE = 31;
/** Passes that are listened to: more change little and take their time. */
const MOST_PASSES = 4;
/** Asked when the hands rest: while keys come fast, nothing of it would be looked at. */
const REST_MS = 120;

/** A note sounds from this probability on. */
export const SOUNDS = 0.5;
/** Without a strum, this much is listened to: the longest that the chord network reads. */
const MOMENT_S = 0.37;
/** The needle is followed in steps of this: oftener could not be read. */
const NEEDLE_STEP_S = 0.25;

/** What the neck shows: a written strum, the place that is written at, or what the needle stands on. */
interface Listened {
  readonly to: 'strum' | 'place' | 'needle';
  readonly strumId: string | null;
  readonly spans: readonly NoteSpan[];
}

/** A way to play, and the strums that it is for. */
interface TriedWay {
  readonly riffId: string;
  readonly strumIds: ReadonlySet<string>;
  readonly way: Fingering;
  /** Frets that it is shown higher than it is written. */
  readonly movedBy: number;
}

function loweredBy(frets: readonly StringFret[], by: number): StringFret[] {
  return frets.map(({ string, fret }) => ({ string, fret: fret - by }));
}

function isSame(a: readonly StringFret[], b: readonly StringFret[]): boolean {
  return a.length === b.length && a.every((f) => b.some((g) => f.string === g.string && f.fret === g.fret));
}

@Injectable()
export class StrumStudy {
  private readonly song = inject(OpenSongStore);
  private readonly view = inject(RiffView);
  private readonly player = inject(Player);
  /** The guitars' part is measured: the band is heard in parts. */
  readonly ofGuitars = computed(() => this.player.hearing().parts !== null);
  private readonly shapes = inject(Store).selectSignal(shapesFeature.selectShapes);
  private readonly heardSignal = signal<HeardNotes | null>(null);
  private readonly fingeringsSignal = signal<readonly Fingering[]>([]);
  /** The strum as it was written when its ways were searched; another object, and they are not its ways. */
  private readonly waysOf = signal<Strum | null>(null);
  /** Steps that were asked for before the ways were there. */
  private waiting = 0;
  private readonly triedSignal = signal<TriedWay | null>(null);
  /** A way under the mouse. */
  readonly looked = signal<Fingering | null>(null);
  /** A way that the keys went to; it is not written yet. */
  readonly tried = this.triedSignal.asReadonly();
  /** What the neck and the notes show in place of what is written. */
  readonly shownWay = computed(() => this.looked() ?? this.triedSignal()?.way ?? null);
  /** The ways are those of the chosen strum, and not of the one before. */
  readonly isCurrent = computed(() => this.waysOf() === this.song.strum());

  /** Notes of the chosen strum, index 0 = {@link FIRST_HEARD_NOTE}, at the height it is written; null while unknown. */
  readonly heard = this.heardSignal.asReadonly();
  readonly fingerings = this.fingeringsSignal.asReadonly();

  /** Where to listen; stays the same while only the writing of the strum changes. */
  private readonly place = computed(
    (): Listened => {
      const [strumId, placeTicks] = [this.song.strumId(), this.song.placeTicks()];
      if (strumId !== null) {
        const spans = this.view.heardPasses().flatMap(({ comparison, spans: all }) => {
          const found = comparison.verdicts.find((v) => v.strumId === strumId)?.heard;
          return found === null || found === undefined ? [] : [all[found]];
        });
        // Where no strum was heard, what sounds at its time.
        const startTicks = this.song.strum()?.startTicks ?? 0;
        return {
          to: 'strum',
          strumId,
          spans: spans.length > 0 ? spans.slice(0, MOST_PASSES) : this.momentsAt(startTicks),
        };
      }
      if (placeTicks !== null) return { to: 'place', strumId, spans: this.momentsAt(placeTicks) };
      const startS = NEEDLE_STEP_S * Math.round(this.player.nowS() / NEEDLE_STEP_S);
      return { to: 'needle', strumId, spans: [{ startS, endS: startS + MOMENT_S }] };
    },
    {
      equal: (a, b) =>
        a.to === b.to &&
        a.strumId === b.strumId &&
        a.spans.length === b.spans.length &&
        a.spans.every((s, i) => s.startS === b.spans[i].startS && s.endS === b.spans[i].endS),
    },
  );

  /** What {@link heard} was listened to at. */
  readonly listenedTo = computed(() => this.place().to);

  constructor() {
    let askedFor: Strum | null = null;
    const client = createFingeringsClient((fingerings) => {
      this.fingeringsSignal.set(fingerings);
      this.waysOf.set(askedFor);
      const steps = this.isCurrent() ? this.waiting : 0;
      this.waiting = 0;
      if (steps !== 0) this.step(steps);
    });
    inject(DestroyRef).onDestroy(() => {
      this.take();
      client.end();
    });
    effect((onCleanup) => this.listen(onCleanup));
    // Who goes on to another strum has taken the way that was tried at the one before.
    effect(() => {
      this.song.strumId();
      untracked(() => this.take());
      this.waiting = 0;
    });
    effect((onCleanup) => {
      const [riff, strum, by] = [this.song.riff(), this.song.strum(), this.view.movedFrets()];
      const heard = this.heardSignal();
      this.looked.set(null);
      // A stroke that was only tapped is offered what sounds there.
      const frets = strum?.frets.length === 0 ? this.heardFrets() : (this.view.chosenStrum()?.frets ?? []);
      if (!riff || !strum || frets.length === 0 || strum.dead || strum.rest) {
        this.fingeringsSignal.set([]);
        return;
      }
      const question = {
        riff: riff.strums.map((s) =>
          s === strum ? frets : s.frets.map((f) => ({ ...f, fret: f.fret + by })),
        ),
        index: riff.strums.indexOf(strum),
        tuning: this.view.tuning(),
        ownShapes: this.shapes(),
        alternatives: untracked(() => this.alternatives()),
        heard: heard && { firstMidi: FIRST_HEARD_NOTE, probability: heard.probability },
      };
      const later = setTimeout(() => {
        askedFor = strum;
        client.ask(question);
      }, REST_MS);
      onCleanup(() => clearTimeout(later));
    });
  }

  /** Tries the way so many places after the one that is tried or written, round and round. */
  step(by: number): void {
    const [strum, riffId, ways] = [this.song.strum(), this.song.riffId(), this.fingeringsSignal()];
    if (!strum || riffId === null) return;
    if (!this.isCurrent()) {
      this.waiting += by;
      return;
    }
    if (ways.length === 0) return;
    const written = this.view.chosenStrum()?.frets ?? [];
    const shown = this.triedSignal()?.way.frets ?? written;
    const at = Math.max(
      0,
      ways.findIndex((way) => isSame(way.frets, shown)),
    );
    const way = ways[(((at + by) % ways.length) + ways.length) % ways.length];
    const isWritten = isSame(way.frets, written);
    const movedBy = this.view.movedFrets();
    this.triedSignal.set(isWritten ? null : { riffId, strumIds: this.song.selectedIds(), way, movedBy });
  }

  /** Writes the way that is tried, if one is; answers whether. */
  take(): boolean {
    const tried = this.triedSignal();
    if (!tried) return false;
    this.triedSignal.set(null);
    this.song.changeWritten((document) =>
      setFrets(document, tried.riffId, tried.strumIds, loweredBy(tried.way.frets, tried.movedBy)),
    );
    return true;
  }

  /** Lets go of the way that is tried, if one is; answers whether. */
  drop(): boolean {
    const wasTried = this.triedSignal() !== null;
    this.triedSignal.set(null);
    this.waiting = 0;
    return wasTried;
  }

  /** Measures the chosen strum or place in the passes of the section, or what the needle stands on. */
  private listen(onCleanup: (clean: () => void) => void): void {
    const place = this.place();
    const { to, spans } = place;
    const transpose = to === 'needle' ? 0 : (this.song.section()?.transpose ?? 0) - this.view.movedFrets();
    const isReady = this.player.status() === 'ready';
    this.ofGuitars();
    const offsetCents = this.song.document()?.referenceOffsetCents ?? 0;
    // The needle goes on: what it stood on fades into what it stands on.
    if (to !== 'needle') this.heardSignal.set(null);
    if (!isReady || spans.length === 0) return;
    const ask = async (): Promise<void> => {
      const notes = await this.player.hearNotes(spans, offsetCents);
      if (!notes || this.place().to !== to || this.place().strumId !== place.strumId) return;
      const lowered = (values: Float32Array): Float32Array =>
        values.map((_, i) => values[i + transpose] ?? 0);
      this.heardSignal.set({ probability: lowered(notes.probability), level: lowered(notes.level) });
    };
    const later = setTimeout(() => void ask(), REST_MS);
    onCleanup(() => clearTimeout(later));
  }

  /** The same place in the passes of the section. */
  private momentsAt(ticks: number): NoteSpan[] {
    const grid = this.song.document()?.grid;
    if (!grid) return [];
    return this.view
      .heardPasses()
      .slice(0, MOST_PASSES)
      .map(({ pass }) => {
        const startS = passTicksToSeconds(pass, grid, ticks);
        return { startS, endS: startS + MOMENT_S };
      });
  }

  /** The most usual way to play what sounds at the chosen strum; empty while nothing is known. */
  private heardFrets(): readonly StringFret[] {
    const midi = Array.from(this.heardSignal()?.probability ?? []).flatMap((p, i) =>
      p >= SOUNDS ? [FIRST_HEARD_NOTE + i] : [],
    );
    const tuning = this.view.tuning();
    return midi.length === 0 ? [] : (candidateVoicings(midi, tuning)[0]?.frets ?? []);
  }

  /** What the analysis took it for besides, in the first pass that has it. */
  private alternatives(): { midi: readonly number[]; probability: number }[] {
    const strumId = this.song.strumId();
    const transpose = (this.song.section()?.transpose ?? 0) - this.view.movedFrets();
    for (const { comparison, heard } of this.view.heardPasses()) {
      const index = comparison.verdicts.find((v) => v.strumId === strumId)?.heard;
      if (index === null || index === undefined) continue;
      return heard[index].alternatives.map((a) => ({
        midi: a.midi.map((m) => m - transpose),
        probability: a.probability,
      }));
    }
    return [];
  }
}
