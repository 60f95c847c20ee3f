/** Keeping files that are brought in, and the drawings read from them; several kept files in one answer. */
import { bundled } from '@/api/bundle';
import { LIMITS } from '@/core/limits';
import { cutTo, keepable } from '@/core/units/text';
import { answer, bytesOf, Refusal } from '@/server/answer';
import { keepAsset, openAssets } from '@/server/assets';

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

export const GET = (request: Request) =>
  answer(async (db) => {
    const ids = (new URL(request.url).searchParams.get('ids') ?? '').split(',');
    if (ids.length > LIMITS.assetsAtOnce || !ids.every((id) => /^[0-9a-f]{64}$/.test(id)))
      throw new Refusal(422, `Up to ${LIMITS.assetsAtOnce} files are asked for at once, each by its id.`);
    return new Response(new Uint8Array(bundled(await openAssets(db, ids))), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': 'attachment',
        'x-content-type-options': 'nosniff',
        'cache-control': 'no-store',
      },
    });
  });

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
