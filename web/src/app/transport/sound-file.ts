/** The sound as it is heard, as a file: the loop with its ears, speed and pitch, and the written tab from start to end. */
import { inject, Injectable } from '@angular/core';
import { toInt16 } from '@wild-needle/core/units';
import { InstrumentsStore } from '../open-song/instruments.store';
import { WHOLE } from '../recording/hearing';
import { Player, type CutSound } from './player';
import { createStretchNode, scheduleSegment } from './stretch-node';

/** The stretcher fades in; what it plays begins this much later, and what is before is cut off. */
const LEAD_S = 0.25;

@Injectable({ providedIn: 'root' })
export class SoundFile {
  private readonly player = inject(Player);
  private readonly instruments = inject(InstrumentsStore);

  /** The loop as it sounds, or the whole song without one; null without a sound. */
  async ofLoop(): Promise<Uint8Array | null> {
    const { startS, endS } = this.player.loop() ?? { startS: 0, endS: this.player.durationS() };
    // What the instruments say now: the deck follows a slider a moment later.
    const hearing = { ...this.player.hearing(), parts: this.instruments.gains() };
    const cut = await this.player.cut(hearing, startS, endS);
    if (!cut) return null;
    const [speed, semitones] = [this.player.speed(), this.player.semitones()];
    return asWav(speed === 1 && semitones === 0 ? cut : await stretched(cut, speed, semitones));
  }

  /** What is written, as long as the recording; null without one. */
  async ofTab(): Promise<Uint8Array | null> {
    const cut = await this.player.cut({ ...WHOLE, source: 'tab' }, 0, this.player.durationS());
    return cut && asWav(cut);
  }
}

/** Slower or at another pitch, by the stretcher of the deck. */
async function stretched(
  { channels, sampleRate }: CutSound,
  speed: number,
  semitones: number,
): Promise<CutSound> {
  const length = Math.round(channels[0].length / speed);
  const lead = Math.round(LEAD_S * sampleRate);
  const context = new OfflineAudioContext(2, lead + length, sampleRate);
  const node = await createStretchNode(context);
  await node.addBuffers(
    channels.map((samples) => new Float32Array(samples)),
    [],
  );
  // Rendering waits for nothing: before the node knows what to play, it would be silence.
  await scheduleSegment(node, { contextS: LEAD_S, inputS: 0, speed, loop: null }, true, {
    semitones,
    madeSemitones: 0,
  });
  node.connect(context.destination);
  const rendered = await context.startRendering();
  const [left, right] = [0, 1].map((c) => rendered.getChannelData(c).slice(lead));
  return { channels: [left, right], sampleRate };
}

/** 16 bits, as recordings are. */
async function asWav({ channels, sampleRate }: CutSound): Promise<Uint8Array> {
  const { WaveFile } = await import('wavefile');
  const wav = new WaveFile();
  wav.fromScratch(2, sampleRate, '16', channels.map(toInt16));
  return wav.toBuffer();
}
