/** The sections as the screen tells them: where they are, what they play, how their passes compare, what is asked about them. */
import { computed, inject, Injectable } from '@angular/core';
import {
  barsPerPass,
  beginSection,
  checkedBySection,
  passesWords,
  sectionBars,
  sectionTimesS,
  type Section,
} from '@wild-needle/core/riff';
import type { Key } from '@wild-needle/core/theory';
import { clock } from '@wild-needle/core/units';
import { HeardPasses } from '../../open-song/heard-passes';
import { OpenSongStore } from '../../open-song/open-song.store';
import { PassAnswers } from '../../open-song/pass-answers';
import { passWords } from '../../shared/difference-words';
import { counted, movedBy } from '../../shared/words';
import type { MapBlock } from './map-geometry';
import {
  comparePassesInWords,
  heightWords,
  keyWords,
  likenessWords,
  startDoubt,
  tempoWords,
} from './section-words';

/** A section of the analysis begins at most this much beside the written one of the same key. */
const SAME_PLACE_S = 0.5;
/** A section that begins this near to one of the analysis is as it was suggested. */
const SAME_START_S = 0.05;

/** Where passes begin behind the first, as shares of the section. */
function notchesOf({ riffId, passes, skipBars }: Section, perPass: number, bars: number): number[] {
  if (riffId === null) return [];
  return Array.from({ length: passes - 1 }, (_, i) => ((i + 1) * perPass - skipBars) / bars);
}

/** How much of a section was checked, in words and as a share; nothing where nothing is written. */
function checkedWords(count: { readonly checked: number; readonly of: number } | undefined): {
  readonly checkedShare: number | null;
  readonly checkedWords: string;
} {
  if (!count) return { checkedShare: null, checkedWords: '' };
  const share = count.checked / count.of;
  return { checkedShare: share, checkedWords: `${Math.floor(100 * share)} %` };
}

@Injectable()
export class SectionRows {
  private readonly song = inject(OpenSongStore);
  private readonly heardPasses = inject(HeardPasses);
  private readonly answers = inject(PassAnswers);

  readonly rows = computed(() => {
    const document = this.song.document();
    if (!document) return [];
    const analysed = this.song.analysis()?.sections ?? [];
    const heard = this.heardPasses.byRiff();
    const checked = checkedBySection(document);
    const keyAt = (timeS: number): Key | null =>
      analysed.find((s) => timeS + SAME_PLACE_S >= s.startS && timeS + SAME_PLACE_S < s.endS)?.key ?? null;
    return document.sections.flatMap((section) => {
      const riff = document.riffs.find((r) => r.id === section.riffId) ?? null;
      const times = sectionTimesS(document, section);
      if (!times) return [];
      const { startS, endS } = times;
      const inside = riff ? (heard.get(riff.id) ?? []).filter((p) => p.pass.sectionId === section.id) : [];
      const bars = sectionBars(document, section);
      const perPass = barsPerPass(document, section);
      const suggested = analysed.find((s) => Math.abs(s.startS - startS) < SAME_START_S);
      const doubt = suggested && !section.startIsConfirmed ? startDoubt(suggested) : null;
      const otherBar = section.startBar + (doubt?.orElseBars ?? 0);
      const likeness = suggested && riff ? likenessWords(suggested, riff.letter) : '';
      const played = riff ? `riff ${riff.letter}` : 'no riff';
      return [
        {
          ...section,
          startS,
          endS,
          start: clock(startS),
          end: clock(endS),
          bars,
          endBar: section.startBar + bars,
          letter: riff?.letter ?? '',
          notches: notchesOf(section, perPass, bars),
          moved: riff ? movedBy(section.transpose) : '',
          height: heightWords(section.transpose),
          played: riff ? passesWords(document, section) : '',
          verdict: comparePassesInWords(inside, document.key, riff !== null),
          isChosen: section.id === this.song.sectionId(),
          keyName: keyWords(section.key ?? keyAt(startS) ?? document.key),
          tempo: tempoWords(document.grid, startS, endS),
          toDo: riff?.barNotes.filter((n) => n.todo).length ?? 0,
          doubt,
          // Null where the neighbours leave no room for it.
          otherBar: beginSection(document, section.id, otherBar) === document ? null : otherBar,
          // Came in as a label over bars that nothing was written for: the user says what it is.
          isUnnamed: riff === null && !section.startIsConfirmed,
          // What was heard there is no riff, but it can be written down.
          isLone: riff === null && suggested?.returns === false,
          ...checkedWords(checked.get(section.id)),
          facts: [counted(bars, 'bar'), played, likeness].filter((f) => f !== '').join(', '),
        },
      ];
    });
  });

  readonly chosen = computed(() => this.rows().find((row) => row.isChosen) ?? null);

  /** The first pass of the chosen section that differs without an answer. */
  readonly asked = computed(() => {
    const row = this.chosen();
    const passes = this.heardPasses.byRiff().get(row?.riffId ?? '') ?? [];
    const pass = passes.find((p) => p.pass.sectionId === row?.id && p.isAsking);
    if (!pass) return null;
    return {
      ...pass,
      name: this.answers.nameFor(pass),
      words: passWords(pass, this.song.document()?.key ?? null),
    };
  });

  readonly blocks = computed((): MapBlock[] =>
    this.rows().map((row) => ({
      ...row,
      isDoubtful: row.verdict.kind === 'differ' || row.doubt !== null || row.isUnnamed,
    })),
  );
}
