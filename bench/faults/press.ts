/**
 * Uploads, range requests and analyses all at once, in a process of its own, so that who measures beside it is not held up by it:
 * `tsx bench/faults/press.ts URL UPLOADS RANGES ANALYSES`.
 */
import { importSong, tone } from './songs';

const [url, ...counts] = process.argv.slice(2);
const [uploads, ranges, analyses] = counts.map(Number);
const SECONDS = 120;

const shelf = (await (await fetch(`${url}/api/songs`)).json()) as { job: { recordingId: string } }[];
const recordings = shelf.map(({ job }) => job.recordingId);
const read = async (address: string, init: RequestInit): Promise<void> => {
  await (await fetch(`${url}/api/recordings/${address}`, init)).arrayBuffer();
};
const long = tone(101, SECONDS);

await Promise.all([
  ...Array.from({ length: uploads }, async (_, i) => {
    const bytes = Buffer.from(long);
    bytes.writeInt16LE(i, 44);
    await importSong(url, bytes, `upload ${i}.wav`);
  }),
  ...Array.from({ length: ranges }, (_, i) =>
    read(`${recordings[i]}/audio`, { headers: { range: 'bytes=1000-40000' } }),
  ),
  ...Array.from({ length: analyses }, (_, i) =>
    read(`${recordings[ranges + i]}/analyses`, { method: 'POST' }),
  ),
]);
