/** From step to step of the work on the open song, by key. The shell says which steps there are. */
import { inject, Injectable } from '@angular/core';
import { Router } from '@angular/router';

/** 'riffs' of '/songs/7/riffs?section=1'; '' for an address that is no step of a song. */
export const stepOf = (url: string): string => url.split(/[/?#]/)[3] ?? '';

@Injectable({ providedIn: 'root' })
export class StepWalk {
  private readonly router = inject(Router);
  /** Addresses of the steps, in the order of the work. */
  paths: readonly string[] = [];

  next(by: 1 | -1): void {
    // While a step is still opened, the next press goes on from there.
    const url = this.router.currentNavigation()?.extractedUrl.toString() ?? this.router.url;
    const [, area, songId] = url.split(/[/?]/);
    const at = this.paths.indexOf(stepOf(url));
    const target = this.paths[at + by];
    if (at >= 0 && target) void this.router.navigate(['/', area, songId, target]);
  }
}
