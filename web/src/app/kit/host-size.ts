import { DestroyRef, ElementRef, inject, signal, type Signal } from '@angular/core';

/** Size in px of the element that a component stands in, as it changes. For use while a component is made. @param before what is taken until it has been laid out */
export function hostSize(before: { w: number; h: number }): Signal<{ w: number; h: number }> {
  const size = signal(before);
  const watch = new ResizeObserver(([entry]) => {
    if (entry && entry.contentRect.width > 0) size.set({ w: entry.contentRect.width, h: entry.contentRect.height });
  });
  watch.observe(inject<ElementRef<HTMLElement>>(ElementRef).nativeElement);
  inject(DestroyRef).onDestroy(() => watch.disconnect());
  return size.asReadonly();
}
