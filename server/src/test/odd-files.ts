/** Files that are no good, made byte by byte: names of others' files, channels beyond counting, samples that are no numbers. */

/** A WAV header (Microsoft and IBM, Multimedia Programming Interface 1.0, 1991) before samples of any kind. */
export function wavOf(
  samples: Buffer,
  {
    channels = 1,
    bits = 16,
    tag = 1,
    rate = 22_050,
  }: { channels?: number; bits?: number; tag?: number; rate?: number },
): Buffer {
  const block = (channels * bits) / 8;
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(tag, 20);
  head.writeUInt16LE(channels, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE((rate * block) >>> 0, 28);
  head.writeUInt16LE(block & 0xffff, 32);
  head.writeUInt16LE(bits, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.length, 40);
  return Buffer.concat([head, samples]);
}

/** One second of 32-bit floats, all the same. */
export function floatsOf(value: number): Buffer {
  const samples = Buffer.alloc(4 * 22_050);
  for (let at = 0; at < samples.length; at += 4) samples.writeFloatLE(value, at);
  return wavOf(samples, { bits: 32, tag: 3 });
}

/** Playlists that name another file of the computer, by the demuxer that would follow them. */
export function playlistsTo(path: string): Record<'hls' | 'concat' | 'dash', string> {
  return {
    hls: `#EXTM3U\n#EXT-X-TARGETDURATION:3\n#EXTINF:3,\n${path}\n#EXT-X-ENDLIST\n`,
    concat: `ffconcat version 1.0\nfile '${path}'\n`,
    dash: `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" profiles="urn:mpeg:dash:profile:isoff-main:2011" type="static" mediaPresentationDuration="PT3S"><Period><AdaptationSet mimeType="audio/mp4"><Representation id="0" bandwidth="1"><BaseURL>file://${path}</BaseURL></Representation></AdaptationSet></Period></MPD>`,
  };
}

function box(type: string, ...parts: readonly Buffer[]): Buffer {
  const content = Buffer.concat(parts);
  const head = Buffer.alloc(8);
  head.writeUInt32BE(8 + content.length, 0);
  head.write(type, 4, 'latin1');
  return Buffer.concat([head, content]);
}

/** Boxes that hold boxes, on the way to the data reference. */
const NESTED = ['moov', 'trak', 'mdia', 'minf', 'dinf'];

/** A data reference of type alias: the media lie in another file (QuickTime File Format, data reference atom). */
function aliasTo(path: string): Buffer {
  const name = Buffer.from(path);
  const head = Buffer.alloc(150);
  const field = (type: number, value: Buffer): Buffer => {
    const length = Buffer.alloc(4);
    length.writeInt16BE(type, 0);
    length.writeInt16BE(value.length, 2);
    return Buffer.concat([length, value, Buffer.alloc(value.length % 2)]);
  };
  return box('alis', Buffer.alloc(4), head, field(2, name), Buffer.from([0xff, 0xff, 0, 0]));
}

/** An MP4 or MOV whose tracks lie in another file. */
export function withMediaIn(mov: Buffer, path: string): Buffer {
  const parts: Buffer[] = [];
  for (let at = 0; at + 8 <= mov.length;) {
    const size = mov.readUInt32BE(at);
    const type = mov.toString('latin1', at + 4, at + 8);
    const content = mov.subarray(at + 8, at + size);
    if (NESTED.includes(type)) parts.push(box(type, withMediaIn(content, path)));
    else if (type === 'dref') parts.push(box('dref', content.subarray(0, 8), aliasTo(path)));
    else parts.push(mov.subarray(at, at + size));
    at += size;
  }
  return Buffer.concat(parts);
}
