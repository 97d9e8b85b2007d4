/** Beats and bars put right by hand, at the needle: what stands there, in words, and the edits of the grid. */
import { computed, inject, Injectable, signal } from '@angular/core';
import {
  addPickUp,
  barTimesS,
  countAt,
  doubleTempo,
  endBarOf,
  fillGap,
  freeBars,
  halveTempo,
  layTapped,
  moveBarLine,
  moveDownbeat,
  nearestBarLine,
  overallTempo,
  setBarBeats,
  setMeter,
  tappedBeats,
  tempoAt,
  useReading,
  whyNotFill,
  whyNotFree,
  whyNotDoubleTempo,
  whyNotHalve,
  whyNotPickUp,
  type BarRange,
  type Keeps,
  type Reading,
  type Refusal,
  type SongDocument,
  type Unit,
} from '@wild-needle/core/riff';
import type { Meter } from '@wild-needle/core/theory';
import { clock } from '@wild-needle/core/units';
import { OpenSongStore } from '../../open-song/open-song.store';
import { refusalWords } from '../../shared/refusal-words';
import { Say } from '../../shared/say';
import { counted } from '../../shared/words';
import { Player } from '../../transport/player';

/** Taps farther apart begin anew. */
const TAP_PAUSE_S = 3;
/** Readings offered beside the one that is written; more are no help. */
const READINGS = 3;
/** A reading this near to the written one is the same. */
const SAME_TEMPO = 0.04;
/** The needle stands on a beat when it is this little before it. */
const ON_BEAT_S = 1e-3;

export type MeterScope = 'song' | 'on' | 'section' | 'bar';
type Side = 'before' | 'behind';

interface TapSession {
  readonly tapsS: readonly number[];
  /** The document as these taps made it; null before the fourth. */
  readonly made: SongDocument | null;
  readonly rest: 'keeps' | 'follows';
}

const NO_TAPS: TapSession = { tapsS: [], made: null, rest: 'keeps' };

function isSameMeter(a: Meter, b: Meter | undefined): boolean {
  return a.beats === b?.beats && a.unit === b.unit;
}

/** Three four and six eight have the same bars: the one is easily heard for the other. Null for other meters. */
function twinOf({ tempoBpm, meter }: Reading): Reading | null {
  if (isSameMeter(meter, { beats: 3, unit: 4 }))
    return { tempoBpm: (tempoBpm * 2) / 3, meter: { beats: 6, unit: 8 } };
  if (isSameMeter(meter, { beats: 6, unit: 8 }))
    return { tempoBpm: (tempoBpm * 3) / 2, meter: { beats: 3, unit: 4 } };
  return null;
}

@Injectable()
export class GridEdits {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly said = inject(Say);
  /** What strums keep when the first beat of the bar moves. */
  readonly keeps = signal<'sound' | 'bar'>('sound');
  /** What strums keep when other beats are tapped under them. */
  readonly tappedKeeps = signal<Keeps>('sound');
  private readonly taps = signal<TapSession>(NO_TAPS);

  readonly durationS = computed(() => this.song.recording()?.durationS ?? 0);
  readonly hasBeats = computed(() => (this.song.document()?.grid.bars.length ?? 0) > 0);
  readonly words = computed(() => {
    const grid = this.song.document()?.grid;
    // Of the whole song, as the shelf says it; what it is at the needle stands under the speed.
    const bpm = grid ? overallTempo(grid) : null;
    if (!grid || bpm === null) return 'No beats yet: tap along';
    return `${Math.round(bpm)} bpm, ${counted(grid.bars.length, 'bar')}`;
  });
  /** Index of the bar under the needle; null in free time and outside of the bars. */
  readonly barHere = computed(() => {
    const grid = this.song.document()?.grid;
    const count = grid && countAt(grid, this.player.nowS() + ON_BEAT_S);
    return count ? count.bar - 1 : null;
  });
  readonly meterHere = computed(() => {
    const bar = this.barHere();
    return bar === null ? null : (this.song.document()?.grid.bars[bar] ?? null);
  });
  readonly barWords = computed(() => {
    const meter = this.meterHere();
    return meter ? `Bar ${this.barHere()! + 1}: ${meter.beats}/${meter.unit}` : 'No bar here';
  });
  /** The gap under the needle, as the bar behind it; null inside of a bar. */
  private readonly gapHere = computed(() => {
    const document = this.song.document();
    if (!document || this.barHere() !== null) return null;
    const starts = barTimesS(document.grid).slice(0, -1);
    const next = starts.findIndex((t) => t > this.player.nowS() + ON_BEAT_S);
    return next < 0 ? starts.length : next;
  });
  readonly isFree = computed(() => this.hasBeats() && this.gapHere() !== null);

  private readonly refusedDouble = computed(() => this.ask((d) => whyNotDoubleTempo(d)));
  private readonly refusedHalve = computed(() => this.ask((d) => whyNotHalve(d)));
  private readonly refusedFree = computed(() =>
    this.ask((d) => (this.isFree() ? null : whyNotFree(d, this.barHere() ?? -1, 1))),
  );
  readonly whyNoBeats = computed(() => (this.hasBeats() ? null : refusalWords({ kind: 'no-beats' })));
  readonly whyNoBar = computed(
    () => this.whyNoBeats() ?? (this.barHere() === null ? refusalWords({ kind: 'no-bars-here' }) : null),
  );
  readonly whyNotDouble = computed(() => this.whyWords(this.refusedDouble()));
  readonly whyNotHalve = computed(() => this.whyWords(this.refusedHalve()));
  readonly whyNotFree = computed(() => this.whyWords(this.refusedFree()));

  /** The other readings of tempo and meter that were heard. */
  readonly readings = computed((): Reading[] => {
    const document = this.song.document();
    const [bar] = document?.grid.bars ?? [];
    const tempo = document ? tempoAt(document.grid, document.grid.beatsS[0] ?? 0) : null;
    if (!document || !bar || tempo === null) return [];
    const isWritten = ({ tempoBpm, meter }: Reading): boolean =>
      Math.abs(tempoBpm / tempo - 1) < SAME_TEMPO && isSameMeter(meter, bar);
    const heard = this.song.analysis()?.meters ?? [];
    const twin = twinOf({ tempoBpm: tempo, meter: bar });
    const isTwinHeard = heard.some(
      (r) => isSameMeter(r.meter, twin?.meter) && Math.abs(r.tempoBpm / twin!.tempoBpm - 1) < SAME_TEMPO,
    );
    return [...(twin && !isTwinHeard ? [twin] : []), ...heard]
      .filter((reading) => !isWritten(reading) && useReading(document, reading) !== document)
      .slice(0, READINGS);
  });

  readonly tapWords = computed(() => {
    const taps = this.taps().tapsS.length;
    return taps === 0 ? 'Tap along' : taps < 4 ? `Tap on, ${4 - taps} more` : `${taps} taps`;
  });
  /** The stretch that was tapped, while the song is still as the taps made it. */
  readonly tapped = computed(() => {
    const { tapsS, made, rest } = this.taps();
    if (!made || made !== this.song.document()) return null;
    return { words: `Tapped from ${clock(tapsS[0])} to ${clock(tapsS.at(-1)!)}.`, rest };
  });

  double(): void {
    if (this.said.mayDo(this.refusedDouble())) this.song.change(doubleTempo);
  }

  halve(): void {
    if (this.said.mayDo(this.refusedHalve())) this.song.change(halveTempo);
  }

  moveDownbeat(beats: number): void {
    if (this.mayChangeBeats()) this.song.change((document) => moveDownbeat(document, beats, this.keeps()));
  }

  /** Bars under the needle become free time, or free time bars again, as they are before it. */
  toggleFree(): void {
    const [bar, gap] = [this.barHere(), this.gapHere()];
    if (gap !== null && this.hasBeats()) this.fill(gap > 0 ? 'before' : 'behind');
    else if (this.said.mayDo(this.refusedFree()) && bar !== null)
      this.song.change((d) => freeBars(d, bar, 1));
  }

  /** Fills the gap under the needle as the bars on one side of it are. */
  fill(side: Side): void {
    const gap = this.gapHere();
    const why = this.ask((d) =>
      gap === null ? { kind: 'no-gap-here' } : whyNotFill(d, gap, side, this.durationS()),
    );
    if (this.said.mayDo(why) && gap !== null)
      this.song.change((document) => fillGap(document, gap, side, this.durationS()));
  }

  pickUp(beats: number): void {
    if (this.said.mayDo(this.ask((d) => whyNotPickUp(d, beats))))
      this.song.change((d) => addPickUp(d, beats));
  }

  barBeats(by: number): void {
    const [bar, meter] = [this.barHere(), this.meterHere()];
    if (!this.said.mayDo(bar === null ? { kind: 'no-bars-here' } : null)) return;
    if (bar !== null && meter) this.song.change((document) => setBarBeats(document, bar, meter.beats + by));
  }

  /** The meter of the whole song, from the bar at the needle on, of the chosen section, or of the bar. */
  setMeter(beats: number, unit: Unit, scope: MeterScope): void {
    const document = this.song.document();
    const range = document && this.rangeOf(document, scope);
    if (!this.said.mayDo(range ? null : { kind: 'no-bars-here' }) || !range) return;
    // One bar that is shorter or longer pushes the bars behind it, instead of leaving its rest as a bar.
    const isPushing = scope === 'bar' && document.grid.bars[range.from].unit === unit;
    this.song.change((d) =>
      isPushing ? setBarBeats(d, range.from, beats) : setMeter(d, range, { beats, unit }),
    );
  }

  read(reading: Reading): void {
    this.song.change((document) => useReading(document, reading));
  }

  /** The nearest bar line goes to the needle. */
  lineHere(): void {
    if (!this.mayChangeBeats()) return;
    const timeS = this.player.nowS();
    this.song.change((document) => {
      const last = document.grid.bars.length - 1;
      return moveBarLine(document, Math.min(last, nearestBarLine(document.grid, timeS)), timeS);
    });
  }

  /** A tap on the beat while it plays, by its `timeStamp`; from the fourth on the beats follow, the first tap being the first of a bar. */
  tap(timeStampMs: number): void {
    const timeS = this.player.heardAtS(timeStampMs);
    const before = this.taps();
    const last = before.tapsS.at(-1);
    const isOwn = before.made === null || before.made === this.song.document();
    const goesOn = isOwn && last !== undefined && timeS > last && timeS - last < TAP_PAUSE_S;
    // A song without beats has none to keep.
    const fresh: TapSession = { ...NO_TAPS, rest: this.hasBeats() ? 'keeps' : 'follows' };
    const session = goesOn ? before : fresh;
    this.lay({ ...session, tapsS: [...session.tapsS, timeS] });
  }

  /** Whether the rest of the song follows what was tapped, or keeps its beats. */
  letRest(rest: TapSession['rest']): void {
    if (this.tapped()) this.lay({ ...this.taps(), rest });
  }

  private lay(session: TapSession): void {
    const onsetsS = this.song.analysis()?.strums.map((s) => s.timeS) ?? [];
    const beatsS = tappedBeats(session.tapsS, onsetsS);
    if (!beatsS) {
      this.taps.set(session);
      return;
    }
    const made = this.song.amend(session.made, (document) => {
      const { beats, unit } = this.meterAt(document, beatsS[0]);
      return layTapped(
        document,
        { beatsS, meter: { beats, unit }, rest: session.rest, onsetsS, durationS: this.durationS() },
        this.tappedKeeps(),
      );
    });
    this.taps.set({ ...session, made });
  }

  private meterAt({ grid }: SongDocument, timeS: number): { beats: number; unit: Unit } {
    const count = countAt(grid, timeS + ON_BEAT_S);
    return grid.bars[count ? count.bar - 1 : 0] ?? { beats: 4, unit: 4 };
  }

  private rangeOf(document: SongDocument, scope: MeterScope): BarRange | null {
    const { bars } = document.grid;
    const [here, section] = [this.barHere(), this.song.section()];
    if (scope === 'song') return bars.length > 0 ? { from: 0, end: bars.length } : null;
    if (scope === 'section')
      return section && { from: section.startBar, end: Math.min(bars.length, endBarOf(document, section)) };
    return here === null ? null : { from: here, end: scope === 'on' ? bars.length : here + 1 };
  }

  private mayChangeBeats(): boolean {
    return this.said.mayDo(this.hasBeats() ? null : { kind: 'no-beats' });
  }

  private ask(why: (document: SongDocument) => Refusal | null): Refusal | null {
    const document = this.song.document();
    return document && this.hasBeats() ? why(document) : { kind: 'no-beats' };
  }

  private whyWords(why: Refusal | null): string | null {
    return why && refusalWords(why);
  }
}
