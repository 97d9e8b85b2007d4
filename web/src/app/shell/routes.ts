import type { Routes } from '@angular/router';
import { STEPS } from './steps';

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
      ...STEPS.map(({ path, label, load }) => ({
        path,
        title: `${label} · Wild Needle`,
        ...load,
      })),
      {
        path: 'versions',
        title: 'Versions · Wild Needle',
        loadComponent: () => import('../features/versions/versions.page').then((m) => m.VersionsPage),
      },
    ],
  },
  { path: '**', redirectTo: 'songs' },
];
