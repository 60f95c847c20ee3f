/** A drawing as it was read, written down as plain SVG for an independent renderer. */
import type { ReadDrawing, ReadShape } from '../../src/core/formats/read-drawing';
import { pathData } from '../../src/core/geometry/path-data';

export function drawFound(found: ReadDrawing): string {
  const { width, height } = found.page ?? { width: 100, height: 100 };
  const defs: string[] = [];
  found.clips.forEach((clip, i) => {
    const shapes = clip.map((shape) => {
      const inner = chain(shape.clips);
      const path = `<path d="${pathData(shape.paths, height, 9)}" clip-rule="${shape.rule}"${inner}/>`;
      return path;
    });
    defs.push(`<clipPath id="c${i}">${shapes.join('')}</clipPath>`);
  });
  let chains = 0;
  /** One clip that is all of several: each clips the next. */
  function chain(clips: readonly number[]): string {
    if (clips.length === 0) return '';
    let last = '';
    for (const clip of clips) {
      const id = `k${chains++}`;
      const shapes = (found.clips[clip] ?? []).map((shape) => {
        const own = shape.clips.length > 0 ? chain(shape.clips) : '';
        return `<path d="${pathData(shape.paths, height, 9)}" clip-rule="${shape.rule}"${own}/>`;
      });
      defs.push(`<clipPath id="${id}"${last}>${shapes.join('')}</clipPath>`);
      last = ` clip-path="url(#${id})"`;
    }
    return last;
  }
  const draw = (shape: ReadShape): string => {
    const { fill, stroke } = shape;
    const line = stroke
      ? ` stroke="${stroke.colour}" stroke-width="${stroke.widthMm}" stroke-linecap="${stroke.cap}" stroke-linejoin="${stroke.join}"` +
        ` stroke-miterlimit="${stroke.miter}"${stroke.dashesMm.length > 0 ? ` stroke-dasharray="${stroke.dashesMm.join(' ')}" stroke-dashoffset="${stroke.dashOffsetMm}"` : ''}`
      : '';
    const area = fill ? ` fill="${fill.colour}" fill-rule="${fill.rule}"` : ' fill="none"';
    // A group around it for each clip: not every renderer clips clips of clips.
    const open = shape.clips.map((clip) => `<g clip-path="url(#c${clip})">`).join('');
    const path = `<path d="${pathData(shape.paths, height, 9)}"${area}${line}/>`;
    return open + path + '</g>'.repeat(shape.clips.length);
  };
  const body = found.shapes.map(draw).join('\n');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}"><defs>${defs.join('')}</defs>\n${body}</svg>`;
}
