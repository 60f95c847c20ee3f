/** Reading SVG: examples, the W3C's own files and an icon set drawn again from our reading, hostile files. */
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { describe, expect, test } from 'vitest';
import { readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { regionBox } from '../../src/core/geometry/path';
import { LIMITS } from '../../src/core/limits';
import { folder } from '../support/checkers';
import { drawFound } from '../support/draw-found';
import { figure } from '../support/figures';
import { sample } from '../support/scale';
import { strayColours } from '../support/stray-colours';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const svg = (attributes: string, body: string): Uint8Array =>
  bytesOf(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`);

function read(bytes: Uint8Array): ReadDrawing {
  const reading = readDrawing(bytes);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
}

const refusal = (bytes: Uint8Array): string => {
  const reading = readDrawing(bytes);
  return reading.ok ? 'was read' : reading.sentence;
};

const boxOfAll = (found: ReadDrawing) => regionBox(found.shapes.flatMap((s) => s.paths));

describe('what is read of an SVG', () => {
  test('true size from millimetres, inches and pixels, y upwards', () => {
    const square = '<path d="M1 1h2v3h-2z"/>';
    const mm = read(svg('width="40mm" height="20mm" viewBox="0 0 40 20"', square));
    expect(boxOfAll(mm)).toMatchObject({
      minX: expect.closeTo(1, 9),
      maxX: expect.closeTo(3, 9),
      minY: expect.closeTo(16, 9),
      maxY: expect.closeTo(19, 9),
    });
    expect(mm.claim).toMatchObject({ unit: 'millimetres', stated: true, mmPerUnit: expect.closeTo(1, 9) });
    const inches = read(svg('width="4in" height="2in" viewBox="0 0 4 2"', square));
    expect(boxOfAll(inches).maxX).toBeCloseTo(76.2, 9);
    const pixels = read(svg('width="96" height="96"', square));
    expect(boxOfAll(pixels).maxX).toBeCloseTo((3 * 25.4) / 96, 9);
    expect(pixels.claim).toMatchObject({ unit: 'pixels of 1/96 inch', stated: false });
  });

  test('round things stay arcs, also turned and mirrored; unequal scales make curves', () => {
    const kinds = (transform: string) =>
      read(
        svg('width="9mm" height="9mm" viewBox="0 0 9 9"', `<circle r="2" cx="4" cy="4" transform="${transform}"/>`),
      ).shapes[0]?.paths[0]?.segments.map((s) => s.kind);
    expect(kinds('rotate(30)')).toEqual(['arc', 'arc', 'arc', 'arc']);
    expect(kinds('scale(-1 1)')).toEqual(['arc', 'arc', 'arc', 'arc']);
    expect(new Set(kinds('scale(2 1)'))).toEqual(new Set(['cubic']));
  });

  test('groups, colours and fills are told apart', () => {
    const found = read(
      svg(
        'width="9mm" height="9mm"',
        '<g id="frame"><title>Frame</title><path d="M0 0h1" stroke="#c00" fill="none"/></g><style>.n{fill:navy}</style><rect class="n" width="1" height="1"/>',
      ),
    );
    expect(found.groups).toEqual([
      { name: 'Frame', colour: '#cc0000', filled: false },
      { name: '', colour: '#000080', filled: true },
    ]);
  });

  test('words come as lines with place and size', () => {
    const found = read(
      svg(
        'width="100mm" height="50mm" viewBox="0 0 100 50"',
        '<text x="10" y="20" font-size="10" font-family="Example Serif, serif" text-anchor="middle">Open\n  daily<tspan x="10" dy="12">9 to 5</tspan></text>',
      ),
    );
    expect(found.texts.map((t) => t.text)).toEqual(['Open daily', '9 to 5']);
    expect(found.texts[0]).toMatchObject({
      align: 'centre',
      capitalMm: 7,
      face: 'Example Serif',
      matrix: { e: expect.closeTo(10, 9), f: expect.closeTo(30, 9) },
    });
    expect(found.texts[1]?.matrix.f).toBeCloseTo(18, 9);
  });

  test('a path that breaks off keeps what comes before the fault', () => {
    const found = read(svg('width="9mm" height="9mm"', '<path d="M0 0L5 0L5 5L9 x"/>'));
    expect(found.shapes[0]?.paths[0]?.segments).toHaveLength(2);
    expect(found.unread).toEqual([{ kind: 'outlines that break off, read up to there', count: 1 }]);
  });

  test('what cannot be read is counted by kind', () => {
    const found = read(
      svg(
        'width="9mm" height="9mm"',
        '<image href="file:///x"/><image href="https://example.org/x.png"/><use href="other.svg#a"/><path d="M0 0h1v1z" display="none"/><path d="M0 0h1v1z"/>',
      ),
    );
    expect(found.unread).toEqual([
      { kind: 'pictures', count: 2 },
      { kind: 'uses of shapes in other files', count: 1 },
      { kind: 'hidden shapes and groups', count: 1 },
    ]);
    expect(found.shapes).toHaveLength(1);
  });
});

describe('files that are broken or mean harm', () => {
  test('each is answered with a sentence', { tags: 'slow' }, () => {
    expect(refusal(new Uint8Array(0))).toBe('This file is empty.');
    expect(refusal(bytesOf('\x89PNG\r\n'))).toMatch(/no drawing|picture/);
    expect(refusal(Uint8Array.from([0x89, 0x50, 0x4e, 0x47]))).toMatch(/picture/);
    expect(refusal(bytesOf('%PDF-1.4'))).toMatch(/pages/);
    expect(refusal(Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) % 251))).toMatch(
      /no drawing that can be read/,
    );
    expect(refusal(bytesOf('<html><body/></html>'))).toMatch(/no drawing/);
    expect(refusal(new Uint8Array(LIMITS.drawingBytes + 1).fill(32))).toMatch(/64 MB/);
    expect(refusal(gzipSync(gzipSync(bytesOf('<svg/>'))))).toMatch(/more than once/);
    expect(refusal(gzipSync(new Uint8Array(LIMITS.drawingBytes + (1 << 20)).fill(32)))).toMatch(/Unpacked/);
  });

  test('a file that breaks off gives what came before and says so', () => {
    const whole = new TextDecoder().decode(svg('width="9mm" height="9mm"', '<path d="M0 0h1v1z"/>'.repeat(50)));
    const found = read(bytesOf(whole.slice(0, 600)));
    expect(found.shapes.length).toBeGreaterThan(10);
    expect(found.notes[0]).toMatch(/damaged/);
  });

  test('bombs: entities, uses in uses, depth, loops, numbers that are none', { tags: 'slow' }, () => {
    const laughs = `<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg"><text>&b;</text></svg>`;
    expect(read(bytesOf(laughs)).shapes).toHaveLength(0);
    const uses = Array.from(
      { length: 30 },
      (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/></g>`,
    ).join('');
    const bomb = read(svg('width="9mm" height="9mm"', `<path id="g0" d="M0 0h1v1z"/>${uses}`));
    expect(bomb.notes[0]).toMatch(/more than 20,000 times/);
    expect(bomb.shapes.length).toBeLessThanOrEqual(LIMITS.usedShapes + 1);
    const deep = read(
      svg(
        'width="9mm" height="9mm"',
        `${'<g>'.repeat(3_000)}<path d="M0 0h1v1z"/>${'</g>'.repeat(3_000)}<path d="M0 0h1v1z"/>`,
      ),
    );
    expect(deep.shapes).toHaveLength(1);
    expect(deep.unread[0]?.kind).toMatch(/256 levels deep/);
    const abyss = read(svg('width="9mm" height="9mm"', `<path d="M0 0h1v1z"/>${'<g>'.repeat(400_000)}`));
    expect(abyss.shapes).toHaveLength(1);
    expect(abyss.notes[0]).toMatch(/4,000 levels deep/);
    const loop = read(svg('width="9mm" height="9mm"', '<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'));
    expect(loop.unread[0]?.kind).toBe('shapes that use themselves');
    const odd = read(
      svg(
        'width="9mm" height="9mm"',
        '<path d="M0 0L1e300 1"/><path d="M0 0h1v1z" transform="scale(NaN)"/><circle r="1e99"/><path d="M0 0h1v1z"/>',
      ),
    );
    expect(odd.shapes.length).toBeGreaterThan(0);
    expect(odd.unread.map((u) => u.kind)).toContain('paths with places that are not numbers or beyond 100 m');
  });

  test('more than the limits: groups, words, lines, rules, faults, entities, dashes', { tags: 'slow' }, () => {
    const page = (body: string) => read(svg('width="9mm" height="9mm"', body));
    const many = (n: number, make: (i: number) => string) => Array.from({ length: n }, (_, i) => make(i)).join('');
    const groups = page(many(LIMITS.drawnGroups + 50, (i) => `<g id="g${i}"><path d="M0 0h1v1z"/></g>`));
    expect([groups.groups.length, groups.shapes.length]).toEqual([LIMITS.drawnGroups, LIMITS.drawnGroups + 50]);
    expect(groups.notes[0]).toMatch(/more than 400 layers and colours/);
    const words = page(many(LIMITS.drawnTexts + 7, () => '<text>a</text>'));
    expect(words.texts).toHaveLength(LIMITS.drawnTexts);
    expect(words.unread).toEqual([{ kind: 'lines of words beyond the first 1,000', count: 7 }]);
    expect(page(`<text>${'a'.repeat(LIMITS.drawnWords + 1)}</text><path d="M0 0h1v1z"/>`).texts).toHaveLength(0);
    const heavy = `<path d="M0 0${'h1v1'.repeat(LIMITS.drawnSegments / 8)}"/>`;
    const full = page(heavy.repeat(5));
    expect(full.shapes).toHaveLength(4);
    expect(full.notes[0]).toMatch(/more than 1,000,000 lines and curves/);
    const rules = page(
      `<style>${many(LIMITS.styleRules + 1, (i) => `.r${i}{fill:red}`)}</style><path class="r${LIMITS.styleRules}" d="M0 0h1v1z"/>`,
    );
    expect(rules.groups[0]?.colour).toBe('#000000');
    const slow = page(
      `<style>${many(LIMITS.styleRules, () => '*{fill:red}')}</style>${many(LIMITS.styleTests / LIMITS.styleRules, () => '<g/>')}`,
    );
    expect(slow.unread.map((u) => u.kind)).toContain('rules of a style sheet');
    const faulty = page(`<path d="M0 0h1v1z"/>${'<p a=1/>'.repeat(2 * LIMITS.markupFaults)}<path d="M0 0h1v1z"/>`);
    expect(faulty.shapes).toHaveLength(1);
    const entity = (k: number) =>
      read(
        bytesOf(
          `<!DOCTYPE svg [${many(k, (i) => `<!ENTITY e${i} "${i}">`)}]><svg xmlns="http://www.w3.org/2000/svg"><text>&e${k - 1};</text></svg>`,
        ),
      );
    expect(entity(LIMITS.entities).texts[0]?.text).toBe(String(LIMITS.entities - 1));
    expect(entity(LIMITS.entities + 1).notes).toHaveLength(1);
    const long = `<!DOCTYPE svg [<!ENTITY e "${'a'.repeat(LIMITS.entityCharacters + 1)}">]><svg xmlns="http://www.w3.org/2000/svg"><text>&e;</text></svg>`;
    expect(read(bytesOf(long)).notes).toHaveLength(1);
    const dashed = page(`<path stroke="red" stroke-dasharray="${'1 '.repeat(2 * LIMITS.dashes)}" d="M0 0h1"/>`);
    expect(dashed.shapes[0]?.stroke?.dashesMm).toHaveLength(LIMITS.dashes);
    const elements = page('<g/>'.repeat(LIMITS.drawnElements + 1));
    expect(elements.notes[0]).toMatch(/more than 500,000 elements/);
  });

  test('the crash and error files of a renderer: each is answered', { tags: 'slow' }, () => {
    const fixtures = '/usr/libexec/installed-tests/RSVG/fixtures';
    for (const set of ['crash', 'errors', 'render-crash'])
      for (const file of readdirSync(path.join(fixtures, set))) {
        if (!/\.svgz?$/.test(file)) continue;
        const reading = readDrawing(readFileSync(path.join(fixtures, set, file)));
        if (!reading.ok) expect(reading.sentence, file).toMatch(/^[A-Z].*\.$/);
        else expect(reading.found.shapes.length, file).toBeLessThanOrEqual(LIMITS.drawnElements);
      }
  });
});

describe('drawn again from our reading by an independent renderer', () => {
  const work = folder();
  const draw = (file: string, width: number, height: number): PNG => {
    execFileSync('rsvg-convert', ['-w', `${width}`, '-h', `${height}`, '-b', 'white', '-o', `${file}.png`, file]);
    return PNG.sync.read(readFileSync(`${file}.png`));
  };
  const strays = (source: string, name: string, scale: number): number => {
    const found = read(bytesOf(source));
    const page = found.page as { width: number; height: number };
    const [w, h] = [page.width, page.height].map((mm) => Math.max(1, Math.round((mm / 25.4) * 96 * scale))) as [
      number,
      number,
    ];
    const theirs = path.join(work, `${name}.svg`);
    const ours = path.join(work, `${name}.ours.svg`);
    writeFileSync(theirs, source);
    writeFileSync(ours, drawFound(found));
    return strayColours(draw(theirs, w, h), draw(ours, w, h));
  };

  // Words are set anew and pictures are not read; shades, marks, masks and filters are not outlines.
  const dir = '/usr/libexec/installed-tests/RSVG/fixtures/reftests/svg1.1';
  const isStatic = /^(coords|masking-path|painting-control|painting-stroke|paths|shapes|struct|styling|types)-.*\.svg$/;
  const files = readdirSync(dir).filter((f) => isStatic.test(f));

  test('the static files of the W3C’s tests', { tags: 'slow' }, () => {
    const every = sample(4, 1);
    const tried = files.filter((_, i) => i % every === 0);
    const off = tried.filter((file) => {
      const source = readFileSync(path.join(dir, file), 'utf8')
        .replace(/<text[\s>][\s\S]*?<\/text>/g, '')
        .replace(/<image[^>]*?\/>/g, '');
      return strays(source, file, 2) > 0;
    });
    // At least 50 of 55.
    expect(tried.length - off.length, off.join()).toBeGreaterThanOrEqual(Math.ceil((tried.length * 50) / 55));
    figure({
      name: 'W3C SVG files that differ outside one pixel',
      value: off.length,
      digits: 0,
      aim: { most: Math.floor((files.length * 5) / 55) },
      note: `of ${tried.length}: ${off.map((f) => f.replace(/\.svg$/, '')).join(', ')}`,
    });
  });

  test('an icon set', { tags: 'slow' }, () => {
    const icons = '/usr/share/bootstrap-icons/svg';
    const all = readdirSync(icons).filter((f) => f.endsWith('.svg'));
    const tried = all.filter((_, i) => i % sample(120, 1) === 0);
    const off = tried.filter(
      (f) => strays(readFileSync(path.join(icons, f), 'utf8').replaceAll('currentColor', 'black'), f, 8) > 0,
    );
    expect(off).toEqual([]);
    figure({
      name: 'Icons that differ outside one pixel',
      value: off.length,
      digits: 0,
      aim: { most: 0 },
      note: `of ${tried.length}`,
    });
  });
});

describe('values that are long and lead nowhere', () => {
  const page = 'width="9mm" height="9mm" viewBox="0 0 9 9"';
  const MANY = 300_000;
  const path = (attribute: string) => `<path d="M1 1h2v3h-2z" ${attribute}/>`;

  // Each took the square of its length: hours for one of these. What hangs is ended by the test's own time.
  test.each<[string, string]>([
    ['declarations without values', path(`style="${'fill:;'.repeat(MANY)}"`)],
    ['separators', path(`style="${';'.repeat(MANY)}"`)],
    ['declarations nobody knows', path(`style="${'a:b;'.repeat(MANY)}"`)],
    ['comments that are not closed', path(`style="fill:red;${'/*;'.repeat(MANY)}"`)],
    ['brackets that are not closed', path(`style="${'fill:(;'.repeat(MANY)}"`)],
    ['spaces before what is important', path(`style="fill:red${' '.repeat(MANY)}!x"`)],
    ['a width of digits', path(`stroke="red" stroke-width="${'1'.repeat(MANY)}x"`)],
    ['a width and spaces', path(`stroke="red" stroke-width="1${' '.repeat(MANY)}x"`)],
    ['dashes of digits', path(`stroke="red" stroke-dasharray="${'1'.repeat(MANY)}."`)],
    ['a transform of spaces', path(`transform="${' '.repeat(MANY)}x"`)],
    ['a colour of digits', path(`fill="rgb(${'1'.repeat(MANY)}"`)],
    ['a reference that is not closed', path(`fill="url(#a${' '.repeat(MANY)}"`)],
    ['references in place of references', path(`fill="${'url(#a) '.repeat(MANY)}"`)],
    ['a typeface of digits', `<text style="font:${'1'.repeat(MANY)}">oak</text>${path('')}`],
    ['imports that are not closed', `<style>${'@import '.repeat(MANY)}</style>${path('')}`],
    ['a selector of brackets', `<style>${'['.repeat(MANY)}{fill:red}</style>${path('')}`],
    ['a selector of commas', `<style>${'(,'.repeat(MANY)}{fill:red}</style>${path('')}`],
    ['a selector of selectors', `<style>${':not('.repeat(MANY)}{fill:red}</style>${path('')}`],
  ])('%s', (_what, body) => {
    expect(read(svg(page, body)).shapes.length).toBeLessThanOrEqual(1);
  });

  test('a chain of uses, or of clips, is as deep as it is long', () => {
    const links = (n: number, link: (i: number) => string) => Array.from({ length: n }, (_, i) => link(i + 1)).join('');
    const chain = (n: number) =>
      `<defs><path id="u0" d="M1 1h2v3h-2z"/>${links(n, (i) => `<use id="u${i}" href="#u${i - 1}"/>`)}</defs><use href="#u${n}"/>`;
    expect(read(svg(page, chain(200)))).toMatchObject({ shapes: { length: 1 }, unread: [] });
    const deep = read(svg(page, `${chain(10_000)}<path d="M1 1h2v3h-2z"/>`));
    expect(deep).toMatchObject({ shapes: { length: 1 }, unread: [{ kind: 'elements more than 256 levels deep' }] });
    const clip = (i: number) => `<clipPath id="c${i}" clip-path="url(#c${i - 1})"><path d="M0 0h9v9h-9z"/></clipPath>`;
    const clipped = read(svg(page, `${links(10_000, clip)}<path clip-path="url(#c10000)" d="M1 1h2v3h-2z"/>`));
    expect(clipped).toMatchObject({ shapes: { length: 1 }, unread: [{ kind: 'elements more than 256 levels deep' }] });
  });

  test('what stands in brackets or quotes holds together, and what is important wins', () => {
    const colour = (style: string) =>
      read(svg(page, `<path d="M1 1h2v3h-2z" fill="blue" style="${style}"/>`)).groups[0]?.colour;
    expect(colour('fill:url(#a;b) red')).toBe('#ff0000');
    expect(colour("font-family:'a;fill:green';fill:red")).toBe('#ff0000');
    expect(colour('a:(;fill:red')).toBe('#ff0000');
    expect(colour('fill:red ! important;fill:green')).toBe('#ff0000');
    expect(colour('fill:red/*;fill:green')).toBe('#ff0000');
    expect(colour('/* fill:green; */fill:red')).toBe('#ff0000');
    expect(colour('fill:url(#none) url(#none) red')).toBe(colour('fill:url(#none)'));
    const sheet = read(svg(page, '<style>[a="x,y"],.b{fill:red}</style><path d="M1 1h2v3h-2z" a="x,y"/>'));
    expect(sheet.groups[0]?.colour).toBe('#ff0000');
  });
});
