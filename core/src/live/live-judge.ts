/**
 * A player judged while playing: each strum at the latest a beat after it was due, over a window of what the input has heard; the whole round
 * once more at its seam, when everything of it is known. Times are those of the device's clock.
 */
import { gatherEvidence, type WrittenStrum } from '../check';
import { resample } from '../dsp';
import type { StereoSignal } from '../mir';
import { ANALYSIS_SAMPLE_RATE } from '../units';
import { judgeTake, placeTake, type JudgedStrum, type JudgedTake, type Take } from '../practice';
import { TakeBuffer } from './take-buffer';

export interface LiveRound {
  /** In order of time. */
  readonly strums: readonly WrittenStrum[];
  readonly startS: number;
  readonly endS: number;
  readonly beatS: number;
}

export interface LiveAnswer extends JudgedStrum {
  /** Of the strum in its round. */
  readonly index: number;
}

export interface JudgedRound extends JudgedTake {
  /** Root mean square over full scale of the round's sound, dB. */
  readonly levelDb: number;
}

export interface LiveJudge {
  /** Pieces of the input in order of time, at its own rate. */
  hear(startS: number, samples: Float32Array): void;
  begin(round: LiveRound): void;
  /** Answers for strums that were due since it was asked last; none before the delay is known, and none too often. */
  answers(): LiveAnswer[];
  /** The whole round; null before any. What is heard of its delay holds from then on. */
  end(): JudgedRound | null;
  /** Of the device, seconds; null until it is known. */
  readonly delayS: number | null;
}

export interface LiveOptions {
  readonly sampleRate: number;
  /** Of the device, where it was measured. */
  readonly delayS: number | null;
  /** How far the guitar is tuned above 440 Hz. */
  readonly referenceCents: number;
}

/** A stroke has told its notes when it has sounded for this long. */
const SETTLED_S = 0.15;
/** It is not asked more often: what is heard twice costs twice. */
const LEAST_WAIT_S = 0.25;
/** Before the first strum of a window, so that what rings from before is known. */
const LEAD_IN_S = 0.5;
/** A stroke this little before a round is one of its own that came early. */
const EARLY_BEATS = 0.25;
/** What is played late at the end of a round sounds into the next. */
const TAIL_S = 0.15;

const rms = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);

export function createLiveJudge({ sampleRate, delayS: known, referenceCents }: LiveOptions): LiveJudge {
  const heard = new TakeBuffer(sampleRate);
  let delayS = known;
  let round: LiveRound | null = null;
  let answered = 0;
  let askedAtS = -Infinity;

  /** Judges strums over a stretch of the input; `beatsS` of the count-in are not heard here. */
  const judgeOver = (written: readonly WrittenStrum[], fromS: number, toS: number): JudgedTake => {
    const samples = resample(heard.slice(fromS, toS), sampleRate, ANALYSIS_SAMPLE_RATE);
    const signal: StereoSignal = { channels: [samples], sampleRate: ANALYSIS_SAMPLE_RATE };
    const local = written.map((w) => ({ ...w, timeS: w.timeS - fromS, endS: w.endS - fromS }));
    const take: Take = { samples, sampleRate: ANALYSIS_SAMPLE_RATE, beatsS: [], delayS };
    let placed = placeTake(local, take, []);
    const evidence = gatherEvidence(
      signal,
      (strokes) => {
        placed = placeTake(local, take, strokes);
        return placed.played;
      },
      { referenceCents },
    );
    const judged = judgeTake(local, placed, evidence);
    return { ...judged, extraS: judged.extraS.map((timeS) => timeS + fromS) };
  };

  return {
    get delayS() {
      return delayS;
    },
    hear: (startS, samples) => heard.add(startS, samples),
    begin(next) {
      round = next;
      [answered, askedAtS] = [0, -Infinity];
    },
    answers() {
      const nowS = heard.endS;
      if (!round || nowS === null || delayS === null) return [];
      const waitS = Math.max(LEAST_WAIT_S, round.beatS - SETTLED_S - LEAST_WAIT_S / 2);
      if (nowS - askedAtS < waitS) return [];
      const dueS = nowS - delayS - SETTLED_S;
      const { strums } = round;
      const until = strums.findIndex((s) => s.timeS > dueS);
      const to = until < 0 ? strums.length : until;
      if (to <= answered) return [];
      askedAtS = nowS;
      const fromS = strums[answered].timeS - LEAD_IN_S;
      const first = strums.findIndex((s) => s.timeS >= fromS + LEAD_IN_S / 4);
      const judged = judgeOver(strums.slice(first, to), fromS, nowS);
      const answers = judged.strums
        .map((strum, i): LiveAnswer => ({ ...strum, index: first + i }))
        .filter(({ index }) => index >= answered);
      answered = to;
      return answers;
    },
    end() {
      if (!round) return null;
      const { strums, startS, endS, beatS } = round;
      round = null;
      const tailS = endS + (delayS ?? 0) + TAIL_S;
      const levelDb = 20 * Math.log10(rms(heard.slice(startS, endS)) + 1e-9);
      const judged = judgeOver(strums, startS - LEAD_IN_S, Math.min(tailS, heard.endS ?? tailS));
      if (delayS === null && judged.summary.played >= strums.length / 2) delayS = judged.delayS;
      // Before its start and behind its end other rounds are played.
      const early = beatS * EARLY_BEATS;
      const extraS = judged.extraS.filter((timeS) => timeS >= startS - early && timeS < endS - early);
      return { ...judged, extraS, levelDb };
    },
  };
}
