/** What is chosen by keys on the Riffs screen: strums one by one, together, alike or in doubt, strings, riffs, sections, variations. */
import { computed, inject, Injectable } from '@angular/core';
import { passTicksToSeconds, type Strum } from '@wild-needle/core/riff';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { variationLabel } from '../../../shared/difference-words';
import { Say } from '../../../shared/say';
import { counted } from '../../../shared/words';
import { Player } from '../../../transport/player';
import { Lane } from '../view/lane';
import { RiffView } from '../view/riff-view';

@Injectable()
export class Choosing {
  private readonly song = inject(OpenSongStore);
  private readonly view = inject(RiffView);
  private readonly lane = inject(Lane);
  private readonly player = inject(Player);
  private readonly said = inject(Say);

  readonly riffs = computed(() => this.song.written()?.riffs ?? []);
  /** Sections that play the chosen riff. */
  readonly sections = computed(() => {
    const riffId = this.song.riffId();
    return (this.song.document()?.sections ?? []).filter((s) => s.riffId === riffId);
  });
  readonly variations = computed(() => {
    const riff = this.riffs().find((r) => r.id === this.song.riffId());
    return (riff?.variations ?? []).map((v) => ({ id: v.id, label: variationLabel(riff!, v) }));
  });

  /** The string above or below, of the chosen strum or place. */
  chooseString(by: 1 | -1): void {
    const count = this.view.tuning().stringsMidi.length;
    const string = this.song.string() ?? (by > 0 ? 0 : count + 1);
    this.song.selectString(Math.max(1, Math.min(count, string + by)));
  }

  /** The chosen strum stays chosen while others are walked to. */
  pick(): void {
    const strumId = this.song.strumId();
    if (strumId !== null) this.song.pick([strumId]);
  }

  /** All strums of the riff that press what the chosen one presses. */
  selectAlike(): void {
    const strum = this.song.strum();
    if (!strum) return;
    const pressed = (s: Strum): string =>
      `${s.dead}${s.rest}${s.frets.map((f) => `${f.string}/${f.fret}`).join()}`;
    const alike = (this.song.riff()?.strums ?? []).filter((s) => pressed(s) === pressed(strum));
    this.song.selectStrum(strum.id);
    this.song.pick(alike.map((s) => s.id));
    this.said.say(`${counted(alike.length, 'strum')} like this one`);
  }

  /** The next strum that is guessed, or on which the recording does not agree. */
  nextDoubt(by: 1 | -1): void {
    const strums = this.shownStrums();
    const doubtful = new Set(
      this.view
        .heardPasses()
        .flatMap(({ comparison }) =>
          comparison.verdicts.filter((v) => v.verdict !== 'agrees').map((v) => v.strumId),
        ),
    );
    const at = strums.findIndex((s) => s.id === this.song.strumId());
    const around = strums.map(
      (_, i) => strums[(((at + by * (i + 1)) % strums.length) + strums.length) % strums.length],
    );
    const next = around.find((s) => s.trust !== 'checked' && (s.trust !== 'heard' || doubtful.has(s.id)));
    if (next) this.goTo(next);
    else this.said.say('No strum of this riff is doubtful');
  }

  /** The riff before or after, by letter. */
  stepRiff(by: 1 | -1): void {
    const riffs = this.riffs();
    const at = riffs.findIndex((r) => r.id === this.song.riffId()) + by;
    if (riffs[at]) this.song.selectRiff(riffs[at].id);
  }

  /** The section before or after that plays the chosen riff. */
  stepSection(by: 1 | -1): void {
    const sections = this.sections();
    const at = sections.findIndex((s) => s.id === this.song.sectionId()) + by;
    if (sections[at]) this.song.selectRiff(this.song.riffId(), sections[at].id);
  }

  /** As written, and each variation in turn. */
  nextVariation(): void {
    const ids = [null, ...this.variations().map((v) => v.id)];
    if (ids.length === 1) this.said.say('This riff has no variation');
    else this.song.selectVariation(ids[(ids.indexOf(this.song.variationId()) + 1) % ids.length]);
  }

  /** From the lowest string up. */
  nextString(): void {
    const count = this.view.tuning().stringsMidi.length;
    const string = this.song.string() ?? 1;
    this.song.selectString(string === 1 ? count : string - 1);
  }

  private shownStrums(): readonly Strum[] {
    const shown = this.view.shownIds();
    return (this.song.riff()?.strums ?? []).filter((s) => shown.has(s.id));
  }

  /** Chooses one strum more, or one less. */
  extendSelection(step: 1 | -1): void {
    const strums = this.shownStrums();
    const next = strums[strums.findIndex((s) => s.id === this.song.strumId()) + step];
    if (next && this.song.strumId() !== null) this.song.selectTo(next.id);
  }

  /** The strum before or after, round and round. */
  stepStrum(step: 1 | -1): void {
    const strums = this.shownStrums();
    if (strums.length === 0) return;
    // Without a strum the walk goes on from where the needle stands.
    const place = this.song.placeTicks() ?? (this.song.strumId() === null ? this.lane.needleTicks() : null);
    const at =
      place === null
        ? strums.findIndex((s) => s.id === this.song.strumId())
        : strums.findLastIndex((s) => s.startTicks < place) + (step < 0 ? 1 : 0);
    this.goTo(strums[(at + step + strums.length) % strums.length]);
  }

  private goTo(next: Strum): void {
    this.song.selectStrum(next.id, true);
    // The needle goes along while it rests; while it plays it keeps its place.
    const pass = this.view.passHere() ?? this.song.passes()[0];
    const grid = this.song.document()?.grid;
    if (pass && grid && !this.player.playing()) {
      this.player.seek(passTicksToSeconds(pass, grid, next.startTicks));
    }
  }

  /** The needle goes to the pass before or after. */
  stepPass(step: 1 | -1): void {
    const passes = this.song.passes();
    const index = (this.view.passHere()?.index ?? (step > 0 ? -1 : 0)) + step;
    const pass = passes[Math.min(passes.length - 1, Math.max(0, index))];
    if (pass) this.player.seek(pass.startS);
  }
}
