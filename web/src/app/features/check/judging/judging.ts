/**
 * The open song held against its recording: what was kept from before at once, then heard anew in a worker, and judged again after each
 * change. Lives on while other steps of the song are looked at.
 */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { SongJudgement } from '@wild-needle/core/check';
import type { HeardBefore } from '@wild-needle/core/mir';
import { retimed, type SongDocument } from '@wild-needle/core/riff';
import { Api } from '../../../api/api';
import { InstrumentsStore } from '../../../open-song/instruments.store';
import { HeardIn } from '../../../open-song/heard-in';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { decodeForAnalysis } from '../../../recording/analysis-client';
import type { Hearing } from '../../../recording/hearing';
import { Player } from '../../../transport/player';
import { createJudgeClient, type JudgeClient } from './judge-client';
import { JudgementStore } from './judgement-store';

export interface Judged {
  readonly judgement: SongJudgement;
  /** What it was judged of. */
  readonly document: SongDocument;
}

type Progress =
  | { readonly kind: 'idle' }
  | { readonly kind: 'failed' }
  | { readonly kind: 'comparing'; readonly share: number };

/** Recording, guitar and how it is heard: another one is listened to anew. */
interface Subject {
  readonly songId: string;
  readonly recordingId: string;
  readonly guitar: number;
  readonly hearing: Hearing;
  /** One of two guitars, and the analysis has not told them apart. */
  readonly isSideUnknown: boolean;
}

/** Nearer, and the same notes are read: they lie a hundred apart. */
const SAME_PITCH_CENTS = 15;

const keyOf = ({ recordingId, guitar, hearing, isSideUnknown }: Subject): string =>
  [
    recordingId,
    isSideUnknown ? `own side ${guitar}` : guitar,
    hearing.ears,
    hearing.focus,
    hearing.place.position,
    hearing.place.width,
    ...(hearing.parts ? [JSON.stringify(hearing.parts)] : []),
  ].join('/');

@Injectable({ providedIn: 'root' })
export class Judging {
  private readonly api = inject(Api);
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly store = inject(JudgementStore);
  private client: JudgeClient | null = null;
  private subject: Subject | null = null;
  private readonly judgedSignal = signal<Judged | null>(null);
  private readonly progressSignal = signal<Progress>({ kind: 'idle' });
  private readonly heardIn = inject(HeardIn);
  private readonly instruments = inject(InstrumentsStore);
  /** What was written, by what was asked about in the time of another recording. */
  private readonly asked = new WeakMap<SongDocument, SongDocument>();
  private readonly heardWith = signal<Hearing | null>(null);

  /** Null until something is known. */
  readonly judged = this.judgedSignal.asReadonly();
  readonly progress = this.progressSignal.asReadonly();
  /** The deck listens through other ears than it was judged with. */
  readonly isOtherHearing = computed(() => {
    const [judged, now] = [this.heardWith(), this.player.hearing()];
    return (
      judged !== null &&
      (judged.ears !== now.ears ||
        judged.focus !== now.focus ||
        judged.place !== now.place ||
        JSON.stringify(judged.parts) !== JSON.stringify(now.parts))
    );
  });

  constructor() {
    // Another song: nothing of this one is needed any more.
    effect(() => {
      const songId = this.song.songId();
      untracked(() => {
        if (this.subject && this.subject.songId !== songId) this.forget();
      });
    });
    // What is written changed, here or in another window.
    effect(() => {
      const document = this.song.written();
      if (document) untracked(() => this.client?.judge(this.asHeard(document)));
    });
  }

  /** Judges the open song, unless that was done; `anew` listens again with the ears of the deck. */
  async open(anew = false): Promise<void> {
    const [document, recording, songId] = [this.song.written(), this.heardIn.recording(), this.song.songId()];
    if (!document || !recording || songId === null) return;
    const guitar = this.song.guitar();
    const now = this.player.hearing();
    // Parts leave strokes out: the band is judged by them only where that is asked for.
    const deck = anew ? now : (this.heardWith() ?? { ...now, parts: null });
    const hearing = this.hearingFor(guitar, deck);
    const isSideUnknown = this.song.document()?.guitar2 != null && hearing.ears === 'both';
    const subject = { songId, recordingId: recording.id, guitar, hearing, isSideUnknown };
    if (this.subject && keyOf(this.subject) === keyOf(subject) && this.progressSignal().kind !== 'failed')
      return;
    this.forget();
    this.subject = subject;
    this.heardWith.set(deck);
    this.progressSignal.set({ kind: 'comparing', share: 0 });
    const kept = await this.store.kept(keyOf(subject), document);
    if (this.subject !== subject) return;
    if (kept) this.judgedSignal.set({ judgement: kept, document });
    const before = this.heardBefore(hearing);
    let isSettled = false;
    this.client = createJudgeClient({
      onProgress: (share) => this.progressSignal.set({ kind: 'comparing', share }),
      onJudged: (judgement, of) =>
        this.show(subject, this.asSeen(judgement), this.asked.get(of) ?? of, isSettled),
      onFailed: () => this.progressSignal.set({ kind: 'failed' }),
    });
    if (before && !kept && !anew && !isSideUnknown)
      this.client.recall(this.asHeard(this.song.written() ?? document), before);
    try {
      const signal = await decodeForAnalysis(await firstValueFrom(this.api.audio(recording.id)));
      if (anew) await this.instruments.refresh();
      if (this.subject !== subject) return;
      isSettled = true;
      this.client.listen({
        signal,
        document: this.asHeard(this.song.written() ?? document),
        hearing,
        addresses: this.instruments.addresses(),
        cleanAddresses: this.instruments.cleanAddresses(),
        before,
        isAnew: anew,
        isSideUnknown,
      });
    } catch {
      if (this.subject === subject) this.progressSignal.set({ kind: 'failed' });
    }
  }

  /** In the time of the recording that sounds. */
  private asHeard(document: SongDocument): SongDocument {
    const other = this.heardIn.other();
    if (!other) return document;
    const heard = retimed(document, other.map.toOther);
    this.asked.set(heard, document);
    return heard;
  }

  /** In the time of the reference, in which everything is seen. */
  private asSeen(judgement: SongJudgement): SongJudgement {
    const other = this.heardIn.other();
    if (!other) return judgement;
    const extra = judgement.extra.map((one) => ({ ...one, timeS: other.map.toReference(one.timeS) }));
    return { ...judgement, extra };
  }

  /** A first look is shown and not kept; what was kept of the same song is better. */
  private show(subject: Subject, judgement: SongJudgement, document: SongDocument, isHeard: boolean): void {
    if (this.subject !== subject) return;
    if (!isHeard && this.judgedSignal()) return;
    this.judgedSignal.set({ judgement, document });
    if (!isHeard) return;
    this.progressSignal.set({ kind: 'idle' });
    void this.store.keep(keyOf(subject), document, judgement);
  }

  /** What the analysis has heard, where the same sound is judged at the same pitch; null to listen anew. */
  private heardBefore({ ears, focus, parts }: Hearing): HeardBefore | null {
    const [analysis, document] = [this.song.analysis(), this.song.document()];
    if (!analysis || !document || analysis.strokes.length === 0 || this.heardIn.other()) return null;
    const isSamePitch =
      Math.abs(analysis.referenceOffsetCents - document.referenceOffsetCents) < SAME_PITCH_CENTS;
    if (ears !== 'both' || focus !== 'full' || parts || !isSamePitch) return null;
    const { durationS, referenceOffsetCents, strums, strokes, sections, sameAsBar, beatsS, downbeatsS } =
      analysis;
    return {
      ...{ durationS, strums, sections, sameAsBar, beatsS, downbeatsS },
      referenceCents: referenceOffsetCents,
      strokes: strokes.map(({ timeS, ...stroke }) => ({ timeS, stroke })),
    };
  }

  /** Of two guitars each is judged by its own side, unless the deck listens to a place of its own. */
  private hearingFor(guitar: number, deck: Hearing): Hearing {
    const sides = this.song.analysis()?.guitars ?? [];
    const side = this.song.document()?.guitar2 ? sides[guitar - 1]?.side : undefined;
    return side && deck.ears === 'both' ? { ...deck, ears: side } : deck;
  }

  private forget(): void {
    this.client?.end();
    this.client = null;
    this.subject = null;
    this.heardWith.set(null);
    this.judgedSignal.set(null);
    this.progressSignal.set({ kind: 'idle' });
  }
}
