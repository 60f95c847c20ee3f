/** The picture of a version of a job. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { openPicture } from '@/server/versions';

export const dynamic = 'force-dynamic';

export const GET = serve(API.openPicture, ({ db, params }) => openPicture(db, params.id, Number(params.version)));
