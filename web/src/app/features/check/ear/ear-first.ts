/**
 * Ear first: what is written and heard at a question stays covered until the ear has named root and kind. What was named is kept, right
 * or wrong, so that the ear can be seen to get better.
 */
import { computed, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import { EAR_KINDS, type EarKind } from '@wild-needle/contract';
import { soundingNote, type StringFret } from '@wild-needle/core/guitar';
import { nameNotes, pitchClassOf, spellPitchClass } from '@wild-needle/core/theory';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { guessesActions } from '../../../state/guesses/guesses.actions';
import { settingsActions } from '../../../state/settings/settings.actions';
import { settingsFeature } from '../../../state/settings/settings.reducer';
import { CheckWalk } from '../walk/check-walk';
import type { Question } from '../walk/questions';
import { namedBy, scoreOf, type Named } from './chord-kinds';

/** The neck that is guessed on. */
export const LAST_FRET = 12;

/** What it was: what is heard where the recording contradicts the tab, else what is written. Null for what has no name to guess. */
export function truthOf({ verdict, heard, midi }: Question): Named | null {
  // Whether anything is struck there is not a question of its name.
  if (verdict === 'missing' || verdict === 'unchecked') return null;
  const contradicts = verdict === 'clashes' || verdict === 'doubtful';
  return namedBy(contradicts && heard && heard.midi.length > 0 ? heard.midi : midi);
}

@Injectable()
export class EarFirst {
  private readonly store = inject(Store);
  private readonly song = inject(OpenSongStore);
  private readonly walk = inject(CheckWalk);
  readonly isOn = this.store.selectSignal(settingsFeature.selectEarFirst);
  private readonly openedId = signal<string | null>(null);
  private readonly chosenId = computed(() => this.walk.chosen()?.id ?? null);

  /** What is guessed; begins anew with each question, and the string stays. */
  readonly place = linkedSignal<string | null, StringFret>({
    source: this.chosenId,
    computation: (_, before) => ({
      string: before?.value.string ?? this.walk.tuning().stringsMidi.length,
      fret: 0,
    }),
  });
  readonly kind = linkedSignal<string | null, EarKind>({
    source: this.chosenId,
    computation: () => 'three-strings',
  });
  /** One line about the last guess, while its question is looked at. */
  readonly result = linkedSignal<string | null, string>({ source: this.chosenId, computation: () => '' });

  readonly isCovered = computed(() => {
    const question = this.walk.chosen();
    if (!this.isOn() || question?.settled !== null) return false;
    return question.id !== this.openedId() && truthOf(question) !== null;
  });

  private readonly rootPc = computed(() => pitchClassOf(soundingNote(this.walk.tuning(), this.place())));
  readonly rootName = computed(() => spellPitchClass(this.rootPc(), this.walk.key()));
  /** What is guessed, as large as a chord. */
  readonly name = computed(() => this.nameOf({ rootPc: this.rootPc(), kind: this.kind() }));

  switch(): void {
    this.store.dispatch(settingsActions.earFirstSwitched({ earFirst: !this.isOn() }));
  }

  setKind(index: number): void {
    const kind = EAR_KINDS.at(index);
    if (kind) this.kind.set(kind);
  }

  /** Along the neck and across the strings, as far as they go. */
  move(frets: number, strings: number): void {
    const count = this.walk.tuning().stringsMidi.length;
    this.place.update(({ string, fret }) => ({
      string: Math.min(count, Math.max(1, string + strings)),
      fret: Math.min(LAST_FRET, Math.max(0, fret + frets)),
    }));
  }

  /** The guess stands, and what was heard is shown. */
  guess(now: Date): void {
    const [question, songId] = [this.walk.chosen(), this.song.songId()];
    const heard = question && truthOf(question);
    if (!question || !heard || songId === null) return;
    const guessed = { rootPc: this.rootPc(), kind: this.kind() };
    this.store.dispatch(
      guessesActions.chordGuessed({
        guess: {
          ...{ id: crypto.randomUUID(), at: now.toISOString(), songId, place: question.id },
          ...{ guessed, heard },
        },
      }),
    );
    this.uncover();
    const score = scoreOf(guessed, heard);
    const said = `You said ${this.nameOf(guessed)}`;
    this.result.set(
      score === 1
        ? `${said}: right.`
        : `${said}, ${score === 0.5 ? 'the root is right; ' : ''}it was ${this.nameOf(heard)}.`,
    );
  }

  /** Shows what was heard; without a guess it is not counted. */
  uncover(): void {
    this.openedId.set(this.chosenId());
  }

  private nameOf({ rootPc, kind }: Named): string {
    const key = this.walk.key();
    const root = 48 + rootPc;
    const notes: Partial<Record<EarKind, number[]>> = {
      'two-strings': [root, root + 7],
      'three-strings': [root, root + 7, root + 12],
      'fifth-below': [root - 5, root],
      'flat-five': [root, root + 6],
      octave: [root, root + 12],
      sus2: [root, root + 2, root + 7],
      sus4: [root, root + 5, root + 7],
      major: [root, root + 4, root + 7],
      minor: [root, root + 3, root + 7],
      single: [root],
    };
    return nameNotes(notes[kind] ?? [root], key).symbol;
  }
}
