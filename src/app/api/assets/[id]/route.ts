/** A kept file, as it came: always to be saved, never shown, whatever is in it. */
import { answer, Refusal } from '@/server/answer';
import { openAsset } from '@/server/assets';

export const dynamic = 'force-dynamic';

export const GET = (_request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(async (db) => {
    const { id } = await params;
    const asset = /^[0-9a-f]{64}$/.test(id) ? await openAsset(db, id) : null;
    if (!asset) throw new Refusal(404, 'There is no such file.');
    return new Response(new Uint8Array(asset.bytes), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(asset.name || 'drawing.json')}`,
        'x-content-type-options': 'nosniff',
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });
