/** The picture of a version of a job, fetched once it comes near the window. */
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { JobPicture } from './job-picture';

/** How far from the window a picture is fetched, so that it is there when it comes in sight. */
const NEAR = '400px';

/** Whether an element has come near the window. */
function useIsNear<E extends Element>() {
  const ref = useRef<E>(null);
  const [isNear, setIsNear] = useState(false);
  useEffect(() => {
    if (!ref.current || isNear) return;
    const observer = new IntersectionObserver(
      (entries) => entries.some((entry) => entry.isIntersecting) && setIsNear(true),
      { rootMargin: NEAR },
    );
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, [isNear]);
  return { ref, isNear };
}

type Props = {
  readonly jobId: string;
  readonly version: number;
  readonly title: string;
  /** What is shown until the picture is there, and where there is none. */
  readonly waiting: ReactNode;
  readonly none: ReactNode;
};

/** A job's drawing as it was kept with a version. */
export function KeptPicture({ jobId, version, title, waiting, none }: Props) {
  const { ref, isNear } = useIsNear<HTMLDivElement>();
  const picture = useQuery({
    queryKey: ['picture', jobId, version],
    queryFn: ({ signal }) => call(API.openPicture, { id: jobId, version: String(version) }, null, signal),
    enabled: isNear,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const kept = picture.data?.picture;
  const instead = picture.isPending ? waiting : none;
  return (
    <div ref={ref} className="d-flex h-100 w-100">
      {kept ? <JobPicture picture={kept} title={title} /> : instead}
    </div>
  );
}
