/** The steps of the work on an open song: a row here is a screen, its address and its place in the navigation. */
import type { Route } from '@angular/router';

export interface Step {
  /** In the address of the song. */
  readonly path: string;
  readonly label: string;
  readonly load: Pick<Route, 'loadComponent'> | Pick<Route, 'loadChildren'>;
  /** What the bar under it counts; none without it. */
  readonly progress?: { readonly label: string };
}

/** In the order of the work; a step is listed when it works. */
export const STEPS: readonly Step[] = [
  {
    path: 'tuning',
    label: 'Tuning',
    load: { loadComponent: () => import('../features/tuning/tuning.page').then((m) => m.TuningPage) },
  },
  {
    path: 'sections',
    label: 'Sections',
    load: { loadComponent: () => import('../features/sections/sections.page').then((m) => m.SectionsPage) },
  },
  {
    path: 'riffs',
    label: 'Riffs',
    load: { loadComponent: () => import('../features/riffs/page/riffs.page').then((m) => m.RiffsPage) },
    progress: { label: 'of the strums checked' },
  },
  {
    path: 'check',
    label: 'Check',
    load: { loadComponent: () => import('../features/check/page/check.page').then((m) => m.CheckPage) },
  },
  {
    path: 'sheet',
    label: 'Sheet',
    load: { loadComponent: () => import('../features/sheet/sheet.page').then((m) => m.SheetPage) },
  },
  {
    path: 'practice',
    label: 'Practice',
    load: {
      loadChildren: () => import('../features/practice/practice.routes').then((m) => m.practiceRoutes),
    },
  },
];
