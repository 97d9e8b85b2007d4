/**
 * The band taken apart, as far as it is: its pieces are fetched from the server when they are to be heard, and the last ones kept.
 */
import { piecesOf, type PartGains } from '@wild-needle/core/parts';
import type { PieceSamples } from '@wild-needle/core/playback';

/** Address of each piece, '' where the band is not apart. */
export type PieceAddresses = readonly string[];

/** Pieces in memory, 5 MB each: four minutes are heard again without asking. */
const KEPT = 40;

export interface BandPieces {
  readonly of: PieceSamples;
  /** Pieces that are apart from now on; what another engine made anew is forgotten. */
  update(addresses: PieceAddresses): void;
  /** Fetches what the samples [from, to) need; what can't be fetched is heard as it was recorded. */
  ensure(from: number, to: number): Promise<void>;
}

/** `keptPieces`: pieces that stay in memory. */
export function createBandPieces(sampleRate: number, keptPieces = KEPT): BandPieces {
  let addresses: PieceAddresses = [];
  /** By address, the one that was used last at the end. */
  const kept = new Map<string, Int16Array>();

  async function fetchPiece(address: string): Promise<void> {
    const known = kept.get(address);
    const samples = known ?? (await load(address));
    if (!samples) return;
    kept.delete(address);
    kept.set(address, samples);
    for (const [oldest] of kept) {
      if (kept.size <= keptPieces) break;
      kept.delete(oldest);
    }
  }

  async function load(address: string): Promise<Int16Array | null> {
    try {
      const answer = await fetch(`${address}?rate=${sampleRate}`);
      return answer.ok ? new Int16Array(await answer.arrayBuffer()) : null;
    } catch {
      return null;
    }
  }

  return {
    of: (index) => kept.get(addresses[index] ?? '') ?? null,
    update(now) {
      addresses = now;
      const wanted = new Set(now);
      for (const address of [...kept.keys()]) if (!wanted.has(address)) kept.delete(address);
    },
    async ensure(from, to) {
      const missing = piecesOf(from, to, sampleRate).flatMap((index) => addresses[index] || []);
      await Promise.all(missing.map(fetchPiece));
    },
  };
}

/** All pieces of a part of the recording, for measuring it; `fromS`: where it begins. */
export async function piecesAlong(
  { channels, sampleRate }: { readonly channels: readonly Float32Array[]; readonly sampleRate: number },
  fromS: number,
  addresses: PieceAddresses,
): Promise<PieceSamples> {
  const pieces = createBandPieces(sampleRate, Infinity);
  pieces.update(addresses);
  const from = Math.round(fromS * sampleRate);
  await pieces.ensure(from, from + channels[0].length);
  return pieces.of;
}

/**
 * Pieces of which the guitars are heard by themselves, along a part of the recording; undefined where none of them are apart, and where the
 * deck silences the guitars (`gains`; null = nothing is louder or softer).
 */
export async function cleanPiecesAlong(
  signal: { readonly channels: readonly Float32Array[]; readonly sampleRate: number },
  fromS: number,
  cleanAddresses: PieceAddresses,
  gains: PartGains | null,
): Promise<PieceSamples | undefined> {
  const from = fromS * signal.sampleRate;
  const pieces = piecesOf(from, from + signal.channels[0].length, signal.sampleRate);
  if (gains?.guitars === 0 || !pieces.some((piece) => cleanAddresses[piece])) return undefined;
  return piecesAlong(signal, fromS, cleanAddresses);
}
