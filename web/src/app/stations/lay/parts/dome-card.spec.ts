import { TestBed } from '@angular/core/testing';
import type { Panel } from '@yellow-pane/contracts';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { DomeCard } from './dome-card';

/** What the card of the lid says. @param stretchMaxPct of its film */
async function said(stretchMaxPct: number | null, own: Partial<Panel> = {}): Promise<string> {
  TestBed.resetTestingModule();
  localStorage.clear();
  const api = new FakeApi();
  const doc = interiorDocument();
  api.doc = { ...doc, films: doc.films.map((f) => ({ ...f, stretchMaxPct })) };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  const fixture = TestBed.createComponent(DomeCard);
  fixture.componentRef.setInput('surface', { ...(record.doc()!.surfaces.find((s) => s.name === 'Key hut, lid') as Panel), ...own });
  fixture.detectChanges();
  await fixture.whenStable();
  return (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ').trim();
}

test('a lid: drawn on within what its film stands, slit where it is not; a flat face has no card', async () => {
  expect(await said(30)).toContain('Drawn on from its middle outwards: 5 % at its corners.');
  expect(await said(3)).toMatch(/Not without cuts.* about \d+ darts in all/);
  expect(await said(null)).toContain('is not in the library');
  expect(await said(30, { dome: null })).toBe('');
});
