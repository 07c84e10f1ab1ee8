import { provideHttpClient, withFetch } from '@angular/common/http';
import { provideZonelessChangeDetection, type ApplicationConfig } from '@angular/core';
import { provideRouter, TitleStrategy, withComponentInputBinding, withPreloading } from '@angular/router';
import { routes } from './app.routes';
import { JobTitles } from './job-titles';
import { PreloadTheJob } from './preload-the-job';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideHttpClient(withFetch()),
    provideRouter(routes, withComponentInputBinding(), withPreloading(PreloadTheJob)),
    { provide: TitleStrategy, useClass: JobTitles },
  ],
};
