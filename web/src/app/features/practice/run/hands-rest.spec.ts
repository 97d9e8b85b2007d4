import { expect, it } from 'vitest';
import { listenOn, type Listened } from '../../../transport/ear-rest';
import { handsWords } from './hands-rest';

it.each([
  [9.9, 0, ''],
  [12, 0.5, '12 minutes without a pause: shake the hands out.'],
  [20, 0, 'Rest the hands now; the loop waits.'],
  [0, 3.4, 'Rested 3 min.'],
])('after %f minutes of playing and %f of silence: %s', (minutes, silentMinutes, words) => {
  expect(handsWords({ minutes, silentMinutes })).toBe(words);
});

it('begins anew after two minutes of rest, not after one', () => {
  let played: Listened = { minutes: 12, silentMinutes: 0 };
  played = listenOn(played, false, 1, 2);
  expect(played.minutes).toBe(12);
  played = listenOn(played, false, 1, 2);
  expect(played).toEqual({ minutes: 0, silentMinutes: 2 });
});
