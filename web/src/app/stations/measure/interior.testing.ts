import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Type } from '@angular/core';
import type { Surface } from '@yellow-pane/contracts';
import { Api } from '../../record/api';
import { FakeApi } from '../../record/fake-api.testing';
import { interiorDocument } from '../../record/interior-document.testing';
import { RecordStore } from '../../record/record.store';

/** A page of Measure, opened on a surface of the demo’s interior, with what a hand does on it. */
export class OpenedInterior<P> {
  private constructor(
    readonly api: FakeApi,
    private readonly fixture: ComponentFixture<P>,
  ) {}

  static async at<P>(page: Type<P>, name: string): Promise<OpenedInterior<P>> {
    localStorage.clear();
    const api = new FakeApi();
    api.doc = interiorDocument();
    TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
    await TestBed.inject(RecordStore).open(api.doc.job.id);
    const opened = new OpenedInterior(api, TestBed.createComponent(page));
    await opened.pick(name);
    return opened;
  }

  get root(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }
  get store(): InstanceType<typeof RecordStore> {
    return TestBed.inject(RecordStore);
  }
  async settle(): Promise<void> {
    for (let i = 0; i < 4; i++) {
      await this.fixture.whenStable();
      this.fixture.detectChanges();
    }
  }
  async pick(name: string): Promise<void> {
    this.store.select(this.api.doc.surfaces.find((s) => s.name === name)!.id);
    await this.settle();
  }
  kept = <S extends Surface>(name: string): S => this.api.doc.surfaces.find((s) => s.name === name) as S;
  field = (key: string) => this.root.querySelector<HTMLInputElement>(`[data-measure="${key}"] input`)!;
  verdict = () => this.root.querySelector('[data-verdict]')!.textContent!.replace(/\s+/g, ' ');
  drawn = (of: string) => [...this.root.querySelectorAll(`${of} text`)].map((t) => t.textContent!.trim());
  button = (text: string) => [...this.root.querySelectorAll('button')].find((b) => b.textContent!.trim() === text)!;

  /** Types into a length field and leaves it with Enter. */
  async type(box: HTMLInputElement, text: string): Promise<void> {
    box.value = text;
    box.dispatchEvent(new Event('input'));
    box.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await this.settle();
  }
  async change(box: HTMLInputElement | HTMLSelectElement, value: string): Promise<void> {
    box.value = value;
    box.dispatchEvent(new Event('change'));
    await this.settle();
  }
  choose(choice: string, value: string, of: ParentNode = this.root): Promise<void> {
    return this.change(of.querySelector<HTMLSelectElement>(`[data-choice="${choice}"]`)!, value);
  }
}
