import { TestBed } from '@angular/core/testing';
import { Keys } from './keys';

const press = (init: KeyboardEventInit, target: HTMLElement = document.body): KeyboardEvent => {
  const event = new KeyboardEvent('keydown', { bubbles: true, ...init });
  Object.defineProperty(event, 'target', { value: target });
  return event;
};

describe('plain keys', () => {
  beforeEach(() => localStorage.clear());
  const keys = () => TestBed.runInInjectionContext(() => new Keys());

  test('act when no field has the focus; in a field only with Alt', () => {
    const k = keys();
    const field = document.createElement('input');
    expect(k.actionFor(press({ key: 'n' }))).toBe('new');
    expect(k.actionFor(press({ key: 'n' }, field))).toBeNull();
    expect(k.actionFor(press({ key: 'ñ', code: 'KeyN', altKey: true }, field))).toBe('new');
    expect(k.actionFor(press({ key: 'n', ctrlKey: true }))).toBeNull();
  });
  test('z undoes, Shift Z redoes', () => {
    expect(keys().actionFor(press({ key: 'z' }))).toBe('undo');
    expect(keys().actionFor(press({ key: 'Z', shiftKey: true }))).toBe('redo');
  });
  test('can be switched off and changed, and that is kept; a taken key is refused', () => {
    const k = keys();
    expect(k.change('new', 'c')).toBe(false);
    expect(k.change('new', 'a')).toBe(true);
    expect(keys().actionFor(press({ key: 'a' }))).toBe('new');
    k.setEnabled(false);
    expect(keys().actionFor(press({ key: 'a' }))).toBeNull();
  });
});
