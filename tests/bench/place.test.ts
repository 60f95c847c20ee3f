/** The address of the page says where on the bench one is. */
import { afterEach, describe, expect, test, vi } from 'vitest';
import { placeFromAddress, placeToAddress } from '../../src/bench/place';

afterEach(() => {
  vi.unstubAllGlobals();
});

describe('the address', () => {
  const at = (search: string) => {
    const replaced: string[] = [];
    vi.stubGlobal('window', { location: { search, pathname: '/jobs/1' }, history: { state: 7 } });
    vi.stubGlobal('History', {
      prototype: { replaceState: (_state: unknown, _title: string, url: string) => replaced.push(url) },
    });
    return replaced;
  };

  test('says station, part and member, and is read back', () => {
    for (const place of [
      { station: 'compose', partId: null, memberId: null },
      { station: 'hold', partId: 'part-1', memberId: null },
      { station: 'fill', partId: 'part-1', memberId: 'words' },
    ]) {
      const replaced = at('?at=prove');
      placeToAddress(place);
      const url = replaced[0] ?? '';
      expect(url.startsWith('/jobs/1')).toBe(true);
      at(url.slice('/jobs/1'.length));
      expect(placeFromAddress()).toEqual(place);
    }
  });

  test('is not written again when it is the same; a station there is not is the first', () => {
    const replaced = at('?at=hold&on=part-1/words');
    placeToAddress({ station: 'hold', partId: 'part-1', memberId: 'words' });
    expect(replaced).toEqual([]);
    at('?at=nowhere');
    expect(placeFromAddress()).toEqual({ station: 'compose', partId: null, memberId: null });
  });
});
