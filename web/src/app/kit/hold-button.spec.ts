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
  test('a key is held as long as a finger, and counts once however long it stays down; an aid may click it', async () => {
    const key = (type: 'keydown' | 'keyup', more: object = {}) =>
      button().dispatchEvent(new KeyboardEvent(type, { key: 'Enter', bubbles: true, cancelable: true, ...more }));
    key('keydown');
    await wait(80);
    key('keyup');
    await wait(HOLD_MS);
    fixture.detectChanges();
    expect(held).toBe(0);
    expect(fixture.nativeElement.textContent).toContain('Hold it half a second');
    key('keydown');
    key('keydown', { repeat: true });
    await wait(HOLD_MS + 60);
    key('keydown', { repeat: true });
    await wait(HOLD_MS + 60);
    key('keyup');
    expect(held).toBe(1);
    button().click();
    expect(held).toBe(2);
  });
});
