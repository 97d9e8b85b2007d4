import { provideHttpClient } from '@angular/common/http';
import { type ApplicationConfig, provideZonelessChangeDetection } from '@angular/core';
import { provideRouter, withComponentInputBinding } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import * as importsEffects from '../state/imports/imports.effects';
import { importsFeature } from '../state/imports/imports.reducer';
import * as jobsEffects from '../state/jobs/jobs.effects';
import { jobsFeature } from '../state/jobs/jobs.reducer';
import * as settingsEffects from '../state/settings/settings.effects';
import { settingsFeature } from '../state/settings/settings.reducer';
import * as guessesEffects from '../state/guesses/guesses.effects';
import { guessesFeature } from '../state/guesses/guesses.reducer';
import * as shapesEffects from '../state/shapes/shapes.effects';
import { shapesFeature } from '../state/shapes/shapes.reducer';
import * as songsEffects from '../state/songs/songs.effects';
import { songsFeature } from '../state/songs/songs.reducer';
import { routes } from './routes';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideRouter(routes, withComponentInputBinding()),
    provideHttpClient(),
    provideStore(),
    provideState(songsFeature),
    provideState(importsFeature),
    provideState(jobsFeature),
    provideState(settingsFeature),
    provideState(shapesFeature),
    provideState(guessesFeature),
    provideEffects(songsEffects, importsEffects, jobsEffects, settingsEffects, shapesEffects, guessesEffects),
  ],
};
