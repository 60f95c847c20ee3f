/** Kept files asked for at about the same time come in one answer. */
import { expect, test } from 'vitest';
import { bundled, unbundled } from '../../src/api/bundle';
import { LIMITS } from '../../src/core/limits';
import { Assets } from '../../src/worker/assets';

const bytes = (...values: number[]) => Uint8Array.from(values);

/** A server with some files, and what it was asked. */
function serverWith(files: Readonly<Record<string, Uint8Array>>, leftOut: readonly string[] = []) {
  const asked: string[] = [];
  let then: () => void = () => {};
  const assets = new Assets(
    async (address) => {
      asked.push(address);
      const several = /ids=(.*)$/.exec(address)?.[1]?.split(',');
      if (several) return bundled(several.map((id) => (leftOut.includes(id) ? null : (files[id] ?? null))));
      const one = files[address.split('/').pop() ?? ''];
      if (!one) throw new Error('404');
      return one;
    },
    (call) => {
      then = call;
    },
  );
  return { assets, asked, go: () => then() };
}

test('bodies of several files give these again, those that are not there as nothing', () => {
  const files = [bytes(1, 2, 3), null, bytes(), bytes(255)];
  expect(unbundled(bundled(files))).toEqual(files);
  expect(unbundled(bundled([]))).toEqual([]);
  expect(() => unbundled(bundled(files).subarray(0, 5))).toThrow('did not arrive whole');
});

test('one file is asked for by itself, several together, more than go at once in several answers', async () => {
  const ids = Array.from({ length: LIMITS.assetsAtOnce + 2 }, (_, i) => `f${i}`);
  const { assets, asked, go } = serverWith(Object.fromEntries(ids.map((id, i) => [id, bytes(i)])));
  const one = assets.fetch('f3');
  go();
  expect(await one).toEqual(bytes(3));
  expect(asked).toEqual(['/api/assets/f3']);
  const all = ids.map((id) => assets.fetch(id));
  go();
  expect(await Promise.all(all)).toEqual(ids.map((_, i) => bytes(i)));
  expect(asked.slice(1)).toEqual([
    `/api/assets?ids=${ids.slice(0, LIMITS.assetsAtOnce).join()}`,
    `/api/assets?ids=${ids.slice(LIMITS.assetsAtOnce).join()}`,
  ]);
});

test('what is left out of an answer is asked for by itself; what is not there fails alone', async () => {
  const { assets, go } = serverWith({ a: bytes(1), b: bytes(2) }, ['b']);
  const [a, b, gone] = [assets.fetch('a'), assets.fetch('b'), assets.fetch('gone')];
  go();
  expect(await a).toEqual(bytes(1));
  expect(await b).toEqual(bytes(2));
  await expect(gone).rejects.toThrow('404');
});

test('a server that is away fails all that were asked for, and the next may go well', async () => {
  let isAway = true;
  let then: () => void = () => {};
  const assets = new Assets(
    async () => {
      if (isAway) throw new Error('away');
      return bytes(7);
    },
    (call) => {
      then = call;
    },
  );
  const both = [assets.fetch('a'), assets.fetch('b')];
  then();
  for (const one of both) await expect(one).rejects.toThrow('away');
  isAway = false;
  const again = assets.fetch('a');
  then();
  expect(await again).toEqual(bytes(7));
});
