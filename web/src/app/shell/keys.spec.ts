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
  test('in an empty field of a length a letter is a key, since no length begins with one; the arrows up and down are in any', () => {
    const k = keys();
    const edge = document.createElement('div');
    edge.dataset['measure'] = 'widthLargest';
    const field = edge.appendChild(document.createElement('input'));
    const at = (key: string) => k.actionFor(press({ key }, field));
    expect([at('n'), at('z'), at('?'), at('ArrowDown')]).toEqual(['new', 'undo', 'help', 'down']);
    // a digit begins a length, not a stage
    expect([at('1'), at('5')]).toEqual([null, null]);
    // 35 in: once something stands there, letters are written
    field.value = '35';
    expect([at('n'), at('u'), at('ArrowDown'), at('ArrowUp')]).toEqual([null, null, 'down', 'up']);
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
