import { TestBed } from '@angular/core/testing';
import type { Panel } from '@yellow-pane/contracts';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';
import { CorrugationCard } from './corrugation-card';

test('what hands do over the ribs, by the way that was chosen; another way is written down, and needs another piece', async () => {
  localStorage.clear();
  const api = new FakeApi();
  api.doc = interiorDocument();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  const sheet = () => record.doc()!.surfaces.find((s) => s.name === 'Key hut, front') as Panel;
  const fixture = TestBed.createComponent(CorrugationCard);
  const root = fixture.nativeElement as HTMLElement;
  const show = async () => {
    fixture.componentRef.setInput('surface', sheet());
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  await show();
  expect(root.querySelector('[data-stretch-headline]')!.textContent).toContain('Stretched over its crests it goes: 14 % in every valley.');
  expect(root.querySelector('ol')!.textContent).toContain('Relax it all over');
  expect(root.querySelector('svg')!.getAttribute('aria-label')).toContain('14 %');
  [...root.querySelectorAll('button')].find((b) => b.textContent.trim() === 'Fed in')!.click();
  await show();
  expect(sheet().corrugation!.way).toBe('fed');
  expect(root.querySelector('[data-stretch-headline]')!.textContent).toContain('it stretches nowhere');
  expect(root.querySelector('ol')!.textContent).not.toContain('Relax it all over');
});
