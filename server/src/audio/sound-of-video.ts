/** Of a video only its sound is kept: copied out as it is, packet by packet, into a file of the same kind. */
import { MAX_UPLOAD_BYTES } from '@wild-needle/contract';
import * as z from 'zod';
import { notAudio } from './audio-problem';
import { FORMAT_WHITELIST, videoContainerOf } from './containers';
import { ONLY_THIS_FILE } from './decode';
import { runTool } from './run-tool';

const probeSchema = z.object({
  format: z.object({ format_name: z.string() }),
  /** A cover is a stream of one picture. */
  streams: z.array(z.object({ disposition: z.object({ attached_pic: z.int() }) })),
});

/** Where the system has no more room ffmpeg says so in words only. */
const NO_ROOM = /no space left on device|file too large/i;

/**
 * Writes the sound of the video at `path` to `to` and answers true; answers false, and writes nothing, when moving pictures are not in
 * it. The samples that come out of both are the same. Its bytes depend on those of the video alone, so that the same video is known again.
 */
export async function copySoundOut(path: string, to: string): Promise<boolean> {
  const demuxer = await demuxerOfVideo(path);
  if (demuxer === null) return false;
  const { code, stderr } = await runTool(
    'ffmpeg',
    ['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file', '-format_whitelist', FORMAT_WHITELIST]
      .concat(['-f', demuxer.name, ...demuxer.options, '-i', 'file:' + path])
      .concat(['-map', '0:a:0', '-c', 'copy', '-map_metadata', '0', '-map_chapters', '-1'])
      // Neither a random number nor the day is written.
      .concat(['-fflags', '+bitexact', '-f', demuxer.name, 'file:' + to]),
    () => undefined,
    { fileBytes: MAX_UPLOAD_BYTES },
  );
  if (code === 0) return true;
  if (NO_ROOM.test(stderr)) throw Object.assign(new Error(stderr.trim()), { code: 'ENOSPC' });
  throw notAudio();
}

/** Of ffmpeg, for a file with moving pictures; null for any other. */
async function demuxerOfVideo(
  path: string,
): Promise<{ readonly name: string; readonly options: readonly string[] } | null> {
  let json = '';
  const { code } = await runTool(
    'ffprobe',
    ['-v', 'error', ...ONLY_THIS_FILE, '-select_streams', 'v', '-of', 'json'].concat([
      '-show_entries',
      'format=format_name:stream_disposition=attached_pic',
      'file:' + path,
    ]),
    (chunk) => (json += chunk.toString()),
  );
  if (code !== 0) return null;
  const parsed = probeSchema.safeParse(JSON.parse(json));
  if (!parsed.success || parsed.data.streams.every((s) => s.disposition.attached_pic === 1)) return null;
  return videoContainerOf(parsed.data.format.format_name);
}
