import { TestBed } from '@angular/core/testing';
import { LayoutSearch } from '../compute/layout-search';
import { LayoutSearchInPlace } from '../compute/layout-search.testing';
import { provideRouter } from '@angular/router';
import { API_VERSION } from '@yellow-pane/contracts';
import { Api } from '../record/api';
import { Device } from '../record/device';
import { LocalStore } from '../record/local-store';
import { FakeApi } from '../record/fake-api.testing';
import { App } from './app';

const opened = async (apiVersion: number) => {
  const api = new FakeApi();
  const { session } = api;
  api.session = async () => ({ ...(await session()), apiVersion });
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }, { provide: LayoutSearch, useClass: LayoutSearchInPlace }, provideRouter([])] });
  const fixture = TestBed.createComponent(App);
  await TestBed.inject(Device).connect();
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
};

describe('a page that was kept on a device meets the bench', () => {
  test('of its own age: nothing is said', async () => {
    expect((await opened(API_VERSION)).querySelector('[role=status]')).toBeNull();
  });
  test('a newer one: it says so, and that what was tapped is delivered all the same', async () => {
    const said = (await opened(API_VERSION + 1)).querySelector('[data-old-shell]')!;
    expect(said.textContent).toContain('What you tapped is delivered all the same');
    expect(said.querySelector('button')!.textContent).toContain('Load it again');
  });
  test('a bench that lets it in no more: it says what becomes of what was written, and where to type a code, in a page of its own', async () => {
    const page = await opened(API_VERSION);
    let wipes = 0;
    TestBed.inject(LocalStore).forgetJobs = async () => void wipes++;
    const api = TestBed.inject(Api) as unknown as FakeApi;
    TestBed.tick();
    expect(wipes).toBe(0);
    api.isPutOut.set(true);
    await Promise.resolve();
    TestBed.tick();
    const said = page.querySelector('[data-put-out]')!;
    expect(said.textContent).toContain('What you wrote stays here');
    // the jobs that were kept here go at once
    expect(wipes).toBe(1);
    expect([said.querySelector('a')!.getAttribute('href'), said.querySelector('a')!.target]).toEqual(['/admit', '_blank']);
  });
});
