/** Clipper2 as WebAssembly behind the engine's interface. Every object of its heap is freed here. */
import type { MainModule, PathsD } from 'clipper2-wasm/dist/clipper2z';
import { type ClipEngine, GRID_DIGITS, type TaggedPolygon } from './engine';

/** Asked for by the clipper, and used by no round corner. */
const MITRE = 2;

/** Load the WebAssembly engine; rejects where WebAssembly or the file can't be loaded. */
export async function loadWasmEngine(): Promise<ClipEngine> {
  const { default: start } = await import('clipper2-wasm/dist/es/clipper2z.js');
  const wasm: MainModule = await start();

  const toHeap = (polygons: readonly TaggedPolygon[]): PathsD => {
    const paths = new wasm.PathsD();
    for (const polygon of polygons) {
      const path = new wasm.PathD();
      path.assign(polygon);
      paths.push_back(path);
      path.delete();
    }
    return paths;
  };

  const fromHeap = (paths: PathsD): TaggedPolygon[] => {
    const out: TaggedPolygon[] = [];
    for (let i = 0; i < paths.size(); i++) {
      const path = paths.get(i);
      out.push(path.view().slice());
      path.delete();
    }
    return out;
  };

  return {
    name: 'clipper2-wasm',
    clip(operation, subject, clip, rule) {
      const type = {
        union: wasm.ClipType.Union,
        difference: wasm.ClipType.Difference,
        intersection: wasm.ClipType.Intersection,
      }[operation];
      const fillRule = {
        nonzero: wasm.FillRule.NonZero,
        positive: wasm.FillRule.Positive,
        evenodd: wasm.FillRule.EvenOdd,
      }[rule];
      const clipper = new wasm.ClipperD(GRID_DIGITS);
      const subjects = toHeap(subject);
      const clips = toHeap(clip);
      const solution = new wasm.PathsD();
      try {
        clipper.SetPreserveCollinear(true);
        clipper.AddSubject(subjects);
        if (clip.length > 0) clipper.AddClip(clips);
        clipper.ExecutePath(type, fillRule, solution);
        return fromHeap(solution);
      } finally {
        for (const object of [solution, clips, subjects, clipper]) object.delete();
      }
    },
    inflate(polygons, by, withinMm) {
      const paths = toHeap(polygons);
      const { Round } = wasm.JoinType;
      const grown = wasm.InflatePathsD(paths, by, Round, wasm.EndType.Polygon, MITRE, GRID_DIGITS, withinMm);
      try {
        return fromHeap(grown);
      } finally {
        for (const object of [grown, paths]) object.delete();
      }
    },
  };
}
