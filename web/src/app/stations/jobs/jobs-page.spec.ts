import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { DueJob, JobPage, JobSummary, Patch, Sent } from '@yellow-pane/contracts';
import { Api, ApiProblem } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { JobsPage } from './jobs-page';

const ROLL = '018f0000-0000-7000-8000-00000000000a';
/** Two jobs at the bench; deleting hides one, undo brings it back. */
class FakeJobs extends FakeApi {
  private gone = false;
  /** Further jobs, and what was asked for. */
  past: JobSummary[] = [];
  asked: Sent<'jobs'>['query'][] = [];
  jobs = async (sent?: Sent<'jobs'>): Promise<JobPage> => {
    this.asked.push(sent?.query);
    const { search = '', offset = 0, limit = 50 } = (sent?.query ?? {}) as { search?: string; offset?: number; limit?: number };
    const all = [...this.here(), ...this.past].filter((j) => j.name.toLowerCase().includes(search.toLowerCase()));
    return { jobs: all.slice(offset, offset + limit), total: all.length };
  };
  private here(): JobSummary[] {
    const { job, surfaces } = this.doc;
    const summary = { id: job.id, name: job.name, customer: job.customer, dueOn: job.dueOn, surfaceCount: surfaces.length } as JobSummary;
    const other = { ...summary, id: '018f0000-0000-7000-8000-0000000000bb', name: 'Lantern Street' };
    return this.gone ? [other] : [summary, other];
  }
  brought: string[] = [];
  promisesGone = 0;
  due = async () => this.dueJobs;
  dueJobs: DueJob[] = [];
  deletedJobs = async () => (this.gone ? [{ id: this.doc.job.id, name: this.doc.job.name, customer: '', deletedAt: '2026-11-02T08:00:00Z' }] : []);
  bringBackJob = async ({ params: { jobId } }: Sent<'bringBackJob'>) => {
    this.brought.push(jobId);
    this.gone = false;
    return { jobId, promisesBack: 1, promisesGone: this.promisesGone };
  };
  override change = async ({ body: draft }: Sent<'change'>) => {
    const had = this.refuseNext;
    if (had) {
      this.refuseNext = null;
      throw had;
    }
    this.drafts.push(draft);
    this.gone = true;
    return { change: { patches: draft.patches, revision: 2, label: draft.label } as never, canUndo: draft.label, canRedo: null };
  };
  override undo = async ({ body: request }: Sent<'undo'>) => {
    this.undone.push(request);
    this.gone = false;
    return { change: { patches: [], revision: 3, label: '' } as never, canUndo: null, canRedo: null };
  };
}
let api: FakeJobs;
let fixture: ComponentFixture<JobsPage>;
const root = () => fixture.nativeElement as HTMLElement;
const names = () => [...root().querySelectorAll('h2')].map((h) => h.textContent.trim());
const settle = async () => {
  for (let i = 0; i < 5; i++) {
    await fixture.whenStable();
    await new Promise((r) => setTimeout(r));
  }
  fixture.detectChanges();
};
const press = async (label: string) => {
  [...root().querySelectorAll('button')].find((b) => (b.getAttribute('aria-label') ?? b.textContent.trim()) === label)!.click();
  await settle();
};

beforeEach(async () => {
  sessionStorage.clear();
  localStorage.clear();
  api = new FakeJobs();
  const promised = (id: string, jobId: string, deletedAt: string | null) => ({ id, jobId, deletedAt, rollId: ROLL });
  api.doc = {
    ...api.doc,
    stock: {
      ...api.doc.stock,
      reservations: [promised('r1', api.doc.job.id, null), promised('r2', api.doc.job.id, '2026-11-01T00:00:00Z'), promised('r3', 'another', null)] as never,
    },
  };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }, provideRouter([])] });
  fixture = TestBed.createComponent(JobsPage);
  await settle();
});

describe('a job is deleted without a question and can be brought back', () => {
  test('it leaves the list, its own promises of film are lifted in the same change, and it says so', async () => {
    expect(names()).toEqual([api.doc.job.name, 'Lantern Street']);
    await press(`Delete ${api.doc.job.name}`);
    expect(names()).toEqual(['Lantern Street']);
    const lifted = api.drafts[0]!.patches.map((p: Patch) => [p.kind, p.id, 'field' in p && p.field]);
    expect(lifted).toEqual([
      ['reservation', 'r1', 'deletedAt'],
      ['job', api.doc.job.id, 'deletedAt'],
    ]);
    expect(root().textContent).toContain('is deleted');
  });
  test('Undo brings it back, and the line goes', async () => {
    await press(`Delete ${api.doc.job.name}`);
    await press('Undo');
    expect(names()).toEqual([api.doc.job.name, 'Lantern Street']);
    expect(api.undone).toHaveLength(1);
    expect(root().textContent).not.toContain('is deleted');
  });
  test('it can be brought back from the list of deleted ones too, and film promised elsewhere meanwhile is said', async () => {
    expect(root().querySelector('[data-bin]')).toBeNull();
    await press(`Delete ${api.doc.job.name}`);
    expect(root().querySelector('[data-bin] summary')!.textContent).toContain('Deleted in the last 30 days: 1');
    api.promisesGone = 1;
    await press(`Bring back ${api.doc.job.name}`);
    expect(api.brought).toEqual([api.doc.job.id]);
    expect(names()).toEqual([api.doc.job.name, 'Lantern Street']);
    expect(root().textContent).not.toContain('is deleted');
    expect(root().querySelector('[role=alert]')!.textContent).toContain('One promise of film is not: that film was promised or cut elsewhere meanwhile');
    expect(root().querySelector('[data-bin]')).toBeNull();
  });
  test('where the bench refuses, the job stays and the reason is read', async () => {
    api.refuseNext = new ApiProblem('conflict', 'Somebody is cutting this job just now.');
    await press(`Delete ${api.doc.job.name}`);
    expect(names()).toHaveLength(2);
    expect(root().querySelector('[role=alert]')!.textContent).toContain('is cutting this job');
  });
});

describe('a firm with many past jobs', () => {
  const house = (n: number): JobSummary => ({ id: `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`, name: `House ${n}`, customer: '', dueOn: '2019-05-01', units: 'mm', surfaceCount: 1, measuredCount: 1, cutCount: 1, updatedAt: '2019-05-01T08:00:00Z' }); // prettier-ignore
  const type = async (words: string) => {
    const box = root().querySelector<HTMLInputElement>('input[type=search]')!;
    box.value = words;
    box.dispatchEvent(new Event('input'));
    await new Promise((r) => setTimeout(r, 200));
    await settle();
  };
  beforeEach(async () => {
    api.past = Array.from({ length: 70 }, (_, i) => house(i + 1));
    fixture = TestBed.createComponent(JobsPage);
    await settle();
  });

  it('shows fifty, the earlier ones under a heading of their own, and the rest when asked', async () => {
    expect(names().slice(0, 4)).toEqual([expect.anything(), 'Lantern Street', 'Earlier jobs', 'House 1']);
    expect(names()).toHaveLength(51);
    await press('22 more of 72');
    expect(names()).toHaveLength(73);
    expect([...root().querySelectorAll('button')].some((b) => b.textContent.includes('more of'))).toBe(false);
  });
  it('finds by what is typed, asked once the typing rests, and says when there is none', async () => {
    const before = api.asked.length;
    const box = root().querySelector<HTMLInputElement>('input[type=search]')!;
    for (const words of ['H', 'House', 'House 6']) {
      box.value = words;
      box.dispatchEvent(new Event('input'));
    }
    await type('House 66');
    expect(names()).toEqual(['House 66']);
    expect(api.asked.slice(before)).toEqual([{ search: 'House 66', offset: 0, limit: 50 }]);
    expect(root().textContent).toContain('1 found');
    await type('Nowhere');
    expect(root().textContent).toContain('No job, customer, street or lot holds “Nowhere”.');
    await type('');
    expect(names()).toHaveLength(51);
  });
});

describe('what somebody has to come back to', () => {
  const visit = (pane: string) => ({ surfaceId: ROLL, pane, what: 'Look whether it is clear' });
  test('stands above the jobs, today before this week, each pane once, with a way to its job', async () => {
    api.dueJobs = [{ jobId: ROLL, job: 'Annex', now: [visit('B1'), visit('B1'), visit('B2')], week: [{ ...visit('P1'), on: '2026-12-03' }] }];
    fixture = TestBed.createComponent(JobsPage);
    await settle();
    const due = root().querySelector('[data-due]')!;
    expect(due.textContent.replace(/\s+/g, ' ')).toContain('Annex: look today at B1, B2 · this week P1');
    expect(due.querySelector('a')!.getAttribute('href')).toBe(`/jobs/${ROLL}/check`);
  });
  test('nothing due is said, in the place where it will stand; many panes are counted', async () => {
    expect(root().querySelector('[data-due]')!.textContent).toContain('No laid pane waits for a look this week.');
    api.dueJobs = [{ jobId: ROLL, job: 'Tower', now: Array.from({ length: 11 }, (_, i) => visit(`W${i}`)), week: [] }];
    fixture = TestBed.createComponent(JobsPage);
    await settle();
    expect(root().querySelector('[data-due]')!.textContent).toContain('W7 and 3 more');
  });
});
