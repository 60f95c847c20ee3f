/** What a face holds, as its file says: asked of the worker, which has it open. */
import { queryOptions } from '@tanstack/react-query';
import { type FaceNamed, faceOfFamily } from '@/core/schema/lettering';
import { computing } from '@/worker/client';

/** One that is not there may only be away: it is asked for again after this, in ms. */
const RETRY_MS = 5_000;

/** A face described; null where it is not there. The same wherever along its axes it is. */
export const aboutQuery = ({ face, content, number }: FaceNamed) =>
  queryOptions({
    queryKey: ['face about', content ?? face, number],
    queryFn: () => computing().faceAbout({ ...faceOfFamily(face), content, number }),
    staleTime: Infinity,
    refetchInterval: ({ state }) => (state.data === null ? RETRY_MS : false),
  });
