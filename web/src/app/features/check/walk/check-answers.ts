/** The answers to what is asked: what they write, which of them comes first, and what else they are an answer to. */
import { computed, inject, Injectable, signal } from '@angular/core';
import {
  changePassTo,
  changeRiffTo,
  fretsNear,
  keepWritten,
  leaveDoubtful,
  type AskedPlace,
  type Instead,
} from '@wild-needle/core/draft';
import type { StringFret } from '@wild-needle/core/guitar';
import {
  quantise,
  secondsToPassTicks,
  setStrumNote,
  type SongDocument,
  strumNotes,
} from '@wild-needle/core/riff';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { nextVariationName } from '../../../shared/difference-words';
import { Say } from '../../../shared/say';
import { CheckWalk } from './check-walk';
import { writtenNotes } from './question-words';
import { inOtherPasses, isOpen, placeOf, sameElsewhere, type Question } from './questions';

export type AnswerKind = 'keep' | 'pass' | 'riff' | 'doubtful';

/** The same question elsewhere, and the answer that was given here. */
interface Also {
  readonly answer: AnswerKind;
  readonly questions: readonly Question[];
  readonly given: Question;
}

/** From here on it is rather written wrong than right. */
const RATHER_WRONG = 0.5;

const newId = (): string => crypto.randomUUID();

@Injectable()
export class CheckAnswers {
  private readonly song = inject(OpenSongStore);
  private readonly walk = inject(CheckWalk);
  private readonly said = inject(Say);
  private readonly alsoSignal = signal<Also | null>(null);
  /** Where each step that can be undone was. */
  private readonly trail: { readonly made: SongDocument | null; readonly id: string }[] = [];

  readonly also = this.alsoSignal.asReadonly();
  /** Nothing was answered yet since the page was opened. */
  readonly isFirst = signal(true);

  /** The same strum in the other passes, and how many of those that were compared agree with what is written. */
  readonly passes = computed(() => {
    const question = this.walk.chosen();
    const passes = question ? inOtherPasses(question, this.walk.all()) : [];
    const compared = passes.filter((q) => q.verdict !== 'unchecked');
    const agreeing = compared.filter((q) => q.verdict === 'agrees' || q.settled === 'kept');
    return { passes, compared: compared.length, agreeing: agreeing.length };
  });

  /** The answer that comes first. */
  readonly main = computed((): AnswerKind => {
    const question = this.walk.chosen();
    if (question?.settled === 'kept') return 'keep';
    if (question?.reason.kind === 'covered' && question.verdict !== 'agrees') return 'doubtful';
    // Where nothing agrees, what is heard is no better than what is written.
    if (question && question.doubt >= RATHER_WRONG && this.walk.isUnheard()) return 'doubtful';
    if (!question || question.doubt < RATHER_WRONG) return 'keep';
    if (question.strum === null) return 'pass';
    const { compared, agreeing } = this.passes();
    return 2 * agreeing > compared ? 'pass' : 'riff';
  });

  /** Why the answer can't be given; null when it can. */
  whyNot(answer: AnswerKind, question: Question): string | null {
    if (answer === 'keep' || answer === 'doubtful') return null;
    return question.verdict === 'unchecked' ? 'It was not compared with the recording yet' : null;
  }

  give(answer: AnswerKind): void {
    const question = this.walk.chosen();
    if (!question) return;
    const why = this.whyNot(answer, question);
    if (why) {
      this.said.say(why);
      return;
    }
    const before = [...this.walk.open(), ...this.walk.later()];
    const same = sameElsewhere(question, this.walk.all());
    if (!this.write(answer, [question])) {
      this.said.say(
        answer === 'keep' || answer === 'doubtful'
          ? 'That is settled already'
          : 'This tuning can’t play what is heard; write it by hand on Riffs',
      );
      return;
    }
    this.isFirst.set(false);
    // What is written into the riff is written for all of its passes.
    const others = answer === 'riff' ? same.filter((q) => isDifferentVariation(q, question)) : same;
    this.alsoSignal.set(
      others.length > 0 && answer !== 'doubtful' ? { answer, questions: others, given: question } : null,
    );
    this.trail.push({ made: this.song.document(), id: question.id });
    this.walk.nextAfter(question.id, before);
  }

  /** The last answer holds for the very same question elsewhere too. */
  giveAlso(): void {
    const also = this.alsoSignal();
    if (!also) {
      this.said.say('The same question stands nowhere else');
      return;
    }
    const open = new Set(
      this.walk
        .all()
        .filter(isOpen)
        .map((q) => q.id),
    );
    const questions = also.questions.filter((q) => open.has(q.id));
    const chosen = this.walk.chosen();
    const before = [...this.walk.open(), ...this.walk.later()];
    this.alsoSignal.set(null);
    if (!this.write(also.answer, questions)) return;
    this.trail.push({ made: this.song.document(), id: also.given.id });
    if (chosen && questions.some((q) => q.id === chosen.id)) this.walk.nextAfter(chosen.id, before);
  }

  /** Takes the last change back, and shows where it was. */
  undo(): void {
    const now = this.song.document();
    const last = this.trail.at(-1);
    this.alsoSignal.set(null);
    this.song.undo();
    if (last?.made !== now) return;
    this.trail.pop();
    this.walk.show(last.id);
  }

  note(text: string): void {
    const question = this.walk.chosen();
    const [riffId, strum] = [question?.section.riffId, question?.strum];
    if (riffId && strum) this.song.changeWritten((d) => setStrumNote(d, riffId, strum.id, text));
  }

  /** What takes the place of what is written, at the height that it is written at: what is doubted changes, the rest stays. */
  instead({ heard, strum, midi, pass, ticks, timeS, offsetS, reason }: Question): Instead {
    const lowered = (notes: readonly number[]): number[] => notes.map((note) => note - pass.transpose);
    const written = strum && { midi: lowered(midi), palmMuted: strum.palmMute, dead: strum.dead };
    if (reason.kind === 'not-heard' || !heard) return { heard: null, ticks };
    const there = { midi: lowered(heard.midi), palmMuted: heard.palmMuted, dead: heard.dead };
    const grid = this.song.document()?.grid;
    if (!written || written.dead || there.dead) return { heard: there, ticks };
    if (reason.kind === 'time' && grid && offsetS !== null) {
      return { heard: written, ticks: quantise([secondsToPassTicks(pass, grid, timeS + offsetS)])[0] };
    }
    return {
      heard:
        reason.kind === 'mute'
          ? { ...written, palmMuted: there.palmMuted }
          : { ...written, midi: there.midi },
      ticks,
    };
  }

  /** The frets that would be written; none for nothing, and for a dead stroke. */
  fretsInstead(question: Question): readonly StringFret[] {
    const { heard } = this.instead(question);
    if (!heard || heard.dead) return [];
    const hand = question.strum?.frets ?? [];
    const isSame =
      question.strum !== null && heard.midi.join() === writtenNotes(question, this.walk.tuning()).join();
    return isSame ? hand : fretsNear(heard.midi, hand, this.walk.tuning());
  }

  /** The frets of what is heard, whatever is changed of it. */
  fretsHeard({ heard, pass, strum }: Question): readonly StringFret[] {
    if (!heard || heard.dead) return [];
    const lowered = heard.midi.map((note) => note - pass.transpose);
    const written = strum && !strum.dead ? strumNotes(strum, this.walk.tuning()) : [];
    return strum && lowered.join() === written.join()
      ? strum.frets
      : fretsNear(lowered, strum?.frets ?? [], this.walk.tuning());
  }

  /** As one step of undo; false when it changes nothing. */
  private write(answer: AnswerKind, questions: readonly Question[]): boolean {
    const [first] = questions;
    if (!first) return false;
    const places = questions.map(placeOf);
    return this.song.changeWritten((document) => {
      switch (answer) {
        case 'keep':
          return keepWritten(document, places, (place) => this.agrees(place));
        case 'doubtful':
          return places.reduce((d, place) => leaveDoubtful(d, place), document);
        case 'riff':
          return questions.reduce((d, q) => changeRiffTo(d, placeOf(q), this.instead(q), newId), document);
        case 'pass':
          return questions.reduce((d, q) => this.varied(d, q), document);
      }
    });
  }

  /** The next free name; the very same variation is used again under its own, see `keepVariation`. */
  private varied(document: SongDocument, question: Question): SongDocument {
    const riff = document.riffs.find((r) => r.id === question.section.riffId) ?? question.riff;
    const name = nextVariationName(riff, false);
    return changePassTo(document, placeOf(question), this.instead(question), { name, newId });
  }

  private agrees({ sectionId, pass, ticks }: AskedPlace): boolean {
    return this.walk
      .all()
      .some(
        (q) =>
          q.section.id === sectionId && q.pass.index === pass && q.ticks === ticks && q.verdict === 'agrees',
      );
  }
}

/** Another variation of the riff is played there: what was written does not reach it. */
function isDifferentVariation(a: Question, b: Question): boolean {
  return a.strum?.id !== b.strum?.id;
}
