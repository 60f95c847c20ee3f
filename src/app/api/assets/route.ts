/** Keeping files that are brought in, and the drawings read from them. */
import { LIMITS } from '@/core/limits';
import { cutTo, keepable } from '@/core/units/text';
import { answer, bytesOf, Refusal } from '@/server/answer';
import { keepAsset } from '@/server/assets';

export const dynamic = 'force-dynamic';

const MOST = LIMITS.assetBytes;
const NO_ROOM = `There is no more room for files: ${LIMITS.assetsBytes / 1024 ** 3} GB are kept. Those that no job and no earlier version uses are cleared after ${LIMITS.unusedAssetDays} days. Nothing was changed.`;

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
    const id = await keepAsset(db, bytes, name);
    if (id === null) throw new Refusal(507, NO_ROOM);
    return Response.json({ id }, { status: 201 });
  });
