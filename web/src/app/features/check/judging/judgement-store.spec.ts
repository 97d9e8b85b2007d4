import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import { beforeEach, describe, expect, it } from 'vitest';
import { JUDGE_VERSION } from '@wild-needle/core/check';
import { setFrets, setReferenceCents } from '@wild-needle/core/riff';
import { judged, SONG } from '../../../tab/test-song';
import { JudgementStore, KEPT_VERSION } from './judgement-store';

describe('judgements that are kept', () => {
  let store: JudgementStore;
  beforeEach(() => {
    store = TestBed.inject(JudgementStore);
  });

  it('are there again for the same song', async () => {
    await store.keep('recording/1', SONG, judged());
    expect(await store.kept('recording/1', SONG)).toEqual(judged());
  });

  it('are not shown for another recording, nor once anything that they depend on has changed', async () => {
    await store.keep('recording/1', SONG, judged());
    expect(await store.kept('recording/2', SONG)).toBeNull();
    const written = setFrets(SONG, 'a', new Set(['s1']), [{ string: 6, fret: 6 }]);
    expect(await store.kept('recording/1', written)).toBeNull();
    expect(await store.kept('recording/1', setReferenceCents(SONG, 40))).toBeNull();
  });

  it('are those of this judge', () => {
    expect(KEPT_VERSION).toBe(JUDGE_VERSION);
  });
});
