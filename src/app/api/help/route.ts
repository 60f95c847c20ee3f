/** The pictures of the help. */
import { API } from '@/api/endpoints';
import { serve } from '@/server/answer';
import { drawnPictures } from '@/server/drawn-pictures';

export const dynamic = 'force-dynamic';

export const GET = serve(API.helpPictures, () => drawnPictures('help'));
