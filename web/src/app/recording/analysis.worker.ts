/** Measures a recording, or a part of it, off the main thread: the same core that the server runs. */
import { confirmedIn } from '@wild-needle/core/draft';
import { analyse } from '@wild-needle/core/analysis';
import { isolate } from '@wild-needle/core/dsp';
import type { Confirmed, StereoSignal } from '@wild-needle/core/mir';
import { forEars, isolationOf } from './hearing';
import type { AnalysisAnswer, AnalysisTask } from './analysis-client';

/** The confirmed strums that the signal holds, on its own clock. */
function confirmedFrom({ signal, fromS, document }: AnalysisTask): Confirmed {
  const { referenceCents, spans, strums } = confirmedIn(document);
  const endS = fromS + signal.channels[0].length / signal.sampleRate;
  return {
    referenceCents,
    spans: spans.map((s) => ({ startS: s.startS - fromS, endS: s.endS - fromS })),
    strums: strums
      .filter((s) => s.timeS >= fromS && s.timeS < endS)
      .map((s) => ({ ...s, timeS: s.timeS - fromS })),
  };
}

/** The signal as it is listened to: one ear, a place on the stage, a part of the sound. */
function withHearing({ signal, hearing }: AnalysisTask): StereoSignal {
  const [left, right = left] = signal.channels;
  const isolation = isolationOf(hearing);
  if (!isolation && hearing.ears !== 'left' && hearing.ears !== 'right') return signal;
  const heard = isolation
    ? isolate([left, right], signal.sampleRate, isolation, 0, left.length)
    : ([left, right] as const);
  const [a, b] = forEars(hearing.ears, heard);
  return { channels: a === b ? [a] : [a, b], sampleRate: signal.sampleRate };
}

addEventListener('message', ({ data }: MessageEvent<AnalysisTask>) => {
  const answer = (message: AnalysisAnswer): void => postMessage(message);
  try {
    const analysis = analyse(withHearing(data), {
      tuning: data.document.tuning,
      confirmed: confirmedFrom(data),
      onProgress: (share, doing) => answer({ kind: 'progress', share, doing }),
    });
    answer({ kind: 'done', analysis });
  } catch (error) {
    answer({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
