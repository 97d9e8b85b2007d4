/** The frame of every screen: header above, the step below. */
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { Header } from './header';
import { jobActions } from '../state/jobs/jobs.actions';

@Component({
  selector: 'wn-root',
  imports: [Header, RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <wn-header />
    <main><router-outlet /></main>
  `,
  styles: `
    :host {
      display: grid;
      grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
      height: 100vh;
    }
    main {
      min-height: 0;
      display: grid;
      grid-template-columns: minmax(0, 1fr);
    }
  `,
})
export class AppComponent {
  constructor() {
    inject(Store).dispatch(jobActions.watchingStarted());
  }
}
