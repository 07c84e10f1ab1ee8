import { TestBed } from '@angular/core/testing';
import { MissingPart } from './missing-part';

describe('a part of the page that does not come', () => {
  test.each([
    'Failed to fetch dynamically imported module: http://localhost/chunk-A.js',
    'error loading dynamically imported module: http://localhost/chunk-A.js',
    'Importing a module script failed.',
  ])('“%s”: the page is asked for whole, once; then it is said', (message) => {
    sessionStorage.clear();
    const part = TestBed.inject(MissingPart);
    const asked: string[] = [];
    part.goTo = (url) => asked.push(url);
    part.met({ error: new TypeError(message), url: '/jobs/1/lay' }, 100_000);
    expect([asked, part.isMissing()]).toEqual([['/jobs/1/lay'], false]);
    part.met({ error: new TypeError(message), url: '/jobs/1/lay' }, 105_000);
    expect([asked.length, part.isMissing()]).toEqual([1, true]);
  });
  test('another failure is none of its business', () => {
    sessionStorage.clear();
    const part = TestBed.inject(MissingPart);
    part.goTo = () => expect(true).toBe(false);
    part.met({ error: new Error('Cannot match any routes'), url: '/x' }, 100_000);
    expect(part.isMissing()).toBe(false);
  });
});
