import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { FilmsService } from './films.service.js';

export function filmsRoutes(films: FilmsService): Router {
  const router = Router();
  mount(router, 'filmsCsv', () => films.csv());
  mount(router, 'films', () => films.json());
  mount(router, 'importFilms', ({ body, query }) => films.bringIn(body, query.same, query));
  return router;
}
