import { describe, expect, it } from 'vitest';
import {
  certainStroke,
  decideKind,
  isPalmMuted,
  kindOf,
  STROKE_KINDS,
  strokeProbability,
} from './stroke-kinds';

describe('the kind of a stroke', () => {
  it.each([
    [0.5, 0.3, 0.1, 'ring'],
    [0.3, 0.5, 0.1, 'palmMute'],
    // Ringing on an equal: a mute is what must be heard.
    [0.4, 0.4, 0, 'ring'],
    // Dead from a third on, though ringing is likelier.
    [0.5, 0.1, 0.35, 'dead'],
    [0.5, 0.2, 0.3, 'ring'],
  ] as const)('of ring %f, palm mute %f, dead %f is %s', (ring, palmMute, dead, kind) => {
    expect(decideKind({ ring, palmMute, dead })).toBe(kind);
  });

  it('does not hang on whether it is a stroke at all', () => {
    for (const scale of [1, 0.1]) {
      expect(decideKind({ ring: 0.2 * scale, palmMute: 0.6 * scale, dead: 0.1 * scale })).toBe('palmMute');
      expect(isPalmMuted({ ring: 0.2 * scale, palmMute: 0.6 * scale, dead: 0.9 * scale })).toBe(true);
    }
  });

  it('that is certain is decided as what it is, and comes back from how it is played', () => {
    for (const kind of STROKE_KINDS) {
      expect(decideKind(certainStroke(kind))).toBe(kind);
      expect(strokeProbability(certainStroke(kind))).toBe(1);
      expect(kindOf({ palmMuted: kind === 'palmMute', dead: kind === 'dead' })).toBe(kind);
    }
  });
});
