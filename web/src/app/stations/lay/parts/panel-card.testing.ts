import type { Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Film, Panel } from '@yellow-pane/contracts';
import { Api } from '../../../record/api';
import { FakeApi } from '../../../record/fake-api.testing';
import { interiorDocument } from '../../../record/interior-document.testing';
import { RecordStore } from '../../../record/record.store';

/** What a card says of the key hut's lid. @param own what is another way on it, @param film what is another way with its film */
export async function saidOfLid(card: Type<unknown>, own: Partial<Panel> = {}, film: Partial<Film> = {}): Promise<string> {
  TestBed.resetTestingModule();
  localStorage.clear();
  const api = new FakeApi();
  const doc = interiorDocument();
  api.doc = { ...doc, films: doc.films.map((f) => ({ ...f, ...film })) };
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  const fixture = TestBed.createComponent(card);
  fixture.componentRef.setInput('surface', { ...(record.doc()!.surfaces.find((s) => s.name === 'Key hut, lid') as Panel), ...own });
  fixture.detectChanges();
  await fixture.whenStable();
  return (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ').trim();
}
