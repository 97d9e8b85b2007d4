import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { interleaveParts, MARGIN_S, PIECE_S, type BandParts } from '@wild-needle/core/parts';
import { cleanPiecesAlong, createBandPieces, piecesAlong } from './band-pieces';

const RATE = 12_000;
const ADDRESSES = ['/rough/0', '', '/network/2'];

/** A piece in which the guitars are 0.25 and the drums 0.5 throughout. */
function piece(): ArrayBuffer {
  const length = Math.round((PIECE_S + 2 * MARGIN_S) * RATE);
  const part = (value: number): BandParts['drums'] => [
    new Float32Array(length).fill(value),
    new Float32Array(length).fill(value),
  ];
  const parts = { drums: part(0.5), bass: part(0), voice: part(0), guitars: part(0.25) };
  return interleaveParts(parts).buffer as ArrayBuffer;
}

describe('the pieces of a band', () => {
  const asked: string[] = [];
  beforeEach(() => {
    asked.length = 0;
    vi.stubGlobal('fetch', (address: string) => {
      asked.push(address);
      return Promise.resolve(
        address.includes('network')
          ? { ok: false }
          : { ok: true, arrayBuffer: () => Promise.resolve(piece()) },
      );
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('are asked for once, where they are to be heard and where they are', async () => {
    const pieces = createBandPieces(RATE);
    pieces.update(ADDRESSES);
    await pieces.ensure(0, 11 * RATE);
    await pieces.ensure(RATE, 2 * RATE);
    expect(asked).toEqual([`/rough/0?rate=${RATE}`]);
    expect(pieces.of(0)).not.toBeNull();
    expect(pieces.of(1)).toBeNull();
  });

  it('that can not be had leave the recording as it is', async () => {
    const pieces = createBandPieces(RATE);
    pieces.update(ADDRESSES);
    await pieces.ensure(13 * RATE, 14 * RATE);
    expect(asked).toHaveLength(1);
    expect(pieces.of(2)).toBeNull();
  });

  it('of which another engine has made a better one are forgotten', async () => {
    const pieces = createBandPieces(RATE);
    pieces.update(ADDRESSES);
    await pieces.ensure(0, RATE);
    pieces.update(['/better/0']);
    expect(pieces.of(0)).toBeNull();
  });

  it('stay as long as there is room, the last ones', async () => {
    const pieces = createBandPieces(RATE, 2);
    pieces.update(['/0', '/1', '/2', '/3']);
    for (const at of [1, 7, 13]) await pieces.ensure(at * RATE, (at + 1) * RATE);
    expect([0, 1, 2].map((i) => pieces.of(i) !== null)).toEqual([false, true, true]);
  });

  it('of a part that is measured are all there, and no others', async () => {
    const signal = { channels: [new Float32Array(4 * RATE)], sampleRate: RATE };
    const pieceOf = await piecesAlong(signal, 4, ADDRESSES);
    expect(pieceOf(0)).not.toBeNull();
    expect(asked).toEqual([`/rough/0?rate=${RATE}`]);
  });

  it('whose guitars are heard by themselves are fetched where there are any, and not for guitars that the deck silences', async () => {
    const signal = { channels: [new Float32Array(4 * RATE)], sampleRate: RATE };
    const clean = ['/clean/0', '', ''];
    expect(await cleanPiecesAlong(signal, 0, [], null)).toBeUndefined();
    expect(await cleanPiecesAlong(signal, 13, clean, null)).toBeUndefined();
    const silent = { drums: 1, bass: 1, voice: 1, guitars: 0 };
    expect(await cleanPiecesAlong(signal, 0, clean, silent)).toBeUndefined();
    expect(asked).toEqual([]);
    const pieceOf = await cleanPiecesAlong(signal, 4, clean, { ...silent, guitars: 0.5 });
    expect(pieceOf?.(0)).not.toBeNull();
    expect(pieceOf?.(1)).toBeNull();
    expect(asked).toEqual([`/clean/0?rate=${RATE}`]);
  });
});
