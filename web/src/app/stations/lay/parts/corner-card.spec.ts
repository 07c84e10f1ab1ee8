import { TestBed } from '@angular/core/testing';
import type { Panel } from '@yellow-pane/contracts';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { CornerCard } from './corner-card';

/** What the card says of the lid's corners. */
async function said(own: Partial<Panel> = {}): Promise<string> {
  TestBed.resetTestingModule();
  localStorage.clear();
  const api = new FakeApi();
  api.doc = interiorDocument();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  const fixture = TestBed.createComponent(CornerCard);
  fixture.componentRef.setInput('surface', { ...(record.doc()!.surfaces.find((s) => s.name === 'Key hut, lid') as Panel), ...own });
  fixture.detectChanges();
  await fixture.whenStable();
  return (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ').trim();
}

test('round corners of a lid: drawn over in goes; a tighter round says how far film gets before its cut; without them there is no card', async () => {
  expect(await said()).toContain('Drawn over without a cut: 23 % at its end.');
  expect(await said()).toContain('In 3 goes: lift back to the arris');
  expect(await said({ corners: { radiusMm: 15, arrisMm: 3 } })).toMatch(/Not without a cut.*as far as \d+ mm from where the face ends/);
  expect(await said({ corners: null })).toBe('');
});
