/** The way in from the network: who knows the passphrase, for as long as the session goes on, and slower with each wrong try. */
import { beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { Entrance, keptPassphrase } from '../../src/serve/entrance';
import type { Passphrase } from '../../src/server/settings';

const WORDS = 'four oak boards';
let kept: Passphrase;
let now: number;
let entrance: Entrance;

beforeAll(async () => {
  kept = await keptPassphrase(WORDS);
});
beforeEach(() => {
  now = 1_000_000;
  entrance = new Entrance(kept, () => now);
});

const cookieOf = async (isEncrypted = false): Promise<string> => {
  const tried = await entrance.enter('10.0.0.1', WORDS, isEncrypted);
  if (!('cookie' in tried)) throw new Error('not in');
  return tried.cookie;
};
const session = (cookie: string) => cookie.split(';')[0] as string;

describe('a session', () => {
  test('comes with the passphrase, in a cookie that no script reads and no other site sends', async () => {
    const cookie = await cookieOf();
    expect(cookie).toMatch(/; HttpOnly; SameSite=Strict$/);
    expect(await cookieOf(true)).toMatch(/; HttpOnly; SameSite=Strict; Secure$/);
    expect(entrance.isIn(session(cookie))).toBe(true);
    expect(entrance.isIn(`other=1; ${session(cookie)}; more=2`)).toBe(true);
  });

  test('goes on for thirty days, and after the server was started anew', async () => {
    const held = session(await cookieOf());
    now += 30 * 24 * 3_600_000 - 1;
    expect(new Entrance(kept, () => now).isIn(held)).toBe(true);
    now += 1;
    expect(entrance.isIn(held)).toBe(false);
  });

  test('ends with another passphrase, also with the same words', async () => {
    const held = session(await cookieOf());
    expect(new Entrance(await keptPassphrase(WORDS), () => now).isIn(held)).toBe(false);
  });

  test('is none that was made up or changed', async () => {
    const held = session(await cookieOf());
    const [name, value = ''] = held.split('=');
    const later = `${Number(value.split('.')[0]) + 1}.${value.split('.')[1]}`;
    for (const odd of [
      undefined,
      '',
      `${name}=`,
      `${name}=${later}`,
      `${name}=${value}x`,
      `${name}=${value.slice(0, -1)}`,
      `x${held}`,
      `${name}=9999999999999.`,
      `${name}=NaN.x`,
    ])
      expect(entrance.isIn(odd), odd).toBe(false);
  });
});

describe('a passphrase', () => {
  test('is kept as nobody can read it, and differently each time', async () => {
    const again = await keptPassphrase(WORDS);
    expect(JSON.stringify(kept)).not.toContain('oak');
    expect(again.key).not.toBe(kept.key);
  });

  test('is the same however its accents were typed', async () => {
    const accented = new Entrance(await keptPassphrase('caf\u00e9 au lait'), () => now);
    expect(await accented.enter('a', 'cafe\u0301 au lait', false)).toHaveProperty('cookie');
  });
});

describe('wrong tries', () => {
  test('make their address wait, each twice as long, up to a minute; the right words do not help meanwhile', async () => {
    const waits: number[] = [];
    for (let i = 0; i < 8; i++) {
      const tried = await entrance.enter('10.0.0.1', `wrong ${i}`, false);
      if (!('waitMs' in tried)) throw new Error('in');
      expect(tried.isWrong).toBe(true);
      waits.push(tried.waitMs);
      now += tried.waitMs - 1;
      expect(await entrance.enter('10.0.0.1', WORDS, false)).toEqual({ waitMs: 1, isWrong: false });
      now += 1;
    }
    expect(waits).toEqual([1, 2, 4, 8, 16, 32, 60, 60].map((s) => s * 1000));
    // Others are not held up, and once in, all is forgotten.
    expect(await entrance.enter('10.0.0.2', WORDS, false)).toHaveProperty('cookie');
    expect(await entrance.enter('10.0.0.1', WORDS, false)).toHaveProperty('cookie');
    expect(await entrance.enter('10.0.0.1', 'wrong', false)).toEqual({ waitMs: 1000, isWrong: true });
  });

  test('sent all at once are tried one after the other, and only the first counts', async () => {
    const tries = await Promise.all(['a', 'b', 'c', WORDS].map((words) => entrance.enter('10.0.0.1', words, false)));
    expect(tries).toEqual([
      { waitMs: 1000, isWrong: true },
      { waitMs: 1000, isWrong: false },
      { waitMs: 1000, isWrong: false },
      { waitMs: 1000, isWrong: false },
    ]);
  });
});
