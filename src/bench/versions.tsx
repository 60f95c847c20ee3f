/** Earlier versions of the job on the bench: one that is brought back is a change like others, and can be undone. */
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { checkJob } from '@/core/document/read';
import { whenExactly } from '@/ui/when';
import { VersionsDialog } from '@/versions/versions-dialog';
import { dispatchDocument, say, useBench } from './store';

/** The dialog with the earlier versions of the job on the bench. */
export function BenchVersions({ onClose }: { onClose: () => void }) {
  const id = useBench((s) => s.id);
  const title = useBench((s) => s.job.title);
  return (
    <VersionsDialog
      jobId={id}
      title={title}
      bringBack={async ({ version, savedAt }) => {
        const { document } = await call(API.openVersion, { id, version: String(version) }, null);
        const read = checkJob(document);
        if (!read.ok) throw new Error(read.sentences.join(' '));
        dispatchDocument(() => read.job);
        say(`The job is as it was ${whenExactly(savedAt)}. Undo takes that back.`);
      }}
      onClose={onClose}
    />
  );
}
