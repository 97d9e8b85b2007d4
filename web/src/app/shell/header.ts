/** Name of the open song, its tuning, whether it is saved, and the steps of the work. */
import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatChipsModule } from '@angular/material/chips';
import { MatIconButton } from '@angular/material/button';
import { MatTabsModule } from '@angular/material/tabs';
import { MatTooltip } from '@angular/material/tooltip';
import { Title } from '@angular/platform-browser';
import { NavigationEnd, Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { filter, map } from 'rxjs';
import { tuningLabel } from '@wild-needle/core/guitar';
import { checkedCount } from '@wild-needle/core/riff';
import { IN_TROUBLE, OpenSongStore, type SaveStatus } from '../open-song/open-song.store';
import { Icon } from '../shared/icon';
import { StepWalk, stepOf } from '../shared/step-walk';
import { STEPS } from './steps';
import { signedCents } from '../shared/words';
import { settingsActions } from '../state/settings/settings.actions';
import { settingsFeature } from '../state/settings/settings.reducer';

const SAVE_WORDS: Record<SaveStatus, string> = {
  saved: 'Saved',
  unsaved: 'Saving …',
  saving: 'Saving …',
  failing: 'Not saved, trying again',
  refused: 'Not saved: the song is refused as it is',
  conflict: 'Not saved: changed in another window',
  removed: 'Not saved: the song was removed',
};
/** Why it is tried again, where more is known than that there was no answer. */
const FAILURE_WORDS: Partial<Record<string, string>> = {
  unavailable: 'Not saved: waiting for the database',
  'disk-full': 'Not saved: the disk is full',
};
const KEPT = 'your work is kept on this computer';
const NOT_KEPT = 'this browser keeps no copy, so leave the window open';

@Component({
  selector: 'wn-header',
  imports: [Icon, MatChipsModule, MatIconButton, MatTabsModule, MatTooltip, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <a class="logo" routerLink="/songs" aria-label="Wild Needle, to the songs"
        ><wn-icon name="logo" [size]="30"
      /></a>
      @if (document(); as song) {
        <h1 class="display title">{{ song.title }}</h1>
        <span class="display artist">{{ song.artist }}</span>
        @if (tuning(); as label) {
          <mat-chip class="tuning" disableRipple>{{ label }}</mat-chip>
        }
        <span class="save" role="status" [class.trouble]="inTrouble()">
          <wn-icon [name]="inTrouble() ? 'doubt' : 'tick'" [size]="16" />{{ saveWords() }}
        </span>
        @if (songId(); as id) {
          <a
            mat-icon-button
            class="versions"
            matTooltip="Versions"
            aria-label="Versions of this song"
            [routerLink]="['/songs', id, 'versions']"
            (click)="letGo($event)"
          >
            <wn-icon name="versions" [size]="20" />
          </a>
        }
      } @else {
        <h1 class="display title">Wild Needle</h1>
      }
      <span class="gap"></span>
      <button
        mat-icon-button
        class="theme"
        [matTooltip]="'Look: ' + theme()"
        [attr.aria-label]="'Look: ' + theme() + '. Change'"
        (click)="nextTheme()"
      >
        <wn-icon [name]="theme() === 'dark' ? 'moon' : theme() === 'light' ? 'sun' : 'half'" [size]="20" />
      </button>
      <nav
        mat-tab-nav-bar
        [tabPanel]="panel"
        aria-label="Steps"
        mat-stretch-tabs="false"
        disableRipple
        (click)="letGo($event)"
      >
        <a mat-tab-link routerLink="/songs" [active]="step() === 'songs'">Songs</a>
        @if (songId(); as id) {
          @for (at of steps; track at.path) {
            <a
              mat-tab-link
              [routerLink]="['/songs', id, at.path]"
              [active]="step() === at.path"
              [attr.aria-label]="
                at.progress ? at.label + ', ' + checkedPercent() + ' % ' + at.progress.label : null
              "
            >
              {{ at.label }}
              @if (at.progress) {
                <span class="progress" aria-hidden="true"><i [style.width.%]="checkedPercent()"></i></span>
              }
            </a>
          }
        }
      </nav>
      <mat-tab-nav-panel #panel />
    </header>
  `,
  styles: `
    header {
      display: flex;
      align-items: center;
      gap: 12px;
      height: 48px;
      padding: 0 16px;
      background: var(--paper);
      border-bottom: 2px solid var(--ink);
      white-space: nowrap;
    }
    .logo {
      display: flex;
      color: var(--ink);
    }
    .title {
      font-size: 28px;
      font-weight: 800;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .artist {
      font-size: 20px;
      font-weight: 500;
      color: var(--ink2);
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .tuning {
      --mat-chip-container-height: 28px;
      --mat-chip-container-shape-radius: 14px;
      --mat-chip-outline-color: var(--edge);
      --mat-chip-label-text-color: var(--ink);
      flex: none;
    }
    .save {
      display: flex;
      align-items: center;
      gap: 6px;
      color: var(--ink2);
    }
    .save wn-icon {
      color: var(--ok);
    }
    .versions {
      flex: none;
      margin-left: -8px;
    }
    .save.trouble,
    .save.trouble wn-icon {
      color: var(--doubt);
      white-space: normal;
      line-height: 16px;
      font-size: 13px;
    }
    .gap {
      flex: 1;
    }
    .title {
      min-width: 80px;
    }
    // All but the artist has room: it is cut before the title is. What else stands in the header is up to 1070 px wide.
    @media (min-width: 1241px) {
      .title {
        flex: none;
        max-width: calc(100vw - 1070px);
      }
    }
    // The artist goes first, then the tuning: the steps and whether it is saved stay.
    @media (max-width: 1240px) {
      .artist {
        display: none;
      }
    }
    @media (max-width: 1080px) {
      .tuning {
        display: none;
      }
    }
    @media (max-width: 1000px) {
      header {
        gap: 6px;
        padding: 0 8px;
      }
    }
    nav {
      --mat-tab-container-height: 46px;
      --mat-tab-active-indicator-height: 0;
      --mat-tab-active-label-text-color: var(--sleeve);
      --mat-tab-active-hover-label-text-color: var(--sleeve);
      --mat-tab-active-focus-label-text-color: var(--sleeve);
      --mat-tab-inactive-label-text-color: var(--ink2);
      --mat-tab-divider-height: 0;
      align-self: end;
      flex: none;
    }
    nav a {
      position: relative;
      min-width: 64px;
      padding: 0 12px;
      font-weight: 500;
      border-radius: 8px 8px 0 0;
    }
    nav a.mdc-tab--active {
      background: var(--ink);
      font-weight: 600;
    }
    .progress {
      position: absolute;
      left: 0;
      bottom: 5px;
      width: 100%;
      height: 3px;
      background: var(--line2);
    }
    .progress i {
      display: block;
      height: 100%;
      background: currentColor;
    }
    mat-tab-nav-panel {
      display: none;
    }
  `,
})
export class Header {
  protected readonly steps = STEPS;
  private readonly song = inject(OpenSongStore);
  private readonly store = inject(Store);
  private readonly router = inject(Router);

  protected readonly document = this.song.document;
  protected readonly songId = this.song.songId;
  protected readonly theme = this.store.selectSignal(settingsFeature.selectTheme);
  protected readonly inTrouble = computed(() => IN_TROUBLE.includes(this.song.saveStatus()));
  protected readonly saveWords = computed(() => {
    const status = this.song.saveStatus();
    if (status !== 'failing') return SAVE_WORDS[status];
    const why = FAILURE_WORDS[this.song.failure() ?? ''] ?? SAVE_WORDS.failing;
    return `${why}; ${this.song.isKept() ? KEPT : NOT_KEPT}`;
  });
  /** Share of the written strums that were checked against the recording. */
  protected readonly checkedPercent = computed(() => {
    const document = this.document();
    const { checked, written } = document ? checkedCount(document) : { checked: 0, written: 0 };
    return written === 0 ? 0 : Math.floor((100 * checked) / written);
  });
  protected readonly tuning = computed(() => {
    const document = this.document();
    if (!document || document.riffs.length === 0) return null;
    const cents = Math.round(document.referenceOffsetCents);
    const label = tuningLabel(document.tuning);
    return cents === 0 ? label : `${label}, recording ${signedCents(cents)}`;
  });
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((event) => event instanceof NavigationEnd),
      map((event) => event.urlAfterRedirects),
    ),
    { initialValue: this.router.url },
  );
  /** Of the open page; '' for one that is no step. */
  protected readonly step = computed(() => {
    const [url, songId] = [this.url(), this.songId()];
    const step = STEPS.find(({ path }) => path === stepOf(url))?.path;
    return step ?? (songId !== null && url.includes(songId) ? '' : 'songs');
  });

  constructor() {
    inject(StepWalk).paths = STEPS.map(({ path }) => path);
    const title = inject(Title);
    // Many windows of many songs: each says which it is.
    effect(() => {
      const step = STEPS.find(({ path }) => path === this.step());
      const song = this.document()?.title;
      if (step && song !== undefined) title.setTitle(`${song}, ${step.label} · Wild Needle`);
    });
  }

  /** After a click with the mouse the arrow keys belong to the music, not to the steps. */
  protected letGo(event: MouseEvent): void {
    const link = event.detail > 0 && event.target instanceof Element ? event.target.closest('a') : null;
    link?.blur();
  }

  protected nextTheme(): void {
    const order = ['auto', 'light', 'dark'] as const;
    const next = order[(order.indexOf(this.theme()) + 1) % order.length];
    this.store.dispatch(settingsActions.themeChosen({ theme: next }));
  }
}
