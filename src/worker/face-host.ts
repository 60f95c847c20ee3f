/** What the worker is asked about typefaces. */
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { type FaceTrial, tryFace } from '../core/job/face-trial';
import type { Typeface } from '../core/lettering/face';
import type { LetterIn } from '../core/lettering/forms';
import type { LetteringSpec } from '../core/lettering/spec';
import type { FaceAbout } from '../core/schema/face-about';
import type { FaceNamed } from '../core/schema/lettering';
import { type FaceSample, formViews, type LetterFormView, sampleOf } from './face-samples';
import type { Runner } from './runner';
import type { Sources } from './sources';
import { atOnce } from './steps';

/** Answers about typefaces, in the turns of the runner. */
export class FaceHost {
  constructor(
    private readonly engine: Promise<ClipEngine>,
    protected readonly runner: Runner,
    protected readonly sources: Sources,
  ) {}

  /** The user's words in a face. */
  faceSample(named: FaceNamed, text: string, features: Readonly<Record<string, number>>): Promise<FaceSample> {
    return this.withFace(named, (face) => sampleOf(face, text, features));
  }

  /** What words come to in a face, cut as they are; nobody waits for it. */
  async faceTrial(named: FaceNamed, words: LetteringSpec, most: number): Promise<FaceTrial | { sentence: string }> {
    const engine = await this.engine;
    return this.withFace(named, (face) => tryFace(engine, face, words, most), true);
  }

  /** A face described; null where it is not there. */
  async faceAbout(named: FaceNamed): Promise<FaceAbout | null> {
    return this.sources.about(named);
  }

  /** The forms that a face has for a letter of a text. */
  async letterForms(named: FaceNamed, letter: LetterIn): Promise<LetterFormView[]> {
    const known = (await this.sources.about(named))?.features ?? [];
    const forms = await this.withFace(named, (face) => formViews(face, letter, known));
    return 'sentence' in forms ? [] : forms;
  }

  private async withFace<T extends object>(
    named: FaceNamed,
    find: (face: Typeface) => T,
    isPatient = false,
  ): Promise<T | { readonly sentence: string }> {
    const answer = await this.runner.ask({ kind: null, isPatient }, async () => {
      const found = await this.sources.face(named);
      return atOnce(() => ('typeface' in found ? find(found.typeface) : found));
    });
    return answer ?? { sentence: 'It was not computed.' };
  }
}
