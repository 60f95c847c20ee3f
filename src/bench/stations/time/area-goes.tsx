/** Areas gone over row by row: in which goes it would take least, what that saves, and how far apart areas may lie to share rows. */
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { goOverInGoes } from '@/core/commands/areas';
import type { Job, Operation } from '@/core/document/schema';
import type { AreaGo, AreasApart } from '@/core/job/areas-apart';
import { LIMITS } from '@/core/limits';
import { formatSeconds } from '@/core/units/duration';
import { formatLength } from '@/core/units/quantity';
import { computing } from '@/worker/client';
import { dispatch, useBench } from '../../store';

/** What is known of the areas of an operation, anew with every change; what was known before stays until then. */
function useAreas(job: Job, operationId: string): AreasApart | null {
  const [areas, setAreas] = useState<AreasApart | null>(null);
  useEffect(() => {
    let isOld = false;
    computing()
      .areasApart(job, operationId)
      .then(
        (found) => !isOld && setAreas(found),
        () => !isOld && setAreas(null),
      );
    return () => {
      isOld = true;
    };
  }, [job, operationId]);
  return areas;
}

const goesWord = (count: number): string => (count === 1 ? 'one go' : `${count} goes`);

/** How areas of an operation, and of those like it, are gone over; told at the first of them. */
export function AreaGoes({ operation, job }: { operation: Operation; job: Job }) {
  const areas = useAreas(job, operation.id);
  const shown = useBench((s) => s.areaGoes);
  const isFirst = areas?.operations[0] === operation.id;
  const isBetter = isFirst && areas.isWorthwhile && fits(job, areas, areas.best);
  const goes = areas && (isBetter ? areas.best : areas.now);
  const isShown = shown?.operation === operation.id;
  useEffect(() => {
    // What is on the sheet follows what is told here, and goes with it.
    if (useBench.getState().areaGoes?.operation !== operation.id) return;
    useBench.setState({ areaGoes: isFirst && goes ? { operation: operation.id, goes } : null });
  }, [isFirst, goes, operation.id]);
  useEffect(
    () => () => {
      if (useBench.getState().areaGoes?.operation === operation.id) useBench.setState({ areaGoes: null });
    },
    [operation.id],
  );
  if (!isFirst || !goes) return null;
  const take = (to: readonly AreaGo[]) =>
    dispatch((doc) =>
      goOverInGoes(
        doc,
        areas.operations,
        to.map((go) => go.parts),
      ),
    );
  const inOne: AreaGo = { parts: areas.now.flatMap((go) => go.parts), seconds: 0 };
  return (
    <div className="nf-small mt-1 mb-1">
      {isBetter && (
        <p className="mb-1">
          In {goesWord(areas.best.length)} it takes{' '}
          <span className="nf-figure">{formatSeconds(areas.savedSeconds)}</span> less.{' '}
          <Button
            variant="word"
            title={
              areas.best.length > 1
                ? 'Each go becomes an operation in a colour of its own'
                : 'One operation does them all'
            }
            onClick={() => take(areas.best)}
          >
            {areas.best.length > 1 ? 'Go over them apart' : 'Go over them together'}
          </Button>
        </p>
      )}
      {!(isBetter && areas.best.length === 1) && areas.now.length > 1 && (
        <p className="mb-1">
          Now in {goesWord(areas.now.length)}.{' '}
          <Button variant="word" title="One operation does them all" onClick={() => take([inOne])}>
            Go over them together
          </Button>
        </p>
      )}
      <p className="nf-muted mb-1">
        {areas.gapMm === null
          ? 'However far apart, areas in the same rows are better gone over together on this machine.'
          : areas.gapMm < 0.05
            ? 'Areas side by side are better gone over one by one on this machine.'
            : `Sharing rows pays where no more than ${formatLength(areas.gapMm, job.units, 0)} lies between on this machine.`}
      </p>
      <Form.Check
        type="switch"
        id={`goes-${operation.id}`}
        label={goes.length > 1 ? `Show the ${goes.length} goes on the sheet` : 'Show them on the sheet'}
        checked={isShown}
        onChange={(e) => useBench.setState({ areaGoes: e.target.checked ? { operation: operation.id, goes } : null })}
      />
    </div>
  );
}

/** Whether as many operations as it takes may be in a job. */
const fits = (job: Job, { operations }: AreasApart, goes: readonly AreaGo[]): boolean =>
  job.operations.length + Math.max(0, goes.length - operations.length) <= LIMITS.operations;
