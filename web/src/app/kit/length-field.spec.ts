import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { LengthField, type TypedReading } from './length-field';

/** The field as a hand uses it. */
class FieldHarness {
  readonly committed: TypedReading[] = [];
  readonly walked: boolean[] = [];
  cleared = 0;
  readonly fixture: ComponentFixture<LengthField>;
  constructor(inputs: { value?: string; units: 'mm' | 'in'; signed?: boolean }) {
    this.fixture = TestBed.createComponent(LengthField);
    this.fixture.componentRef.setInput('label', 'Top width');
    for (const [k, v] of Object.entries(inputs)) this.fixture.componentRef.setInput(k, v);
    this.fixture.componentInstance.committed.subscribe((r) => this.committed.push(r));
    this.fixture.componentInstance.cleared.subscribe(() => this.cleared++);
    this.fixture.componentInstance.next.subscribe((back) => this.walked.push(back));
    this.fixture.detectChanges();
  }
  get box(): HTMLInputElement {
    return (this.fixture.nativeElement as HTMLElement).querySelector('input')!;
  }
  get alert(): string | undefined {
    return (this.fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent?.trim();
  }
  async type(text: string, key = 'Enter', shiftKey = false): Promise<void> {
    this.box.value = text;
    this.box.dispatchEvent(new Event('input'));
    this.box.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true }));
    await this.fixture.whenStable();
    this.fixture.detectChanges();
  }
}

describe('a field for one length', () => {
  test('Enter takes what was typed and goes on, Shift Enter goes back', async () => {
    const field = new FieldHarness({ units: 'in' });
    await field.type('35 5/8');
    expect(field.committed.map((c) => [c.typed, c.lengthMm])).toEqual([['35 5/8', 904.875]]);
    await field.type('35 3/4', 'Enter', true);
    expect(field.walked).toEqual([false, true]);
  });
  test('an odd length is asked about before it counts: leaving the field does not mean it, Enter once more does', async () => {
    const field = new FieldHarness({ units: 'in' });
    field.fixture.componentRef.setInput('odd', (mm: number) => (mm > 12000 ? 'That is 22.9 m.' : null));
    await field.type('902.5');
    expect(field.alert).toBe('That is 22.9 m. Enter once more, if it is so.');
    field.box.dispatchEvent(new Event('blur'));
    expect([field.committed, field.walked]).toEqual([[], []]);
    await field.type('902.5');
    expect(field.committed.map((c) => c.typed)).toEqual(['902.5']);
    await field.type('903.5');
    expect(field.committed).toHaveLength(1);
    await field.type('35.5');
    expect(field.committed).toHaveLength(2);
  });
  test('Enter and then leaving the field hand the reading on once; typed anew it is handed on anew', async () => {
    const field = new FieldHarness({ units: 'mm' });
    await field.type('600');
    // the hand moves on before the record has come back
    field.box.dispatchEvent(new Event('blur'));
    expect(field.committed).toHaveLength(1);
    await field.type('601');
    await field.type('600');
    expect(field.committed.map((c) => c.lengthMm)).toEqual([600, 601, 600]);
  });
  test('what does not read stays in the field with a sentence, and nothing is taken', async () => {
    const field = new FieldHarness({ units: 'mm' });
    await field.type('wide');
    expect(field.alert).toContain('does not read as a length');
    expect(field.box.value).toBe('wide');
    expect(field.box.getAttribute('aria-invalid')).toBe('true');
    expect([field.committed.length, field.walked.length]).toEqual([0, 0]);
  });
  test('an unchanged field takes nothing; an emptied one takes the reading back', async () => {
    const field = new FieldHarness({ value: '612', units: 'mm' });
    await field.type('612');
    expect(field.committed).toEqual([]);
    await field.type('');
    expect(field.cleared).toBe(1);
  });
  test('only a gap may be negative', async () => {
    const gap = new FieldHarness({ units: 'mm', signed: true });
    await gap.type('-3');
    expect(gap.committed[0]!.lengthMm).toBe(-3);
    const width = new FieldHarness({ units: 'mm' });
    await width.type('-3');
    expect(width.alert).toBeDefined();
  });
});
