import { TestBed } from '@angular/core/testing';
import { Tabs } from './tabs';

const leaves = [
  { id: 'roll', name: 'Roll' },
  { id: 'cost', name: 'Cost' },
  { id: 'stock', name: 'Stock' },
];

describe('a row of tabs', () => {
  const made = () => {
    const fixture = TestBed.createComponent(Tabs<string>);
    fixture.componentRef.setInput('tabs', leaves);
    fixture.componentRef.setInput('selected', 'roll');
    fixture.componentRef.setInput('label', 'What to look at');
    fixture.componentRef.setInput('prefix', 'look');
    fixture.detectChanges();
    const buttons = () => [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    const press = (key: string, at: HTMLButtonElement) => {
      const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
      const heard: string[] = [];
      const hear = (e: KeyboardEvent) => heard.push(e.key);
      document.addEventListener('keydown', hear);
      document.body.append(fixture.nativeElement as HTMLElement);
      at.dispatchEvent(event);
      document.removeEventListener('keydown', hear);
      fixture.detectChanges();
      return { event, heard };
    };
    return { fixture, buttons, press };
  };

  test('the chosen one is named to a screen reader, and only it is in the order of the Tab key', () => {
    const { buttons } = made();
    expect(buttons().map((b) => [b.getAttribute('aria-selected'), b.tabIndex, b.id])).toEqual([
      ['true', 0, 'look-roll'],
      ['false', -1, 'look-cost'],
      ['false', -1, 'look-stock'],
    ]);
  });
  test('a click chooses; arrows go round, Home and End to the ends, and the hand goes along', () => {
    const { fixture, buttons, press } = made();
    const chosen = () => fixture.componentInstance.selected();
    buttons()[1]!.click();
    expect(chosen()).toBe('cost');
    press('ArrowRight', buttons()[1]!);
    press('ArrowRight', buttons()[2]!);
    expect(chosen()).toBe('roll');
    press('ArrowLeft', buttons()[0]!);
    expect(chosen()).toBe('stock');
    expect(document.activeElement).toBe(buttons()[2]);
    press('Home', buttons()[2]!);
    expect(chosen()).toBe('roll');
    press('End', buttons()[0]!);
    expect(chosen()).toBe('stock');
  });
  test('an arrow is used up here and does not also go to the next surface; any other key goes on', () => {
    const { buttons, press } = made();
    expect(press('ArrowRight', buttons()[0]!).heard).toEqual([]);
    const z = press('z', buttons()[0]!);
    expect(z.heard).toEqual(['z']);
    expect(z.event.defaultPrevented).toBe(false);
  });
});
