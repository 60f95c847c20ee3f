'use client';

import { Notice } from '@/ui/waiting';

/** What is shown where a page failed. The job opens again as it was last saved, or as this browser keeps it. */
export default function Failed({ reset }: { reset: () => void }) {
  return (
    <Notice sentence="Something went wrong here. Try again, to go on with the job as it was last kept.">
      <button type="button" className="btn btn-primary" onClick={reset}>
        Try again
      </button>
    </Notice>
  );
}
