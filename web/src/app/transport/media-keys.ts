/** The keys of keyboards and headsets, and what the system shows of what plays (W3C Media Session). */

export interface MediaKeyActions {
  readonly play: () => void;
  readonly stop: () => void;
  readonly toStart: () => void;
  readonly slow: () => void;
  readonly seek: (timeS: number) => void;
  /** Five seconds back or on. */
  readonly jump: (by: 1 | -1) => void;
}

export interface PlayedNow {
  readonly title: string;
  readonly artist: string;
  readonly isPlaying: boolean;
  readonly positionS: number;
  readonly durationS: number;
  readonly speed: number;
}

/** Browsers hand the keys to pages that play a media element; sound of the Web Audio API alone does not count. */
const SILENCE = 'silence.flac';

export class MediaKeys {
  private readonly session = navigator.mediaSession as MediaSession | undefined;
  private readonly actions: readonly [MediaSessionAction, MediaSessionActionHandler][];
  private readonly silence: HTMLAudioElement | null;

  constructor({ play, stop, toStart, slow, seek, jump }: MediaKeyActions) {
    this.actions = [
      ['play', play],
      ['pause', stop],
      ['stop', stop],
      ['previoustrack', toStart],
      ['nexttrack', slow],
      ['seekbackward', () => jump(-1)],
      ['seekforward', () => jump(1)],
      ['seekto', ({ seekTime }) => seek(seekTime ?? 0)],
    ];
    for (const [action, handler] of this.actions) this.session?.setActionHandler(action, handler);
    this.silence = this.session ? new Audio(new URL(SILENCE, document.baseURI).href) : null;
    if (this.silence) this.silence.loop = true;
  }

  show({ title, artist, isPlaying, positionS, durationS, speed }: PlayedNow): void {
    if (!this.session) return;
    const { metadata } = this.session;
    if (metadata?.title !== title || metadata.artist !== artist)
      this.session.metadata = new MediaMetadata({ title, artist });
    this.session.playbackState = isPlaying ? 'playing' : 'paused';
    if (durationS > 0)
      this.session.setPositionState({
        duration: durationS,
        playbackRate: speed,
        position: Math.min(durationS, Math.max(0, positionS)),
      });
    // Without it the keys may stay with another page; the sound itself needs it not.
    if (isPlaying) void this.silence?.play().catch(() => undefined);
    else this.silence?.pause();
  }

  /** Lets go of the keys. */
  drop(): void {
    this.silence?.pause();
    if (!this.session) return;
    for (const [action] of this.actions) this.session.setActionHandler(action, null);
    this.session.metadata = null;
    this.session.playbackState = 'none';
  }
}
