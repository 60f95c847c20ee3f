/** The shop's typefaces: files that were brought in, with their faces, and what is noted of faces. */
import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { LIMITS } from '../core/limits';
import { type FaceAbout, listedAboutSchema } from '../core/schema/face-about';
import type { FaceMark, FaceUser, KeptTypeface } from '../core/schema/kept-face';
import type { Database } from './database';
import { assets, faceMarks, jobs, typefaces } from './schema';

/** All typefaces that are there, those brought in last first. */
export async function listTypefaces(db: Database): Promise<KeptTypeface[]> {
  const rows = await db
    .select({ content: typefaces.content, name: assets.name, addedAt: typefaces.addedAt, faces: typefaces.faces })
    .from(typefaces)
    .innerJoin(assets, eq(assets.sha256, typefaces.content))
    .where(isNull(typefaces.removedAt))
    .orderBy(desc(typefaces.addedAt), typefaces.content);
  return rows.map(({ faces, ...row }) => ({
    ...row,
    // Licences and the like of thousands would be megabytes.
    faces: faces.map((about) => listedAboutSchema.strip().parse(about)),
    addedAt: row.addedAt.toISOString(),
  }));
}

/** What bringing a typeface in came to. */
export type Added = 'added' | 'known' | 'no file' | 'full';

/** Note the faces of a file that is kept. The same file twice is there once; one that was removed is there again. */
export async function addTypeface(db: Database, content: string, faces: readonly FaceAbout[]): Promise<Added> {
  return db.transaction(async (tx) => {
    const [kept] = await tx.select({ id: assets.sha256 }).from(assets).where(eq(assets.sha256, content));
    if (!kept) return 'no file';
    const [there] = await tx.select().from(typefaces).where(eq(typefaces.content, content));
    if (there && there.removedAt === null) return 'known';
    const count = await tx.$count(typefaces, isNull(typefaces.removedAt));
    if (count >= LIMITS.typefacesKept) return 'full';
    const row = { content, faces: [...faces], removedAt: null, addedAt: new Date() };
    await tx.insert(typefaces).values(row).onConflictDoUpdate({ target: typefaces.content, set: row });
    return 'added';
  });
}

/** The jobs that use a typeface file, the last changed first; those in the bin are left out. */
export const usersOfTypeface = (db: Database, content: string): Promise<FaceUser[]> =>
  db
    .select({ id: jobs.id, title: jobs.title })
    .from(jobs)
    .where(and(isNull(jobs.deletedAt), sql`strpos(${jobs.document}::text, ${`"${content}"`}) > 0`))
    .orderBy(desc(jobs.changedAt));

/** Take a typeface out of the list, or put it back. Its file stays as long as a job uses it. False where there is none. */
export async function setRemoved(db: Database, content: string, isRemoved: boolean): Promise<boolean> {
  const changed = await db
    .update(typefaces)
    .set({ removedAt: isRemoved ? new Date() : null })
    .where(eq(typefaces.content, content))
    .returning({ content: typefaces.content });
  return changed.length > 0;
}

/** What is noted of faces. */
export async function listFaceMarks(db: Database): Promise<FaceMark[]> {
  const rows = await db.select().from(faceMarks);
  return rows.map((row) => ({ ...row, usedAt: row.usedAt?.toISOString() ?? null }));
}

/** What of a note changes; `used`: it was chosen just now. */
export type MarkChange = {
  readonly favourite?: boolean | undefined;
  readonly look?: FaceMark['look'] | undefined;
  readonly used?: boolean | undefined;
};

/** Change what is noted of a face. */
export async function markFace(db: Database, face: string, { favourite, look, used }: MarkChange): Promise<void> {
  const change = {
    ...(favourite === undefined ? {} : { favourite }),
    ...(look === undefined ? {} : { look }),
    ...(used ? { usedAt: new Date() } : {}),
  };
  if (Object.keys(change).length === 0) return;
  await db
    .insert(faceMarks)
    .values({ face, ...change })
    .onConflictDoUpdate({ target: faceMarks.face, set: change });
}
