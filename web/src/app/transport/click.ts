/** The click: short tones on the beats of the recording, the downbeats higher than the others. */

/** Pitch of the downbeat and of the other beats: above the guitar's body, where the ear is quick. */
const ONE_HZ = 1760;
const BEAT_HZ = 1175;
const LENGTH_S = 0.045;
const DECAY_S = 0.009;

/** Plays one click at a time of the device's clock. */
export function playClick(
  context: BaseAudioContext,
  destination: AudioNode,
  atS: number,
  isDownbeat: boolean,
): AudioBufferSourceNode {
  const source = new AudioBufferSourceNode(context, {
    buffer: clickBuffer(context, isDownbeat ? ONE_HZ : BEAT_HZ),
  });
  source.connect(destination);
  source.start(Math.max(atS, context.currentTime));
  return source;
}

const buffers = new WeakMap<BaseAudioContext, Map<number, AudioBuffer>>();

function clickBuffer(context: BaseAudioContext, freqHz: number): AudioBuffer {
  const known = buffers.get(context) ?? new Map<number, AudioBuffer>();
  buffers.set(context, known);
  const before = known.get(freqHz);
  if (before) return before;
  const { sampleRate } = context;
  const buffer = new AudioBuffer({ length: Math.round(LENGTH_S * sampleRate), sampleRate });
  const samples = buffer.getChannelData(0);
  for (let n = 0; n < samples.length; n++) {
    const timeS = n / sampleRate;
    samples[n] = Math.sin(2 * Math.PI * freqHz * timeS) * Math.exp(-timeS / DECAY_S);
  }
  known.set(freqHz, buffer);
  return buffer;
}
