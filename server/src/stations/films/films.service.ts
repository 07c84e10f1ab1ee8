import { v7 as uuidv7 } from 'uuid';
import { film as filmSchema, type Fault, type Film, type Patch } from '@yellow-pane/contracts';
import { filmBlock } from '@yellow-pane/core';
import type { RecordsRepository } from '../../db/records.repository.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';
import { filmsFromCsv, filmsToCsv } from './film-csv.js';

const MOST_FILMS = 1000;

/** The newest version of each name, retired ones out. */
export function currentFilms(films: readonly Film[]): Film[] {
  const replaced = new Set(films.map((f) => f.replacesId));
  return films.filter((f) => !replaced.has(f.id) && f.retiredAt === null);
}

/** The film library in and out. */
export class FilmsService {
  constructor(
    private readonly jobs: JobsService,
    private readonly records: Pick<RecordsRepository, 'all'>,
    private readonly now: () => Date,
  ) {}

  async csv(): Promise<{ name: string; bytes: string }> {
    return { name: 'films.csv', bytes: filmsToCsv(currentFilms(await this.records.all('film'))) };
  }
  async json(): Promise<Film[]> {
    return currentFilms(await this.records.all('film'));
  }

  /**
   * Brings films in from a CSV text or a list; nothing comes in unless every one reads.
   * @param same what to do with a name that is already here: ask first, leave the one here, or make a new version of it
   */
  async bringIn(
    raw: unknown,
    same: 'ask' | 'skip' | 'new-version',
    who: { personId: string; deviceId: string },
  ): Promise<{ added: number; renewed: number; skipped: number }> {
    const { films, faults } = typeof raw === 'string' ? filmsFromCsv(raw, { id: uuidv7, at: this.now().toISOString() }) : this.fromList(raw);
    const seen = new Set<string>();
    for (const [i, f] of films.entries()) {
      const alone = f.optics ? filmBlock(f.optics) : null;
      if (alone && !alone.ok) faults.push({ path: `${f.name || `film ${i + 1}`}, optics`, message: alone.message });
      if (seen.has(f.name)) faults.push({ path: f.name, message: 'This name stands twice in the file.' });
      seen.add(f.name);
    }
    if (faults.length)
      throw new Refusal(
        'bad-input',
        `${faults.length} ${faults.length === 1 ? 'thing does' : 'things do'} not read. Nothing was brought in.`,
        faults.slice(0, 50),
      );
    if (films.length === 0) throw new Refusal('bad-input', 'There is no film in this file.');
    const here = new Map(currentFilms(await this.records.all('film')).map((f) => [f.name, f]));
    const known = films.filter((f) => here.has(f.name));
    if (known.length && same === 'ask')
      throw new Refusal(
        'films-known',
        `${known.length} of ${films.length} films are already here by name.`,
        known.map((f) => ({ path: f.name, message: 'Leave the one here, or make this its new version.' })),
      );
    const taken = films.filter((f) => !here.has(f.name) || same === 'new-version');
    const patches = taken.map((f): Patch => {
      const old = here.get(f.name);
      const value = {
        ...f,
        id: uuidv7(),
        version: old ? old.version + 1 : 1,
        replacesId: old?.id ?? null,
        createdAt: this.now().toISOString(),
        retiredAt: null,
      };
      return { op: 'add', kind: 'film', id: value.id, value };
    });
    const firm = await this.jobs.firm();
    if (patches.length) await this.jobs.change(firm.id, who, `Bring in ${patches.length} films`, patches);
    const renewed = taken.filter((f) => here.has(f.name)).length;
    return { added: taken.length - renewed, renewed, skipped: films.length - taken.length };
  }

  private fromList(raw: unknown): { films: Film[]; faults: Fault[] } {
    if (!Array.isArray(raw)) return { films: [], faults: [{ path: 'file', message: 'A film file is a list of films: it should begin with “[”.' }] };
    if (raw.length > MOST_FILMS) return { films: [], faults: [{ path: 'file', message: `At most ${MOST_FILMS} films at once.` }] };
    const films: Film[] = [];
    const faults: Fault[] = [];
    raw.forEach((item, i) => {
      const read = filmSchema.safeParse(item);
      if (read.success) films.push(read.data);
      else for (const issue of read.error.issues) faults.push({ path: `film ${i + 1}, ${issue.path.join('.')}`, message: issue.message });
    });
    return { films, faults };
  }
}
