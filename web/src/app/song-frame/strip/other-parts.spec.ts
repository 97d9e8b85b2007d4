import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { describe, expect, it } from 'vitest';
import { timeMapOf } from '@wild-needle/core/alignment';
import { HeardIn } from '../../open-song/heard-in';
import { OtherParts } from './other-parts';
import { StripView } from './strip-view';

/** Ten pixels a second of a song of 100 s. */
const VIEW = { percentOf: (timeS: number) => timeS, xOf: (timeS: number) => 10 * timeS };

function shown(other: unknown): HTMLElement {
  TestBed.resetTestingModule().configureTestingModule({
    providers: [
      { provide: HeardIn, useValue: { other: signal(other) } },
      { provide: StripView, useValue: VIEW },
    ],
  });
  const fixture = TestBed.createComponent(OtherParts);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

describe('parts that only one recording has', () => {
  it('lie where they are left out, and where they come in', () => {
    // From 20 s to 30 s is not in the other one; after 60 s it has eight seconds of its own.
    const runs = [
      [
        [0, 0],
        [20, 20],
      ],
      [
        [30, 20],
        [60, 50],
      ],
      [
        [60.001, 58],
        [100, 98],
      ],
    ] as const;
    const map = timeMapOf({ runs }, { referenceS: 100, otherS: 98 });
    const strip = shown({ map });
    const [leftOut] = strip.querySelectorAll<HTMLElement>('.left-out');
    expect([leftOut?.style.left, leftOut?.style.width]).toEqual(['20%', '10%']);
    const [added] = strip.querySelectorAll<HTMLElement>('.added');
    expect(parseFloat(added?.style.left ?? '')).toBeCloseTo(600, 0);
    expect(added?.textContent.trim()).toBe('+8 s');
  });

  it('are none while the reference sounds', () => {
    expect(shown(null).querySelectorAll('div')).toHaveLength(0);
  });
});
