/** What documents refer to, brought from where it is kept: typefaces, drawings and pictures. Each is fetched once. */
import type { Job } from '../core/document/schema';
import type { Evaluator } from '../core/job/evaluate';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import { sameFamily } from '../core/lettering/pick';
import { loadTypeface } from '../core/lettering/typeface';
import type { FaceAnswer, FaceLookup } from '../core/prepare/prepared';

/** A face that did not load is tried again after this, in ms. */
const RETRY_MS = 5_000;

/**
 * Typefaces, kept drawings and the pixels of pictures, fetched once. `fetchFace` brings the bytes of a shipped typeface file,
 * `fetchAsset` those of a kept file.
 */
export class Sources {
  private readonly faces = new Map<string, Promise<FaceAnswer>>();
  private last: {
    readonly about: string;
    readonly answers: readonly FaceAnswer[];
    readonly lookup: FaceLookup;
  } | null = null;

  constructor(
    private readonly fetchFace: (file: string) => Promise<Uint8Array>,
    private readonly fetchAsset: (id: string) => Promise<Uint8Array>,
  ) {}

  /** The typefaces of a job, its drawings and pictures put at hand; the same object as long as nothing about them has changed. */
  async of({ parts }: Job, evaluator: Evaluator): Promise<FaceLookup> {
    const members = parts.flatMap((p) => p.members);
    const drawings = new Set(members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : [])));
    const families = [...new Set(members.flatMap((m) => (m.kind === 'lettering' ? [m.face] : [])))];
    const pictures = new Set(members.flatMap((m) => (m.kind === 'trace' ? [m.pixels] : [])));
    await this.bringDrawings(drawings, evaluator);
    await this.bringPictures(pictures, evaluator);
    const answers: FaceAnswer[] = [];
    for (const family of families) answers.push(await this.face(family));
    const about = JSON.stringify([
      families,
      [...drawings].filter((id) => evaluator.hasDrawing(id)),
      [...pictures].filter((id) => evaluator.hasPicture(id)),
    ]);
    if (this.last?.about === about && this.last.answers.every((answer, i) => answer === answers[i]))
      return this.last.lookup;
    const byFamily = new Map(families.map((family, i) => [family, answers[i] as FaceAnswer]));
    const lookup: FaceLookup = (wish) => byFamily.get(wish.face) ?? NOT_HERE;
    this.last = { about, answers, lookup };
    return lookup;
  }

  /** Drawings put at hand; one that can't be fetched is a finding. */
  private async bringDrawings(ids: ReadonlySet<string>, evaluator: Evaluator): Promise<void> {
    await Promise.all(
      [...ids].map(async (id) => {
        if (evaluator.hasDrawing(id)) return;
        await this.fetchAsset(id).then(
          (bytes) => evaluator.addDrawing(id, new TextDecoder().decode(bytes)),
          () => false,
        );
      }),
    );
  }

  /** Pixels of pictures put at hand, one after the other: each takes much room while it is unpacked. */
  async bringPictures(ids: ReadonlySet<string>, evaluator: Evaluator): Promise<void> {
    for (const id of ids) {
      if (evaluator.hasPicture(id)) continue;
      await this.fetchAsset(id).then(
        (bytes) => evaluator.addPicture(id, bytes),
        () => false,
      );
    }
  }

  face(family: string): Promise<FaceAnswer> {
    const key = family.trim().toLowerCase();
    const known = this.faces.get(key);
    if (known) return known;
    const loading = this.load(family);
    this.faces.set(key, loading);
    void loading.then((answer) => {
      if ('sentence' in answer) setTimeout(() => this.faces.delete(key), RETRY_MS);
    });
    return loading;
  }

  private async load(family: string): Promise<FaceAnswer> {
    const shipped = SHIPPED_FACES.find((face) => sameFamily(face.family, family));
    if (!shipped) return NOT_HERE;
    try {
      const loaded = await loadTypeface(await this.fetchFace(shipped.file));
      return loaded.ok ? { typeface: loaded.typeface } : { sentence: loaded.sentence };
    } catch {
      return { sentence: 'Its file could not be fetched.' };
    }
  }
}

const NOT_HERE: FaceAnswer = { sentence: 'It is not among the typefaces here.' };
