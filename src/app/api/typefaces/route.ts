/** The shop's typefaces: listed, and added to. */
import { API } from '@/api/endpoints';
import { LIMITS } from '@/core/limits';
import { Refusal, serve } from '@/server/answer';
import { addTypeface, listFaceMarks, listTypefaces } from '@/server/typefaces';

export const dynamic = 'force-dynamic';

export const GET = serve(API.listTypefaces, async ({ db }) => ({
  typefaces: await listTypefaces(db),
  marks: await listFaceMarks(db),
}));

export const POST = serve(API.addTypeface, async ({ db, body }) => {
  const outcome = await addTypeface(db, body.content, body.faces);
  if (outcome === 'no file') throw new Refusal(404, 'The file of this typeface is not kept here.');
  if (outcome === 'full')
    throw new Refusal(507, `There are ${LIMITS.typefacesKept.toLocaleString('en')} typefaces; no more are kept.`);
  return { outcome };
});
