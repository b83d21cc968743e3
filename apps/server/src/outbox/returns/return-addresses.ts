import { Inject, Injectable } from '@nestjs/common';
import { SecretBox } from '../../platform/auth/secret-box';
import { isId } from '../../platform/paging';

const WHAT = 'return address';
const MARK_BYTES = 8;
/** The id without its hyphens, and the mark: in hexadecimal, since some servers take no heed of capitals. */
const ADDRESS = /^r-([0-9a-f]{8})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{12})-([0-9a-f]{16})$/;

/** To which address a mail comes back: it names the mail, and nobody else can make one. */
@Injectable()
export class ReturnAddresses {
  constructor(@Inject(SecretBox) private readonly box: SecretBox) {}

  /** What stands before the `@`. */
  addressOf(id: string): string {
    return `r-${id.replaceAll('-', '')}-${this.#markOf(id).toString('hex')}`;
  }

  /** The id of the mail that an address names; `null` for one that was never given out. */
  idOf(address: string): string | null {
    const [, a, b, c, d, e, mark] = ADDRESS.exec(address.slice(0, 80).toLowerCase().split('@')[0]!) ?? [];
    const id = [a, b, c, d, e].join('-');
    return mark && isId(id) && this.box.isMarked(id, Buffer.from(mark, 'hex'), WHAT) ? id : null;
  }

  #markOf(id: string): Buffer {
    return this.box.mark(id, WHAT).subarray(0, MARK_BYTES);
  }
}
