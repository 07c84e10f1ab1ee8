import { inject, Injectable } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { TitleStrategy, type RouterStateSnapshot } from '@angular/router';

/** Names the browser tab after where one is. */
@Injectable()
export class JobTitles extends TitleStrategy {
  private readonly title = inject(Title);

  override updateTitle(state: RouterStateSnapshot): void {
    const name = this.buildTitle(state);
    this.title.setTitle(name ? `${name} · Yellow Pane` : 'Yellow Pane');
  }
}
