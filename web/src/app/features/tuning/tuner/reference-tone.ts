/** A tone to tune a string by: a few partials, fading as a string does. */

/** From the fundamental up: those above it make a low tone audible on small loudspeakers. */
const PARTIALS = [1, 0.5, 0.3, 0.2, 0.1];
const LEVEL = 0.25;

/** Sounds from `startS` of the context's clock on; can be stopped before it has faded. */
export function playReferenceTone(
  context: BaseAudioContext,
  destination: AudioNode,
  freqHz: number,
  startS: number,
  lengthS: number,
): OscillatorNode {
  const wave = context.createPeriodicWave(
    new Float32Array(PARTIALS.length + 1),
    Float32Array.of(0, ...PARTIALS),
  );
  const tone = new OscillatorNode(context, { type: 'custom', periodicWave: wave, frequency: freqHz });
  const gain = new GainNode(context, { gain: 0 });
  gain.gain.setValueAtTime(0, startS);
  gain.gain.linearRampToValueAtTime(LEVEL, startS + 0.01);
  gain.gain.setTargetAtTime(0, startS + 0.05, lengthS / 3);
  tone.connect(gain).connect(destination);
  tone.start(startS);
  tone.stop(startS + lengthS);
  return tone;
}
