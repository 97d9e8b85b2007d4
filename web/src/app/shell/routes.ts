import type { Routes } from '@angular/router';

/** A step of the work is listed here, and so in the navigation, when it works. */
export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'songs' },
  {
    path: 'songs',
    title: 'Songs · Wild Needle',
    loadComponent: () => import('../features/songs/songs.page').then((m) => m.SongsPage),
  },
  {
    path: 'songs/:songId',
    loadComponent: () => import('../song-frame/song-frame').then((m) => m.SongFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'riffs' },
      {
        path: 'tuning',
        title: 'Tuning · Wild Needle',
        loadComponent: () => import('../features/tuning/tuning.page').then((m) => m.TuningPage),
      },
      {
        path: 'sections',
        title: 'Sections · Wild Needle',
        loadComponent: () => import('../features/sections/sections.page').then((m) => m.SectionsPage),
      },
      {
        path: 'riffs',
        title: 'Riffs · Wild Needle',
        loadComponent: () => import('../features/riffs/page/riffs.page').then((m) => m.RiffsPage),
      },
    ],
  },
  { path: '**', redirectTo: 'songs' },
];
