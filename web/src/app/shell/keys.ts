import { Injectable, signal } from '@angular/core';

/** One plain key and what it does; in a field it acts with Alt. */
export interface KeyAction {
  readonly id: string;
  readonly key: string;
  readonly label: string;
}

/** The keys as shipped. Letters may be changed; arrows stay. */
const shippedKeys: readonly KeyAction[] = [
  { id: 'measure', key: '1', label: 'Measure' },
  { id: 'choose', key: '2', label: 'Choose' },
  { id: 'cut', key: '3', label: 'Cut' },
  { id: 'prepare', key: '4', label: 'Prepare' },
  { id: 'lay', key: '5', label: 'Lay' },
  { id: 'check', key: '6', label: 'Check' },
  { id: 'hand-over', key: '7', label: 'Hand over' },
  { id: 'up', key: 'ArrowUp', label: 'Surface before' },
  { id: 'down', key: 'ArrowDown', label: 'Next surface' },
  { id: 'new', key: 'n', label: 'New pane' },
  { id: 'copy', key: 'c', label: 'Copy: a pane like this one' },
  { id: 'side', key: 'm', label: 'Other side (mirror)' },
  { id: 'units', key: 'u', label: 'mm or inches' },
  { id: 'undo', key: 'z', label: 'Undo your last edit' },
  { id: 'redo', key: 'Z', label: 'Redo' },
  { id: 'find', key: '/', label: 'Find a pane' },
  { id: 'help', key: '?', label: 'All keys' },
];

const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement ||
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement ||
  (target instanceof HTMLElement && target.isContentEditable === true);

/** A field that a length is typed into. */
const lengthField = (target: EventTarget | null): HTMLInputElement | null =>
  target instanceof HTMLInputElement && target.closest('[data-measure]') ? target : null;
/** What no length begins with: such a key in an empty field of a length, and the arrows up and down in any, are no writing. */
const isNoWriting = (event: KeyboardEvent): boolean => {
  const field = lengthField(event.target);
  if (!field || event.altKey) return false;
  return event.key === 'ArrowUp' || event.key === 'ArrowDown' || (field.value === '' && !/^[\d.,\-−]$/.test(event.key));
};

/** Plain keys act only when no field has the focus, or where they cannot be meant as writing; they can be switched off or changed, and that is kept on this device. */
@Injectable({ providedIn: 'root' })
export class Keys {
  readonly enabled = signal(localStorage.getItem('yp-keys') !== 'off');
  readonly actions = signal<readonly KeyAction[]>(this.load());

  private load(): readonly KeyAction[] {
    const own = JSON.parse(localStorage.getItem('yp-key-map') ?? '{}') as Record<string, string>;
    return shippedKeys.map((a) => ({ ...a, key: own[a.id] ?? a.key }));
  }

  setEnabled(on: boolean): void {
    localStorage.setItem('yp-keys', on ? 'on' : 'off');
    this.enabled.set(on);
  }

  /** Gives an action another key; a key that is taken is refused. */
  change(id: string, key: string): boolean {
    if (key.length !== 1 || this.actions().some((a) => a.key === key && a.id !== id)) return false;
    this.actions.update((all) => all.map((a) => (a.id === id ? { ...a, key } : a)));
    localStorage.setItem('yp-key-map', JSON.stringify(Object.fromEntries(this.actions().map((a) => [a.id, a.key]))));
    return true;
  }

  /** The action of a key press, or null. */
  actionFor(event: KeyboardEvent): string | null {
    if (!this.enabled() || event.ctrlKey || event.metaKey || event.defaultPrevented) return null;
    if (!isNoWriting(event) && inField(event.target) !== event.altKey) return null;
    if (event.target instanceof HTMLElement && event.target.closest('dialog, [role=dialog]')) return null;
    const key =
      event.altKey && event.key.length === 1 && event.code.startsWith('Key') ? (event.shiftKey ? event.code[3]! : event.code[3]!.toLowerCase()) : event.key;
    return this.actions().find((a) => a.key === key)?.id ?? null;
  }
}
