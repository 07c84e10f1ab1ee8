import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { JobSummary, Patch, Sent } from '@yellow-pane/contracts';
import { Api, ApiProblem } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { JobsPage } from './jobs-page';

const ROLL = '018f0000-0000-7000-8000-00000000000a';
/** Two jobs at the bench; deleting hides one, undo brings it back. */
class FakeJobs extends FakeApi {
  private gone = false;
  jobs = async (): Promise<JobSummary[]> => {
    const { job, surfaces } = this.doc;
    const summary = { id: job.id, name: job.name, customer: job.customer, dueOn: job.dueOn, surfaceCount: surfaces.length } as JobSummary;
    const other = { ...summary, id: '018f0000-0000-7000-8000-0000000000bb', name: 'Lantern Street' };
    return this.gone ? [other] : [summary, other];
  };
  brought: string[] = [];
  promisesGone = 0;
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
