import { randomInt } from 'node:crypto';
import type { AdmittedDevice } from '@yellow-pane/contracts';

/** Letters and digits that are not mistaken for one another. */
const SIGNS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
/** 8 of 31 signs: 2^39.6 codes, against no more tries than below. */
const LENGTH = 8;
/** @source house rule: long enough to fetch the phone from the van */
const GOOD_FOR_MS = 10 * 60_000;
/** A code that was guessed at so often is void. @source house rule */
const MOST_WRONG = 10;

type Who = Pick<AdmittedDevice, 'name' | 'personId'>;
interface Code extends Who {
  readonly code: string;
  readonly expiresAt: string;
}

/** The one code that is good now. It lives in memory alone: a bench that starts anew lets nobody in by an old one. */
export class Admission {
  private current: Code | null = null;
  private wrong = 0;

  constructor(private readonly now: () => Date) {}

  make(who: Who): Code {
    const code = Array.from({ length: LENGTH }, () => SIGNS[randomInt(SIGNS.length)]).join('');
    this.wrong = 0;
    return (this.current = { ...who, code: `${code.slice(0, 4)}-${code.slice(4)}`, expiresAt: new Date(this.now().getTime() + GOOD_FOR_MS).toISOString() });
  }

  /** The code that is good now, if there is one. */
  open(): Code | null {
    if (this.current && Date.parse(this.current.expiresAt) <= this.now().getTime()) this.current = null;
    return this.current;
  }

  /** Uses the code up. @returns for whom it was; null: it does not fit */
  take(typed: string): Who | null {
    const code = this.open();
    if (!code) return null;
    const plain = (text: string) => text.toUpperCase().replace(/[^A-Z0-9]/g, '');
    if (plain(typed) !== plain(code.code)) {
      if (++this.wrong >= MOST_WRONG) this.current = null;
      return null;
    }
    this.current = null;
    return { name: code.name, personId: code.personId };
  }

  void(): void {
    this.current = null;
  }
}
