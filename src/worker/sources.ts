/** What documents refer to, brought from where it is kept: typefaces, drawings and pictures. Each is fetched once. */
import type { Job } from '../core/document/schema';
import type { Evaluator } from '../core/job/evaluate';
import { aboutOf } from '../core/lettering/about';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import type { Typeface } from '../core/lettering/face';
import { faceKey, sameFamily } from '../core/lettering/pick';
import { loadTypeface, openTypeface } from '../core/lettering/typeface';
import type { PaperFaces } from '../core/papers/words';
import type { FaceAnswer, FaceLookup } from '../core/prepare/prepared';
import type { FaceAbout } from '../core/schema/face-about';
import { type FaceNamed, facesOf } from '../core/schema/lettering';

/** A face that did not load is tried again after this, in ms. */
const RETRY_MS = 5_000;
/** Files of typefaces that are held open, and faces at places of their axes, those asked for last. */
const MOST_OPEN = 24;
const MOST_FACES = 400;

/**
 * Typefaces, kept drawings and the pixels of pictures, fetched once. `fetchFace` brings the bytes of a shipped typeface file,
 * `fetchAsset` those of a kept file.
 */
export class Sources {
  private readonly faces = new Map<string, Promise<FaceAnswer>>();
  /** Files of the user's typefaces by content. */
  private readonly files = new Map<string, ReturnType<typeof openTypeface>>();
  private papers: Promise<PaperFaces> | null = null;
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
    const named = new Map(
      members.flatMap((m) =>
        m.kind === 'lettering' ? facesOf(m).map((named) => [faceKey(named), named] as const) : [],
      ),
    );
    const pictures = new Set(members.flatMap((m) => (m.kind === 'trace' ? [m.pixels] : [])));
    await this.bringDrawings(drawings, evaluator);
    await this.bringPictures(pictures, evaluator);
    const answers: FaceAnswer[] = [];
    for (const wish of named.values()) answers.push(await this.face(wish));
    const about = JSON.stringify([
      [...named.keys()],
      [...drawings].filter((id) => evaluator.hasDrawing(id)),
      [...pictures].filter((id) => evaluator.hasPicture(id)),
    ]);
    if (this.last?.about === about && this.last.answers.every((answer, i) => answer === answers[i]))
      return this.last.lookup;
    const byKey = new Map([...named.keys()].map((key, i) => [key, answers[i] as FaceAnswer]));
    const lookup: FaceLookup = (wish) => byKey.get(faceKey(wish)) ?? NOT_HERE;
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

  /** A typeface as words name it. */
  face(named: FaceNamed): Promise<FaceAnswer> {
    const key = faceKey(named);
    const known = this.faces.get(key);
    const loading = known ?? this.load(named);
    keepNewest(this.faces, key, loading, MOST_FACES);
    if (!known)
      void loading.then((answer) => {
        if ('sentence' in answer) setTimeout(() => this.faces.delete(key), RETRY_MS);
      });
    return loading;
  }

  /** The faces that words on papers are set in. */
  paperFaces(): Promise<PaperFaces> {
    const faces = (weight: 400 | 700) =>
      Promise.all(['latin', 'latin-ext'].map((part) => this.paperFace(`${part}-${weight}`)));
    this.papers ??= Promise.all([faces(400), faces(700)]).then(([plain, bold]) => ({ plain, bold }));
    this.papers.catch(() => {
      this.papers = null;
    });
    return this.papers;
  }

  private async paperFace(name: string): Promise<Typeface> {
    const load = await loadTypeface(await this.fetchFace(`paper/${name}.woff2`));
    if (!load.ok) throw new Error(load.sentence);
    return load.typeface;
  }

  /** The bytes of a kept file; null where it is not there. */
  readonly asset = (id: string): Promise<Uint8Array | null> => this.fetchAsset(id).catch(() => null);

  /** What a file says of a face; null where it is not there. */
  async about(named: FaceNamed): Promise<FaceAbout | null> {
    const opened = await this.open(named).catch(() => null);
    const about = opened?.ok ? aboutOf(opened.open, named.number) : null;
    return typeof about === 'string' ? null : about;
  }

  private async load(named: FaceNamed): Promise<FaceAnswer> {
    try {
      const opened = await this.open(named);
      if (opened === null) return NOT_HERE;
      const load = opened.ok ? opened.open.at(named) : opened;
      return load.ok ? { typeface: load.typeface } : { sentence: load.sentence };
    } catch {
      return { sentence: 'Its file could not be fetched.' };
    }
  }

  /** The file of a typeface, held open; null where there is none of that name. */
  private async open({ face, content }: FaceNamed): Promise<Awaited<ReturnType<typeof openTypeface>> | null> {
    const shipped = SHIPPED_FACES.find(({ family }) => sameFamily(family, face));
    const id = content ?? shipped?.file;
    if (id === undefined) return null;
    const opening =
      this.files.get(id) ??
      (content === null ? this.fetchFace(id) : this.fetchAsset(id)).then((bytes) => openTypeface(bytes));
    keepNewest(this.files, id, opening, MOST_OPEN);
    opening.catch(() => this.files.delete(id));
    return opening;
  }
}

/** Put an entry last, and let the first ones go where there are too many. */
function keepNewest<V>(map: Map<string, V>, key: string, value: V, most: number): void {
  map.delete(key);
  map.set(key, value);
  for (const oldest of map.keys()) {
    if (map.size <= most) break;
    map.delete(oldest);
  }
}

const NOT_HERE: FaceAnswer = { sentence: 'It is not among the typefaces here.' };
