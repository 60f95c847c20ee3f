'use client';

/** What a new job shall become: chosen from pictures, with words, stock and size of its own. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import Toast from 'react-bootstrap/Toast';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { withTools } from '@/core/commands/tools';
import type { Job } from '@/core/document/schema';
import type { Picture } from '@/core/job/picture';
import { unanswered } from '@/core/job/start';
import { HelpButton } from '@/help/help-button';
import { Heading } from '@/ui/heading';
import { Logo } from '@/ui/marks';
import { SchemeSwitch } from '@/ui/scheme-switch';
import { UNDO_MS, UndoToast } from '@/ui/undo-toast';
import { computing } from '@/worker/client';
import type { StartedView } from '@/worker/host';
import { StartPanel } from './start-panel';
import { OwnStarters, ShippedStarters } from './starter-cards';
import { OWN_STARTERS, type OwnStarter, shippedStarter, starterOf, useOwnStarters } from './starters';
import styles from './starters.module.css';
import { lastUnits } from './units';

const CREATE = ['start a job'];

/** New jobs. `from` is the starter that is chosen at first; `pictures` are those of starters that ship, by their ids. */
export function StartersScreen({
  from,
  pictures,
}: {
  from: string | null;
  pictures: Readonly<Record<string, Picture>>;
}) {
  const router = useRouter();
  const client = useQueryClient();
  const own = useOwnStarters();
  const [chosen, setChosen] = useState(from);
  const [units, setUnits] = useState<Job['units']>('mm');
  const [sentence, setSentence] = useState<string | null>(null);
  const [deleted, setDeleted] = useState<OwnStarter | null>(null);
  useEffect(() => setUnits(lastUnits()), []);
  const shipped = shippedStarter(chosen);
  // One that ships is there at once, so that what is typed right after it was pressed is not lost.
  const starter = useQuery({
    queryKey: ['starter', chosen],
    queryFn: () => starterOf(chosen as string),
    enabled: chosen !== null,
    ...(shipped && { initialData: shipped, staleTime: Number.POSITIVE_INFINITY }),
    retry: false,
  });
  const create = useMutation({
    mutationKey: CREATE,
    mutationFn: async ({ job, picture, findings }: StartedView) => {
      // A list that can't be had is no reason not to start.
      const tools = await call(API.lastTools, {}, null).catch(() => []);
      return call(
        API.createJob,
        {},
        { document: withTools(job, tools), extras: { picture, openFindings: findings.length } },
      );
    },
    onSuccess: ({ id }) => router.push(`/jobs/${id}`),
    onError: (fault) => setSentence(fault.message),
  });
  const { mutate, isSuccess } = create;
  const start = useCallback(
    (started: StartedView) => {
      // The second half of a double press comes before the button is drawn as disabled.
      if (client.isMutating({ mutationKey: CREATE }) === 0 && !isSuccess) mutate(started);
    },
    [client, mutate, isSuccess],
  );
  const startAtOnce = async (id: string) => {
    const found = await starterOf(id).catch(() => null);
    const started = found && (await computing().started(found.job, unanswered(found.job, units), [], false));
    if (started) start(started);
  };
  const again = () => client.invalidateQueries({ queryKey: OWN_STARTERS });
  const remove = useMutation({
    mutationFn: ({ id }: OwnStarter) => call(API.deleteJob, { id }, null),
    onSuccess: (_done, one) => {
      setDeleted(one);
      if (chosen === one.id) setChosen(null);
      return again();
    },
    onError: (fault) => setSentence(fault.message),
  });
  const restore = useMutation({
    mutationFn: ({ id }: OwnStarter) => call(API.restoreJob, { id }, null),
    onSuccess: () => {
      setDeleted(null);
      return again();
    },
    onError: (fault) => setSentence(fault.message),
  });
  const pick = { chosen, onChoose: setChosen, onStart: (id: string) => void startAtOnce(id) };
  return (
    <main className={styles.screen}>
      <header className={styles.head}>
        <Link href="/" aria-label="All jobs" title="All jobs">
          <Logo />
        </Link>
        <h1>What is it to become?</h1>
        <HelpButton at="new" />
        <SchemeSwitch />
      </header>
      <div className={styles.columns}>
        <div className={styles.choice}>
          {own.data && own.data.length > 0 && (
            <>
              <Heading>Your starters</Heading>
              <OwnStarters {...pick} starters={own.data} onDelete={(one) => remove.mutate(one)} />
              <Heading>Others</Heading>
            </>
          )}
          <ShippedStarters {...pick} pictures={pictures} />
        </div>
        {starter.data ? (
          <StartPanel
            key={starter.data.id}
            starter={starter.data}
            units={units}
            isStarting={create.isPending || create.isSuccess}
            onStart={start}
          />
        ) : (
          <div className={styles.none}>
            {starter.isError ? (
              <p role="alert">{starter.error.message}</p>
            ) : (
              <p className="nf-muted">
                Choose what comes nearest. Everything about it can be changed later, and any job can be kept as a
                starter of your own.
              </p>
            )}
          </div>
        )}
      </div>
      <ToastContainer position="bottom-center" className="p-3 position-fixed">
        <UndoToast
          words={deleted && `The starter “${deleted.title}” was deleted.`}
          onUndo={() => deleted && restore.mutate(deleted)}
          onClose={() => setDeleted(null)}
        />
        <Toast show={sentence !== null} onClose={() => setSentence(null)} delay={UNDO_MS} autohide>
          <Toast.Body role="alert">{sentence}</Toast.Body>
        </Toast>
      </ToastContainer>
    </main>
  );
}
