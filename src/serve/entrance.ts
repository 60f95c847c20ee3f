/**
 * The way in for others of the network: a passphrase, and then a session. Passphrases are kept as scrypt makes them; a session is a
 * time with a signature, so that nothing has to be remembered of it.
 */
import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import type { Passphrase } from '../server/settings';

const KEY_BYTES = 32;
/** Cost of scrypt: 32 MB and about a tenth of a second for each try. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const SESSION_MS = 30 * 24 * 3_600_000;
const COOKIE = 'needlefile-session';
/** The first wrong try of an address makes it wait so long, each further one twice as long as the one before, up to a limit. In ms. */
const FIRST_WAIT_MS = 1_000;
const LONGEST_WAIT_MS = 60_000;
/** Addresses whose wrong tries are remembered; of more, the one that is longest ago is forgotten. */
const MOST_ADDRESSES = 1_000;

const keyOf = (words: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(words.normalize('NFC'), salt, KEY_BYTES, COST, (fault, key) => (fault ? reject(fault) : resolve(key))),
  );

/** A passphrase as it is kept; all sessions of another one end with it. */
export async function keptPassphrase(words: string): Promise<Passphrase> {
  const salt = randomBytes(16);
  const key = await keyOf(words, salt);
  return { salt: salt.toString('hex'), key: key.toString('hex'), secret: randomBytes(32).toString('hex') };
}

/** What a try came to: in, with the cookie to set; or out, with how long to wait before the next, in ms. */
export type Try = { readonly cookie: string } | { readonly waitMs: number; readonly isWrong: boolean };

type Tries = { readonly wrong: number; readonly until: number };

/** Lets in who knows the passphrase, one try at a time. */
export class Entrance {
  readonly #passphrase: Passphrase;
  readonly #now: () => number;
  readonly #tries = new Map<string, Tries>();
  #last: Promise<unknown> = Promise.resolve();

  /** @param now the time in ms since 1970 */
  constructor(passphrase: Passphrase, now: () => number) {
    this.#passphrase = passphrase;
    this.#now = now;
  }

  #signed(until: number): string {
    const signature = createHmac('sha256', Buffer.from(this.#passphrase.secret, 'hex')).update(String(until));
    return `${until}.${signature.digest('base64url')}`;
  }

  /** Whether a Cookie header holds a session that goes on. */
  isIn(cookies: string | undefined): boolean {
    const held = (cookies ?? '').split(/;\s*/).flatMap((one) => {
      const [name, value] = one.split('=');
      return name === COOKIE && value ? [value] : [];
    });
    return held.some((session) => {
      const until = Number(/^(\d{1,16})\./.exec(session)?.[1]);
      const [given, right] = [Buffer.from(session), Buffer.from(this.#signed(until))];
      return until > this.#now() && given.length === right.length && timingSafeEqual(given, right);
    });
  }

  /**
   * Try a passphrase from an address of the network.
   * @param isEncrypted whether the line is: then the browser sends the cookie by such lines only
   */
  enter(address: string, words: string, isEncrypted: boolean): Promise<Try> {
    const tried = this.#last.then(() => this.#tryIt(address, words, isEncrypted));
    this.#last = tried.catch(() => {});
    return tried;
  }

  async #tryIt(address: string, words: string, isEncrypted: boolean): Promise<Try> {
    const before = this.#tries.get(address) ?? { wrong: 0, until: 0 };
    if (before.until > this.#now()) return { waitMs: before.until - this.#now(), isWrong: false };
    const { salt, key } = this.#passphrase;
    const given = await keyOf(words, Buffer.from(salt, 'hex'));
    this.#tries.delete(address);
    if (timingSafeEqual(given, Buffer.from(key, 'hex'))) {
      const session = this.#signed(this.#now() + SESSION_MS);
      const line = isEncrypted ? '; Secure' : '';
      const cookie = `${COOKIE}=${session}; Path=/; Max-Age=${SESSION_MS / 1000}; HttpOnly; SameSite=Strict${line}`;
      return { cookie };
    }
    const waitMs = Math.min(FIRST_WAIT_MS * 2 ** before.wrong, LONGEST_WAIT_MS);
    this.#tries.set(address, { wrong: before.wrong + 1, until: this.#now() + waitMs });
    const [oldest] = this.#tries.keys();
    if (this.#tries.size > MOST_ADDRESSES && oldest !== undefined) this.#tries.delete(oldest);
    return { waitMs, isWrong: true };
  }
}
