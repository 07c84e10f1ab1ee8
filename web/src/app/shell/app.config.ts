import { provideHttpClient, withFetch } from '@angular/common/http';
import { inject, provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, TitleStrategy, withComponentInputBinding, withNavigationErrorHandler, withPreloading } from '@angular/router';
import { routes } from './app.routes';
import { JobTitles } from './job-titles';
import { MissingPart } from './missing-part';
import { PreloadTheJob } from './preload-the-job';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch()),
    provideRouter(
      routes,
      withComponentInputBinding(),
      withPreloading(PreloadTheJob),
      withNavigationErrorHandler((e) => inject(MissingPart).met(e)),
    ),
    { provide: TitleStrategy, useClass: JobTitles },
  ],
};
