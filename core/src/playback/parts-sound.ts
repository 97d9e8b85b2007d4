/** A recording whose parts are louder or softer, where they are known apart; elsewhere as it is. */
import { MARGIN_S, PARTS, PIECE_CHANNELS, PIECE_S, piecesOf, type PartGains } from '../parts';
import type { StereoSignal } from '../mir';
import { FULL_SCALE, toInt16 } from '../units';
import { holdSound, type HeldSound, type StereoPair } from './held-sound';

/** Samples of a piece at the rate of the recording, see `interleaveParts` of `separation`; null where the band is not apart. */
export type PieceSamples = (index: number) => Int16Array | null;

/** How much of a piece is heard at a sample: rising and falling over both margins, so that neighbours add up to 1. */
function weightAt(n: number, length: number, margin: number): number {
  return Math.max(0, Math.min(1, (n + 0.5) / (2 * margin), (length - n - 0.5) / (2 * margin)));
}

export function withParts(sound: HeldSound, pieceOf: PieceSamples, gains: PartGains): HeldSound {
  const { sampleRate } = sound;
  const margin = Math.round(MARGIN_S * sampleRate);
  const [left, right] = [0, 1].map((side) =>
    Float32Array.from({ length: PIECE_CHANNELS }, (_, c) =>
      c % 2 === side ? gains[PARTS[c >> 1]] / FULL_SCALE : 0,
    ),
  );
  const cut = (from: number, to: number): StereoPair => {
    const channels = sound.cut(from, to);
    const [outLeft, outRight] = channels;
    const [wholeLeft, wholeRight] = channels.map((c) => c.slice());
    for (const index of piecesOf(from, from + outLeft.length, sampleRate)) {
      const samples = pieceOf(index);
      if (!samples) continue;
      const length = samples.length / PIECE_CHANNELS;
      const start = Math.round(index * PIECE_S * sampleRate) - margin - from;
      for (let n = Math.max(0, -start); n < length && start + n < outLeft.length; n++) {
        // The first piece has nothing before it to be faded from.
        const weight = index === 0 && n < length / 2 ? 1 : weightAt(n, length, margin);
        let [sumLeft, sumRight] = [0, 0];
        for (let c = 0; c < PIECE_CHANNELS; c += 2) {
          sumLeft += left[c] * samples[n * PIECE_CHANNELS + c];
          sumRight += right[c + 1] * samples[n * PIECE_CHANNELS + c + 1];
        }
        const at = start + n;
        outLeft[at] += weight * (sumLeft - wholeLeft[at]);
        outRight[at] += weight * (sumRight - wholeRight[at]);
      }
    }
    return channels;
  };
  return {
    ...sound,
    cut,
    copyInto(into) {
      cut(0, sound.length).forEach((samples, c) => {
        for (let n = 0; n < samples.length; n++) into[c][n] = samples[n];
      });
    },
  };
}

/** The same for a part of a recording that is to be measured; `fromS`: where it begins. */
export function bandSignal(
  { channels, sampleRate }: StereoSignal,
  fromS: number,
  pieceOf: PieceSamples,
  gains: PartGains,
): StereoSignal {
  const [left, right] = channels.map(toInt16);
  const held = holdSound([left, right ?? left], sampleRate);
  const offset = Math.round(fromS * sampleRate);
  // In the time of the recording, as the pieces are.
  const inPlace = {
    ...held,
    cut: (from: number, to: number): StereoPair => held.cut(from - offset, to - offset),
  };
  return { channels: withParts(inPlace, pieceOf, gains).cut(offset, offset + held.length), sampleRate };
}
