import { Injectable } from '@angular/core';
import type { PreloadingStrategy, Route } from '@angular/router';
import { of, type Observable } from 'rxjs';

/** While somebody looks at the list of jobs, what an opened job needs is fetched; the rest waits until it is wanted. */
@Injectable({ providedIn: 'root' })
export class PreloadTheJob implements PreloadingStrategy {
  preload(route: Route, load: () => Observable<unknown>): Observable<unknown> {
    return route.data?.['preload'] === true ? load() : of(null);
  }
}
