/** What is in the file: its size, and of each operation how much. */
import { isEmptyBox } from '@/core/geometry/point';
import { openGroups } from '@/core/rules/groups';
import { formatLength } from '@/core/units/quantity';
import { formatArea, formatRun } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { OperationMark } from '@/ui/marks';
import styles from '../../bench.module.css';
import { useBeside } from '../../beside';
import { useBench } from '../../store';

/** Figures of what is written. */
export function Figures() {
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const open = openGroups(view?.findings ?? []);
  const faults = open.filter((f) => f.severity === 'fault').length;
  const runs = new Map(useBench((s) => s.run)?.operations.map((o) => [o.id, o]));
  const worked = (view?.operations ?? []).filter(
    (o) => (o.paths > 0 || o.fillMm2 > 0) && job.operations.find((x) => x.id === o.id)?.on,
  );
  const between = (id: string) => {
    const run = runs.get(id);
    return run ? formatRun(run.travelMm, job.units) : '…';
  };
  const n = (mm: number) => formatLength(mm, job.units);
  return (
    <>
      <Heading>What is in the file</Heading>
      {worked.length === 0 && <p className="nf-muted nf-small">Nothing is given to an operation that is on.</p>}
      <table className={styles.table}>
        <tbody>
          {view && !isEmptyBox(view.workBox) && (
            <tr>
              <th scope="row">Size of the work</th>
              <td className="nf-figure">
                {n(view.workBox.maxX - view.workBox.minX)} × {n(view.workBox.maxY - view.workBox.minY)}
              </td>
            </tr>
          )}
          {worked.map((o) => (
            <tr key={o.id}>
              <th scope="row">
                <OperationMark kind={o.kind} /> {job.operations.find((x) => x.id === o.id)?.name}
              </th>
              <td className="nf-figure">
                {[
                  o.paths > 0 ? formatRun(o.lengthMm, job.units) : '',
                  o.fillMm2 > 0 ? formatArea(o.fillMm2, job.units) : '',
                ]
                  .filter(Boolean)
                  .join(' · ')}
                {o.paths > 1 && (
                  <>
                    <div className="nf-muted">set down {o.paths.toLocaleString('en')} times</div>
                    {/* Its line is there before its figure: what is below it does not move from under a press. */}
                    <div className="nf-muted">{between(o.id)} moved between</div>
                  </>
                )}
                {o.dots.map(({ diameterMm, count }) => (
                  <div key={diameterMm ?? 'points'} className="nf-muted">
                    {count.toLocaleString('en')}{' '}
                    {diameterMm === null ? 'points' : `dots of ${formatLength(diameterMm, job.units, 2)}`}
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {faults > 0 && (
        <p className="nf-small text-danger mb-0" role="status">
          {faults === 1 ? 'One fault is' : `${faults} faults are`} still open; see Findings on the right.
        </p>
      )}
    </>
  );
}
