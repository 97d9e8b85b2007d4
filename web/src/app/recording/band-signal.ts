/** A recording that is measured as it is heard: its band in parts, its ears and its focus. */
import type { StereoSignal } from '@wild-needle/core/mir';
import { holdSound, throughEars, withParts, type StereoPair } from '@wild-needle/core/playback';
import { toInt16 } from '@wild-needle/core/units';
import { createBandPieces, type PieceAddresses } from './band-pieces';
import { isolationOf, toEarsOf, type Hearing } from './hearing';

/** `fromS`: where the signal begins in the recording. */
async function bandOf(
  signal: StereoSignal,
  fromS: number,
  parts: NonNullable<Hearing['parts']>,
  addresses: PieceAddresses,
): Promise<StereoSignal> {
  const { channels, sampleRate } = signal;
  const left = toInt16(channels[0]);
  const held = holdSound([left, channels.length > 1 ? toInt16(channels[1]) : left], sampleRate);
  const offset = Math.round(fromS * sampleRate);
  const [from, to] = [offset, offset + held.length];
  // In the time of the recording, as the pieces are.
  const inPlace = { ...held, cut: (a: number, b: number): StereoPair => held.cut(a - offset, b - offset) };
  const pieces = createBandPieces(sampleRate, Infinity);
  pieces.update(addresses);
  await pieces.ensure(from, to);
  return { channels: [...withParts(inPlace, pieces.of, parts).cut(from, to)], sampleRate };
}

/** Where no parts are asked for, nothing is fetched. */
export async function asHeard(
  signal: StereoSignal,
  fromS: number,
  hearing: Hearing,
  addresses: PieceAddresses,
): Promise<StereoSignal> {
  const band = hearing.parts ? await bandOf(signal, fromS, hearing.parts, addresses) : signal;
  return throughEars(band, isolationOf(hearing), toEarsOf(hearing));
}
