'use client';

import { Notice } from '@/ui/waiting';

/** What is shown where a page failed. Work that was not saved yet is kept in this browser, and is there when it opens again. */
export default function Failed({ reset }: { reset: () => void }) {
  return (
    <Notice sentence="Something went wrong here. What was not saved yet is kept in this browser.">
      <button type="button" className="btn btn-primary" onClick={reset}>
        Try again
      </button>
    </Notice>
  );
}
