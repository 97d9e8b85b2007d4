/** A sound file as the analysis takes it, by ffmpeg. */
import { spawnSync } from 'node:child_process';
import { ANALYSIS_SAMPLE_RATE, type StereoSignal } from '@wild-needle/core/mir';

function run(command: string, args: readonly string[]): Buffer {
  const { status, stdout, stderr } = spawnSync(command, args, { maxBuffer: 1 << 30 });
  if (status !== 0) throw new Error(`${command} failed: ${stderr.toString()}`);
  return stdout;
}

export function readSound(path: string): StereoSignal {
  const probe = [
    '-v',
    'error',
    '-select_streams',
    'a:0',
    '-show_entries',
    'stream=channels',
    '-of',
    'csv=p=0',
  ];
  const count =
    Number(
      run('ffprobe', [...probe, path])
        .toString()
        .trim(),
    ) > 1
      ? 2
      : 1;
  const format = ['-f', 'f32le', '-ac', String(count), '-ar', String(ANALYSIS_SAMPLE_RATE), '-'];
  const raw = run('ffmpeg', ['-v', 'error', '-i', path, ...format]);
  const all = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
  const channels = Array.from({ length: count }, (_, c) =>
    Float32Array.from({ length: Math.floor(all.length / count) }, (_v, n) => all[n * count + c]),
  );
  return { channels, sampleRate: ANALYSIS_SAMPLE_RATE };
}
