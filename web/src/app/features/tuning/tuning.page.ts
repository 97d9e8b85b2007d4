/** Settle pitch and tuning: how far the recording is off, which tuning could have played it, and the strings of it. */
import type { OnDestroy } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatRadioModule } from '@angular/material/radio';
import { MatMenuModule } from '@angular/material/menu';
import { MatSelectModule } from '@angular/material/select';
import { ActivatedRoute, Router } from '@angular/router';
import { Store } from '@ngrx/store';
import {
  describeStrings,
  SCALES_MM,
  STRING_SETS,
  TUNINGS,
  tuningLabel,
  type Tuning,
} from '@wild-needle/core/guitar';
import {
  allLostNotes,
  leaveOutLost,
  retune,
  setReferenceCents,
  setTuneTo,
  type LostNotes,
  type SongDocument,
} from '@wild-needle/core/riff';
import { spellingKey, type Spelling } from '@wild-needle/core/theory';
import { Tuner, type TunerInput } from './tuner/tuner';
import { OpenSongStore } from '../../open-song/open-song.store';
import { GuitarSwitch } from '../../shared/guitar-switch';
import { Icon } from '../../shared/icon';
import { historyHandlers } from '../../shared/history-keys';
import { runScreenKey, type KeyHandlers } from '../../shared/key-map';
import { ScreenKeys } from '../../shared/screen-keys';
import { TUNING_KEYS } from './tuning-keys';
import { placeWords } from '../../shared/difference-words';
import { HistoryButtons } from '../../shared/history-buttons';
import { noteNames } from '../../shared/note-name';
import { counted } from '../../shared/words';
import { settingsActions } from '../../state/settings/settings.actions';
import { settingsFeature } from '../../state/settings/settings.reducer';
import { PitchMeter } from './pitch-meter';
import { StringTable, type HeardString } from './string-table';
import {
  betweenWords,
  correctionWords,
  driftWords,
  isWithoutPitch,
  reasonWords,
  retuningWords,
  sharpOrFlat,
  spreadWords,
} from './tuning-words';

const STRING_WORDS = ['Four strings', 'Five strings', 'Six strings', 'Seven strings', 'Eight strings'];
/** A string further off than this is another one. */
const SAME_STRING_CENTS = 350;
/** A further string is tuned a fourth under the lowest, as those before it. */
const FOURTH = 5;

/** Same strings, same capo. */
const idOf = ({ stringsMidi, capo }: Tuning): string => `${stringsMidi.join()}/${capo}`;

@Component({
  selector: 'wn-tuning-page',
  imports: [
    GuitarSwitch,
    HistoryButtons,
    Icon,
    MatButton,
    MatButtonToggleModule,
    MatFormFieldModule,
    MatMenuModule,
    MatRadioModule,
    MatSelectModule,
    PitchMeter,
    StringTable,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(window:keydown)': 'onKey($event)' },
  templateUrl: './tuning.page.html',
  styleUrl: './tuning.page.scss',
})
export class TuningPage implements OnDestroy {
  protected readonly song = inject(OpenSongStore);
  protected readonly tuner = inject(Tuner);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  protected readonly spelling = this.store.selectSignal(settingsFeature.selectSpelling);
  protected readonly stringSet = this.store.selectSignal(settingsFeature.selectStringSet);
  protected readonly scaleMm = this.store.selectSignal(settingsFeature.selectScaleMm);
  protected readonly keys = TUNING_KEYS;
  protected readonly stringSets = STRING_SETS;
  protected readonly scales = SCALES_MM.map((mm) => ({
    mm,
    label: `${(mm / 25.4).toFixed(2)} in, ${Math.round(mm)} mm`,
  }));
  protected readonly key = computed(() => spellingKey(this.song.document()?.key ?? null, this.spelling()));
  protected readonly scaleText = computed(() => `${Math.round(this.scaleMm())} mm`);
  protected readonly named = TUNINGS;
  protected readonly sharpOrFlat = sharpOrFlat;
  /** What the tuning can't play of what is written. */
  protected readonly lost = computed(() => {
    const document = this.song.written();
    return document ? allLostNotes(document) : [];
  });

  private readonly analysis = this.song.analysis;
  protected readonly cents = computed(() => this.song.document()?.referenceOffsetCents ?? 0);
  protected readonly centsText = computed(() => {
    const cents = Math.round(this.cents());
    return cents > 0 ? `+${cents}` : String(cents).replace('-', '−');
  });
  protected readonly histogram = computed(() => this.analysis()?.referenceHistogram ?? []);
  protected readonly partials = computed(() => {
    const count = this.analysis()?.referencePartials ?? 0;
    return count > 0
      ? `${count.toLocaleString('en').replaceAll(',', ' ')} overtones measured`
      : 'A at 440 Hz';
  });
  private readonly spreadCents = computed(() => this.analysis()?.referenceSpreadCents ?? 0);
  protected readonly spread = computed(() => spreadWords(this.spreadCents()));
  protected readonly withoutPitch = computed(() => isWithoutPitch(this.spreadCents()));
  protected readonly drift = computed(() => driftWords(this.analysis()?.referenceOverTime ?? []));
  protected readonly unsettled = computed(() => this.analysis()?.referenceIsUnsettled ?? false);
  protected readonly between = computed(() => {
    const document = this.song.written();
    return document && betweenWords(this.cents(), document.tuning.stringsMidi[0] % 12, document.key);
  });
  protected readonly correction = computed(() => correctionWords(this.cents()));
  protected readonly retuning = computed(() => retuningWords(this.cents()));

  protected readonly candidates = computed(() => {
    const [document, analysis] = [this.song.written(), this.analysis()];
    const ranked = (analysis?.tuning.candidates ?? []).slice(0, 3).map((candidate) => ({
      id: idOf(candidate),
      tuning: { name: candidate.name, stringsMidi: candidate.stringsMidi, capo: candidate.capo },
      label: tuningLabel(candidate),
      reason: reasonWords(candidate),
      ease: 100 * Math.max(candidate.reasons?.oneFingerShare ?? 0, candidate.reasons?.openShare ?? 0),
      score: String(Math.round(100 * candidate.score)),
    }));
    if (!document || ranked.some((r) => r.id === idOf(document.tuning))) return ranked;
    const own = document.tuning;
    return [
      ...ranked,
      { id: idOf(own), tuning: own, label: tuningLabel(own), reason: 'Your own choice.', ease: 0, score: '' },
    ];
  });
  protected readonly chosen = computed(() => {
    const document = this.song.written();
    return document ? idOf(document.tuning) : null;
  });
  protected readonly strings = computed(() => {
    const document = this.song.written();
    if (!document) return [];
    const offsetCents = document.tuneTo === 'recording' ? document.referenceOffsetCents : 0;
    return describeStrings(document.tuning, {
      offsetCents,
      gauges: STRING_SETS.find((s) => s.name === this.stringSet())?.gauges,
      scaleMm: this.scaleMm(),
    });
  });
  protected readonly stringWords = computed(
    () => STRING_WORDS[this.strings().length - 4] ?? `${this.strings().length} strings`,
  );
  protected readonly lostWords = computed(() => {
    const notes = this.lost().reduce((sum, l) => sum + l.notes.length, 0);
    return `${counted(notes, 'note')} of ${counted(this.lost().length, 'strum')} can't be played so. Another tuning brings them back.`;
  });
  protected readonly heard = computed((): HeardString | null => {
    const freqHz = this.tuner.freqHz();
    if (freqHz === null) return null;
    const nearest = this.strings()
      .map(({ string, freqHz: target }) => ({ string, cents: 1200 * Math.log2(freqHz / target) }))
      .sort((a, b) => Math.abs(a.cents) - Math.abs(b.cents))[0];
    return nearest && Math.abs(nearest.cents) < SAME_STRING_CENTS ? nearest : null;
  });
  protected readonly tunerHint = computed(() => {
    const dropped = this.strings().find((low, i) => this.strings()[i + 2]?.midi === low.midi + 12);
    const octave = dropped
      ? ` String ${dropped.string} sounds an octave under string ${dropped.string - 2}: compare both by ear.`
      : '';
    const strike =
      this.tuner.input() === 'simulated' ? 'Press a string number to strike it.' : 'Play one string.';
    return `${strike}${octave}`;
  });

  ngOnDestroy(): void {
    this.tuner.stop();
  }

  constructor() {
    inject(ScreenKeys).show(TUNING_KEYS);
  }

  private readonly handlers: KeyHandlers<typeof TUNING_KEYS> = {
    correct: () => this.tuneTo('concert'),
    retune: () => this.tuneTo('recording'),
    soundAll: () => this.soundTargets(),
    otherGuitar: () => this.song.selectGuitar(this.song.guitar() === 1 ? 2 : 1),
    ...historyHandlers(this.song),
  };

  protected onKey(event: KeyboardEvent): void {
    runScreenKey(TUNING_KEYS, this.handlers, event);
  }

  protected tuneTo(what: SongDocument['tuneTo']): void {
    this.song.change((document) => setTuneTo(document, what));
  }

  /** The same record read as the note on the other side of the quarter tone. */
  protected takeOtherSide(): void {
    this.song.change((document) =>
      setReferenceCents(
        document,
        document.referenceOffsetCents + (document.referenceOffsetCents > 0 ? -100 : 100),
      ),
    );
  }

  protected choose(tuning: Tuning): void {
    const document = this.song.written();
    if (!document || idOf(document.tuning) === idOf(tuning)) return;
    this.song.changeWritten((written) => retune(written, tuning));
  }

  /** 'Riff A, bar 1, 2 &: E2', with the variation that it stands in. */
  protected lostWordsOf({ riff, variation, ticks, notes }: LostNotes): string {
    const where = variation === null ? `Riff ${riff.letter}` : `Riff ${riff.letter}, “${variation}”`;
    return `${where}, ${placeWords(riff, ticks)}: ${noteNames(notes, this.key())}`;
  }

  /** To the strum, where it can be written otherwise. */
  protected goTo({ riff, strumId }: LostNotes): void {
    const variation = riff.variations.find((v) => v.strums.some((s) => s.id === strumId));
    this.song.selectRiff(riff.id);
    this.song.selectVariation(variation?.id ?? null);
    this.song.selectStrum(strumId);
    void this.router.navigate(['../riffs'], { relativeTo: this.route });
  }

  protected leaveOut(): void {
    this.song.changeWritten(leaveOutLost);
  }

  protected chooseNamed(name: string): void {
    const known = TUNINGS.find((t) => t.name === name);
    if (known)
      this.choose({ name, stringsMidi: [...known.strings], capo: this.song.written()?.tuning.capo ?? 0 });
  }

  protected moveCapo(by: 1 | -1): void {
    const tuning = this.song.written()?.tuning;
    if (tuning) this.choose({ ...tuning, capo: tuning.capo + by });
  }

  protected moveString({ string, by }: { string: number; by: 1 | -1 }): void {
    const tuning = this.song.written()?.tuning;
    if (!tuning) return;
    const index = tuning.stringsMidi.length - string;
    this.chooseStrings(tuning.stringsMidi.map((midi, i) => (i === index ? midi + by : midi)));
  }

  protected addString(): void {
    const strings = this.song.written()?.tuning.stringsMidi ?? [];
    this.chooseStrings([strings[0] - FOURTH, ...strings]);
  }

  protected removeString(): void {
    this.chooseStrings(this.song.written()?.tuning.stringsMidi.slice(1) ?? []);
  }

  protected setGuitar(stringSet: string, scaleMm: number): void {
    this.store.dispatch(settingsActions.stringsChosen({ stringSet, scaleMm }));
  }

  protected spell(spelling: Spelling): void {
    this.store.dispatch(settingsActions.spellingChosen({ spelling }));
  }

  protected soundTargets(): void {
    void this.tuner.soundTargets(this.strings().map((s) => s.freqHz));
  }

  protected sound(string: number): void {
    const target = this.strings().find((s) => s.string === string);
    if (!target) return;
    if (this.tuner.input() === 'simulated') this.tuner.strike(string, target.freqHz);
    else void this.tuner.soundTargets([target.freqHz]);
  }

  protected turnPeg({ string, by }: { string: number; by: 1 | -1 }): void {
    const target = this.strings().find((s) => s.string === string);
    if (target) this.tuner.turnPeg(string, by, target.freqHz);
  }

  protected useTuner(input: TunerInput): void {
    if (input === 'off') this.tuner.stop();
    else void this.tuner.start(input);
  }

  private chooseStrings(stringsMidi: readonly number[]): void {
    const known = TUNINGS.find((t) => t.strings.join() === stringsMidi.join());
    this.choose({ name: known?.name ?? 'custom', stringsMidi, capo: this.song.written()?.tuning.capo ?? 0 });
  }
}
