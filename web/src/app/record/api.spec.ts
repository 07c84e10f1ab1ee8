import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Api, ApiProblem, hrefOf } from './api';

const jobId = '018f0000-0000-7000-8000-0000000000aa';
const who = { personId: '018f0000-0000-7000-8000-0000000000bb', deviceId: '018f0000-0000-7000-8000-0000000000cc' };
let api: Api;
let bench: HttpTestingController;

beforeEach(() => {
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  api = TestBed.inject(Api);
  bench = TestBed.inject(HttpTestingController);
});
afterEach(() => bench.verify());

describe('The calls of the page', () => {
  it('goes where the contract says, by its method, with what was asked', async () => {
    const answer = api.weather({ params: { jobId }, query: { on: '2026-11-03', sky: 'clear' } });
    const call = bench.expectOne(`/api/jobs/${jobId}/weather?on=2026-11-03&sky=clear`);
    expect(call.request.method).toBe('GET');
    call.flush({ on: '2026-11-03' });
    expect((await answer).on).toBe('2026-11-03');
  });

  it('sends a table as CSV, a list as JSON and a photo as what it is', () => {
    void api.importFilms({ query: { ...who, same: 'skip' }, body: 'name;brand' });
    void api.importFilms({ query: who, body: [] });
    void api.addPhoto({ body: new Blob(['x'], { type: 'image/png' }) });
    const [csv, list] = bench.match((r) => r.url.startsWith('/api/films'));
    expect(csv!.request.url).toContain('same=skip');
    expect(csv!.request.headers.get('Content-Type')).toBe('text/csv');
    expect(list!.request.headers.get('Content-Type')).toBe('application/json');
    expect(bench.expectOne('/api/photos').request.headers.get('Content-Type')).toBe('image/png');
  });

  it('hands on a refusal in the words of the bench, with the places at fault', async () => {
    const answer = api.importJob({ query: who, body: {} });
    bench
      .expectOne((r) => r.url.startsWith('/api/job-files'))
      .flush({ code: 'bad-input', detail: 'Something does not read.', faults: [{ path: 'body.job', message: 'is missing' }] }, { status: 422, statusText: '' });
    await expect(answer).rejects.toMatchObject({
      code: 'bad-input',
      message: 'Something does not read.',
      faults: [{ path: 'body.job', message: 'is missing' }],
    });
  });

  it.each([
    ['nothing answers', 0],
    ['something between answers in its place', 504],
  ])('says that the bench is out of reach when %s: what was typed is kept', async (_, status) => {
    const answer = api.jobs();
    const call = bench.expectOne('/api/jobs');
    if (status) call.flush('<html>', { status, statusText: 'Gateway' });
    else call.error(new ProgressEvent('error'));
    await expect(answer).rejects.toMatchObject({ code: 'offline' });
    expect(api.isPutOut()).toBe(false);
  });

  it('knows that it was put out, and that it was let in again', async () => {
    const refused = api.jobs();
    bench.expectOne('/api/jobs').flush({ code: 'not-admitted', detail: 'This device is not let in.' }, { status: 401, statusText: '' });
    await expect(refused).rejects.toBeInstanceOf(ApiProblem);
    expect(api.isPutOut()).toBe(true);
    const again = api.jobs();
    bench.expectOne('/api/jobs').flush({ jobs: [], total: 0 });
    await again;
    expect(api.isPutOut()).toBe(false);
  });

  it('links papers by the same addresses', () => {
    expect(hrefOf('formingSheetPdf', { params: { jobId }, query: { surfaceId: who.personId } })).toBe(
      `/api/jobs/${jobId}/forming-sheet.pdf?surfaceId=${who.personId}`,
    );
    expect(hrefOf('stockLabels')).toBe('/api/stock/labels.pdf');
  });
});
