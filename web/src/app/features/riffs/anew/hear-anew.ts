/** Measuring the loop or the song again, and walking through what that suggests for the tab. */
import { computed, inject, Injectable } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { HeardAgain } from '../../../open-song/heard-again';
import { ListenAgain } from '../../../open-song/listen-again';
import { OpenSongStore } from '../../../open-song/open-song.store';
import { suggestionWords } from '../../../shared/difference-words';
import { Say } from '../../../shared/say';
import { counted } from '../../../shared/words';
import { Player } from '../../../transport/player';
import { RiffView } from '../view/riff-view';

@Injectable()
export class HearAnew {
  private readonly song = inject(OpenSongStore);
  private readonly player = inject(Player);
  private readonly listening = inject(ListenAgain);
  private readonly heardAgain = inject(HeardAgain);
  private readonly view = inject(RiffView);
  private readonly said = inject(Say);
  private readonly snackBar = inject(MatSnackBar);

  /** Open suggestions for the shown riff, in order of their places. */
  private readonly open = computed(() => this.heardAgain.byRiff().get(this.song.riffId() ?? '') ?? []);

  /** The one that the keys answer, in words. */
  readonly asked = computed(() => {
    const [riff, document, [first]] = [this.song.riff(), this.song.written(), this.open()];
    if (!riff || !document || !first) return null;
    const { passes, of, stroke } = first;
    const sure = stroke ? `, ${Math.round(100 * stroke.confidence)} % sure` : '';
    return {
      words: suggestionWords(riff, first, document.tuning, this.view.key()),
      measured: of === 1 ? `measured again${sure}` : `measured again, in ${passes} of ${of} passes${sure}`,
      count: this.open().length,
    };
  });

  /** Other riffs with open suggestions. */
  readonly elsewhere = computed(() => {
    const [here, byRiff] = [this.song.riffId(), this.heardAgain.byRiff()];
    return (this.song.document()?.riffs ?? []).flatMap(({ id, letter }) => {
      const count = byRiff.get(id)?.length ?? 0;
      return id === here || count === 0 ? [] : [{ id, letter, count }];
    });
  });

  /** Hears the loop, or the whole song, once more; see ListenAgain. */
  async listen(): Promise<void> {
    if (!this.song.analysis() || this.listening.progress()) return;
    const loop = this.player.loop();
    try {
      const heard = await this.listening.start(loop, this.player.hearing());
      if (heard === null) return;
      const where = loop ? 'in the loop' : 'in the song';
      const { changed } = heard;
      const said =
        changed === 0 ? `Heard the same ${where}` : `${counted(changed, 'strum')} heard anew ${where}`;
      this.snackBar
        .open(said, changed === 0 ? undefined : 'Back', { duration: 8000, panelClass: 'above-deck' })
        .onAction()
        .subscribe(() => heard.undo());
    } catch {
      this.said.say('The recording could not be heard again; is the server still there?');
    }
  }

  /** Writes the one that is asked about, and shows the next. */
  take(): void {
    const [first, next] = this.open();
    if (!this.isAsking()) return;
    this.heardAgain.take(first);
    this.show(next);
  }

  takeAll(): void {
    this.heardAgain.take(...this.open());
  }

  leave(): void {
    const [first, next] = this.open();
    if (!this.isAsking()) return;
    this.heardAgain.leave(first);
    this.show(next);
  }

  /** Chooses the strum that is asked about, or the place where one was heard. */
  show(suggestion = this.open().at(0)): void {
    if (!suggestion) return;
    if (suggestion.strumId !== null) this.song.selectStrum(suggestion.strumId);
    else this.song.selectPlace(suggestion.ticks);
  }

  private isAsking(): boolean {
    if (this.open().length === 0) this.said.say('Nothing that was measured again is open in this riff');
    return this.open().length > 0;
  }
}
