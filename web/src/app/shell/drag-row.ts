import { Directive, ElementRef, inject, Injector, type OnDestroy, output } from '@angular/core';
import type { DragRef, DropListRef } from '@angular/cdk/drag-drop';

/** A row whose children can be dragged to another place in it. What drags is fetched when a pointer first comes over the row: nobody waits for it before. */
@Directive({ selector: '[ypDragRow]', host: { '(pointerenter)': 'ready()' } })
export class DragRow implements OnDestroy {
  /** From where to where, counted from the left. */
  readonly moved = output<{ from: number; to: number }>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  private list: DropListRef | null = null;
  private items = new Map<Element, DragRef>();

  /** Panes come and go: the row is gone through anew each time. */
  protected async ready(): Promise<void> {
    const { createDragRef, createDropListRef } = await import('@angular/cdk/drag-drop');
    if (this.list?.isDragging()) return;
    if (!this.list) {
      this.list = createDropListRef(this.injector, this.host).withOrientation('mixed');
      this.list.dropped.subscribe((e) => this.moved.emit({ from: e.previousIndex, to: e.currentIndex }));
    }
    const children = [...this.host.nativeElement.children].filter((c): c is HTMLElement => c instanceof HTMLElement);
    for (const [element, ref] of this.items)
      if (!children.includes(element as HTMLElement)) {
        ref.dispose();
        this.items.delete(element);
      }
    for (const c of children) if (!this.items.has(c)) this.items.set(c, createDragRef(this.injector, c));
    this.list.withItems(children.map((c) => this.items.get(c)!));
  }

  ngOnDestroy(): void {
    for (const ref of this.items.values()) ref.dispose();
    this.list?.dispose();
  }
}
