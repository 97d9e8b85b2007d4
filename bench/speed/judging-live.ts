/** What judging a player while playing costs: work as a share of what was played, and how late its answers are. */
import { performance } from 'node:perf_hooks';
import { createLiveJudge, playSimulated, SIMULATED_DELAY_S, type LiveRound } from '@wild-needle/core/live';

const RATE = 44_100;
/** As an input hands its sound over. */
const PIECE = 2048;
const BEAT_S = 0.5;
const BARS = 4;
const ROUNDS = 4;

/** Four bars of eighths at 120 bpm. */
function roundAt(startS: number): LiveRound {
  const strums = Array.from({ length: 8 * BARS }, (_, i) => {
    const timeS = startS + (i * BEAT_S) / 2;
    const root = 40 + ((i * 5) % 8);
    return {
      ...{ timeS, endS: timeS + BEAT_S / 2, midi: [root, root + 7] },
      ...{ palmMuted: i % 3 === 1, dead: false },
    };
  });
  return { strums, startS, endS: startS + 4 * BARS * BEAT_S, beatS: BEAT_S };
}

/** Work of the judge as a share of the time that was played, and the longest time from a strum to its answer in beats. */
export function judgingCosts(): { readonly shareOfCore: number; readonly latestAnswerBeats: number } {
  const judge = createLiveJudge({ sampleRate: RATE, delayS: SIMULATED_DELAY_S, referenceCents: 0 });
  let [workS, playedS, latest] = [0, 0, 0];
  for (let number = 0; number <= ROUNDS; number++) {
    const round = roundAt(5 + number * 4 * BARS * BEAT_S);
    const [fromS, toS] = [round.startS, round.endS + 0.2];
    const sound = playSimulated(round.strums, { number, fromS, toS, sampleRate: RATE, cents: 0 });
    judge.begin(round);
    const start = performance.now();
    for (let n = 0; n < sound.length; n += PIECE) {
      judge.hear(fromS + n / RATE, sound.slice(n, n + PIECE));
      const nowS = fromS + (n + PIECE) / RATE;
      for (const { index } of judge.answers())
        latest = Math.max(latest, (nowS - round.strums[index].timeS) / BEAT_S);
    }
    judge.end();
    // The first one warms the machine up.
    if (number === 0) continue;
    workS += (performance.now() - start) / 1000;
    playedS += toS - fromS;
  }
  return { shareOfCore: workS / playedS, latestAnswerBeats: latest };
}
