import { InjectionToken } from '@angular/core';
import { Memo } from '@yellow-pane/core/ground';

/** What this page has had worked out: one for all that is shown in it. */
export const PageMemo = new InjectionToken<Memo>('what this page has had worked out', { providedIn: 'root', factory: () => new Memo() });
