/** The typed way to the worker that holds the recording; it lives as long as a recording is open. */
import type { HeardNotes, NoteSpan } from '@wild-needle/core/mir';
import type { SamplePeaks } from '@wild-needle/core/playback';
import type { SongDocument } from '@wild-needle/core/riff';
import { toInt16 } from '@wild-needle/core/units';
import type { PieceAddresses } from './band-pieces';
import type { Hearing } from './hearing';
import { isHalf, type WaitingSound } from './waiting-sound';

export type RecordingTask =
  | {
      readonly kind: 'load';
      /** 16 bits: half the memory, and as fine as most recordings are. */
      readonly channels: readonly [Int16Array, Int16Array];
      readonly sampleRate: number;
      /** What is made of it waits in halves. */
      readonly isHalf: boolean;
    }
  /** Which pieces of the band are apart from now on. */
  | { readonly kind: 'apart'; readonly addresses: PieceAddresses }
  /** What the written tab is from now on. */
  | { readonly kind: 'write'; readonly document: SongDocument }
  | {
      readonly kind: 'hear';
      readonly id: number;
      readonly hearing: Hearing;
      readonly fromS: number;
      /** That the pitch is moved by; the sound gets shorter or longer along. */
      readonly semitones: number;
    }
  | { readonly kind: 'look'; readonly atS: number }
  /** A part as it is heard, to be kept; at the pitch of the recording. */
  | {
      readonly kind: 'cut';
      readonly id: number;
      readonly hearing: Hearing;
      readonly fromS: number;
      readonly toS: number;
    }
  /** Lowest and highest sample of each column of a part. */
  | {
      readonly kind: 'peaks';
      readonly id: number;
      readonly fromS: number;
      readonly toS: number;
      readonly columns: number;
    }
  /** Which notes sound in these places, where the same is played; see `hearNotes` of core. */
  | {
      readonly kind: 'notes';
      readonly id: number;
      readonly spans: readonly NoteSpan[];
      readonly offsetCents: number;
      /** Of the guitars alone, where the band is apart. */
      readonly ofGuitars: boolean;
    };

export type RecordingAnswer =
  | { readonly kind: 'progress'; readonly id: number; readonly share: number }
  | {
      readonly kind: 'heard';
      readonly id: number;
      readonly channels: readonly WaitingSound[];
      /** That its pitch is moved by already. */
      readonly semitones: number;
      /** False while only the part from the needle on is as it was wanted. */
      readonly isWhole: boolean;
    }
  /** Shares of the energy from left to right, see `panorama` of core. */
  | { readonly kind: 'stage'; readonly shares: Float32Array }
  | { readonly kind: 'notes'; readonly id: number; readonly notes: HeardNotes }
  | ({ readonly kind: 'peaks'; readonly id: number } & SamplePeaks)
  | { readonly kind: 'cut'; readonly id: number; readonly channels: readonly [Float32Array, Float32Array] };

export interface RecordingClient {
  /** Answers come to the handlers; those of an older wish are dropped. */
  hear(hearing: Hearing, fromS: number, semitones: number): void;
  /** Hands over the written tab; a hearing that plays it has to be asked for again. */
  write(document: SongDocument): void;
  /** Hands over which pieces of the band are apart; a hearing of its parts has to be asked for again. */
  apart(addresses: PieceAddresses): void;
  /** Asks where energy lies at this moment. */
  look(atS: number): void;
  /** Which notes sound in places where the same is played. Only the newest question is answered. */
  notes(spans: readonly NoteSpan[], offsetCents: number, ofGuitars: boolean): Promise<HeardNotes>;
  /** The samples of a part in columns, for drawing. Only the newest question is answered. */
  peaks(fromS: number, toS: number, columns: number): Promise<SamplePeaks>;
  /** A part as it is heard so, at the pitch of the recording. Only the newest question is answered. */
  cut(hearing: Hearing, fromS: number, toS: number): Promise<readonly [Float32Array, Float32Array]>;
  end(): void;
}

/** What was made ready to be played. */
export type HeardSound = Pick<
  Extract<RecordingAnswer, { kind: 'heard' }>,
  'channels' | 'semitones' | 'isWhole'
>;

export interface RecordingHandlers {
  readonly onHeard: (sound: HeardSound) => void;
  readonly onProgress: (share: number) => void;
  readonly onStage: (shares: Float32Array) => void;
}

/** Questions of which only the newest is answered. */
function latest<T>(): {
  ask(send: (id: number) => void): Promise<T>;
  answer(id: number, value: T): void;
} {
  let id = 0;
  let settle: ((value: T) => void) | null = null;
  return {
    ask: (send) =>
      new Promise((resolve) => {
        settle = resolve;
        send(++id);
      }),
    answer(answered, value) {
      if (answered === id) settle?.(value);
    },
  };
}

/** `channels`: one or two; they are copied. */
export function createRecordingClient(
  channels: readonly WaitingSound[],
  sampleRate: number,
  { onHeard, onProgress, onStage }: RecordingHandlers,
): RecordingClient {
  const worker = new Worker(new URL('./recording.worker', import.meta.url), { type: 'module' });
  const send = (task: RecordingTask, transfer: Transferable[] = []): void =>
    worker.postMessage(task, transfer);
  let id = 0;
  const asked = {
    notes: latest<HeardNotes>(),
    peaks: latest<SamplePeaks>(),
    cut: latest<readonly [Float32Array, Float32Array]>(),
  };
  const left = toInt16(channels[0]);
  const right = channels[1] ? toInt16(channels[1]) : left.slice();
  send({ kind: 'load', channels: [left, right], sampleRate, isHalf: isHalf(channels[0]) }, [
    left.buffer,
    right.buffer,
  ]);
  worker.addEventListener('message', ({ data }: MessageEvent<RecordingAnswer>) => {
    if (data.kind === 'stage') onStage(data.shares);
    else if (data.kind === 'notes') asked.notes.answer(data.id, data.notes);
    else if (data.kind === 'peaks') asked.peaks.answer(data.id, data);
    else if (data.kind === 'cut') asked.cut.answer(data.id, data.channels);
    else if (data.id !== id) return;
    else if (data.kind === 'progress') onProgress(data.share);
    else onHeard(data);
  });
  return {
    hear(hearing, fromS, semitones) {
      send({ kind: 'hear', id: ++id, hearing, fromS, semitones });
    },
    write: (document) => send({ kind: 'write', document }),
    apart: (addresses) => send({ kind: 'apart', addresses }),
    look: (atS) => send({ kind: 'look', atS }),
    notes: (spans, offsetCents, ofGuitars) =>
      asked.notes.ask((question) => send({ kind: 'notes', id: question, spans, offsetCents, ofGuitars })),
    peaks: (fromS, toS, columns) =>
      asked.peaks.ask((question) => send({ kind: 'peaks', id: question, fromS, toS, columns })),
    cut: (hearing, fromS, toS) =>
      asked.cut.ask((question) => send({ kind: 'cut', id: question, hearing, fromS, toS })),
    end: () => worker.terminate(),
  };
}
