/** Keeping files that are brought in, and the drawings read from them. */
import { LIMITS } from '@/core/limits';
import { cutTo, keepable } from '@/core/units/text';
import { answer, bytesOf } from '@/server/answer';
import { keepAsset } from '@/server/assets';

export const dynamic = 'force-dynamic';

const MOST = LIMITS.assetBytes;

/** A name as the page sends it, percent-encoded; one that is not is taken as it is. */
function nameOf(sent: string): string {
  try {
    return cutTo(keepable(decodeURIComponent(sent)), LIMITS.nameCharacters);
  } catch {
    return cutTo(keepable(sent), LIMITS.nameCharacters);
  }
}

export const POST = (request: Request) =>
  answer(async (db) => {
    const name = nameOf(request.headers.get('x-name') ?? '');
    const bytes = await bytesOf(
      request,
      MOST,
      `This file is larger than the ${MOST / 1024 / 1024} MB that can be kept. Nothing was changed.`,
    );
    return Response.json({ id: await keepAsset(db, bytes, name) }, { status: 201 });
  });
