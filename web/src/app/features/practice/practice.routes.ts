/** Practice with its own part of the state: loaded when it is opened. */
import type { Routes } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState } from '@ngrx/store';
import * as practiceEffects from '../../state/practice/practice.effects';
import { practiceFeature } from '../../state/practice/practice.reducer';
import { PracticePage } from './page/practice.page';

export const practiceRoutes: Routes = [
  {
    path: '',
    component: PracticePage,
    providers: [provideState(practiceFeature), provideEffects(practiceEffects)],
  },
];
