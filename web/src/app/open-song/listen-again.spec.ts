import { TestBed } from '@angular/core/testing';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { AnalysedStrum, Analysis } from '@wild-needle/core/analysis';
import { Api } from '../api/api';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import { WHOLE } from '../recording/hearing';
import { HeardAgainStore } from './heard-again-store';
import { OpenSongStore } from './open-song.store';
import { analyseInWorker, type AnalysisTask } from '../recording/analysis-client';
import { InstrumentsStore } from './instruments.store';
import { ListenAgain } from './listen-again';

vi.mock('../recording/analysis-client', () => ({
  decodeForAnalysis: () => Promise.resolve({ channels: [new Float32Array(60 * 100)], sampleRate: 100 }),
  analyseInWorker: vi.fn(),
}));

const strum = (timeS: number, midi: readonly number[]): AnalysedStrum => ({
  timeS,
  endS: timeS + 0.4,
  midi,
  rootPc: midi[0] % 12,
  quality: '5',
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  alternatives: [],
  name: 'E5',
  voicings: [],
});
const hears = (strums: readonly AnalysedStrum[]) => strums.map((s) => [s.timeS, s.midi[0]]);

describe('listening again', () => {
  const worker = vi.mocked(analyseInWorker);
  let shown: Analysis | null;
  let listening: ListenAgain;

  beforeEach(() => {
    shown = null;
    worker.mockReset();
    const before = { strums: [strum(5, [40, 47]), strum(20, [40, 47]), strum(50, [40, 47])] };
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [
        {
          provide: InstrumentsStore,
          useValue: { refresh: () => Promise.resolve(), addresses: () => [], cleanAddresses: () => [] },
        },
        { provide: HeardAgainStore, useValue: { keep: () => undefined, kept: () => Promise.resolve(null) } },
        { provide: Api, useValue: { audio: () => of(new ArrayBuffer(8)) } },
        {
          provide: OpenSongStore,
          useValue: {
            recording: () => ({ id: 'r' }),
            written: () => PLAIN_SONG,
            guitar: () => 1,
            songId: () => 's',
            analysis: () => before,
            showHeard: (analysis: Analysis) => (shown = analysis),
          },
        },
      ],
    });
    listening = TestBed.inject(ListenAgain);
  });

  it('puts a part back at its place in the song', async () => {
    // The part starts twelve seconds before the loop, at 6 s of the song.
    worker.mockResolvedValue({ strums: [strum(14.25, [43, 50])] } as unknown as Analysis);
    await expect(listening.start({ startS: 18, endS: 22 }, WHOLE)).resolves.toMatchObject({ changed: 1 });
    expect(hears(shown!.strums)).toEqual([
      [5, 40],
      [20.25, 43],
      [50, 40],
    ]);
    const task: AnalysisTask = worker.mock.calls[0][0];
    expect(task.fromS).toBe(6);
    expect(task.signal.channels[0]).toHaveLength(2800);
  });

  it('hears the whole song without a loop', async () => {
    worker.mockResolvedValue({ strums: [strum(5, [40, 47])] } as unknown as Analysis);
    await expect(listening.start(null, WHOLE)).resolves.toMatchObject({ changed: 2 });
    expect(hears(shown!.strums)).toEqual([[5, 40]]);
    expect(listening.progress()).toBeNull();
  });

  it('changes nothing when it is cancelled', async () => {
    worker.mockImplementation(
      (_task, _onProgress, abort) =>
        new Promise((_, reject) => {
          abort.addEventListener('abort', () => reject(abort.reason as Error));
        }),
    );
    const result = listening.start(null, WHOLE);
    await vi.waitFor(() => expect(worker).toHaveBeenCalled());
    await expect(listening.start(null, WHOLE)).resolves.toBeNull();
    listening.cancel();
    await expect(result).resolves.toBeNull();
    expect(shown).toBeNull();
    expect(listening.progress()).toBeNull();
  });

  it('tells when it fails, and can be tried again', async () => {
    worker.mockRejectedValueOnce(new Error('no sound'));
    await expect(listening.start(null, WHOLE)).rejects.toThrow('no sound');
    worker.mockResolvedValue({ strums: [] } as unknown as Analysis);
    await expect(listening.start(null, WHOLE)).resolves.toMatchObject({ changed: 3 });
  });
});
