import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { HOLD_MS, HoldButton } from './hold-button';

let fixture: ComponentFixture<HoldButton>;
let held: number;
const button = () => (fixture.nativeElement as HTMLElement).querySelector('button')!;
/** jsdom has no pointer events: a mouse event with a finger's number. */
const touch = (type: string, pointerId = 1, more: object = {}) => {
  const event = Object.assign(new MouseEvent(type, { bubbles: true, cancelable: true }), { pointerId, pointerType: 'touch', ...more });
  button().dispatchEvent(event);
};
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));

beforeEach(() => {
  held = 0;
  fixture = TestBed.createComponent(HoldButton);
  fixture.componentInstance.held.subscribe(() => held++);
  fixture.detectChanges();
});

describe('a button for wet hands', () => {
  test('counts once when a finger rests on it for half a second', async () => {
    touch('pointerdown');
    await wait(HOLD_MS + 60);
    expect(held).toBe(1);
    touch('pointerup');
    touch('click');
    expect(held).toBe(1);
  });
  test('a drop of water, let go at once, does nothing and says why', async () => {
    touch('pointerdown');
    await wait(80);
    touch('pointerup');
    await wait(HOLD_MS);
    fixture.detectChanges();
    expect(held).toBe(0);
    expect(fixture.nativeElement.textContent).toContain('Hold it half a second');
  });
  test('two at once, drops or a hand leaning on the glass, do nothing', async () => {
    touch('pointerdown', 1);
    touch('pointerdown', 2);
    await wait(HOLD_MS + 60);
    expect(held).toBe(0);
  });
  test('a finger that slides off does nothing', async () => {
    touch('pointerdown');
    touch('pointerleave');
    await wait(HOLD_MS + 60);
    expect(held).toBe(0);
  });
  test('from the keyboard it is an ordinary button, a key kept down counts once; an aid may click it', () => {
    button().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
    button().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', repeat: true, bubbles: true, cancelable: true }));
    expect(held).toBe(1);
    button().click();
    expect(held).toBe(2);
  });
});
