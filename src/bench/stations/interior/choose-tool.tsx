/** The tools of the job tried on a part: what each leaves against how long it takes; one is proposed. */
import { Chart, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Scatter } from 'react-chartjs-2';
import type { StepOf } from '@/core/document/schema';
import { LIFT_SECONDS, proposedTool, type ToolTrial } from '@/core/job/compare-tools';
import { useChartInks } from '@/ui/chart-inks';
import { formatRun, formatShare } from '@/ui/figures';
import { computing } from '@/worker/client';
import { useBench } from '../../store';
import { type StepProps, useStep } from '../hold/use-step';
import styles from './interior.module.css';
import { ToolList } from './tool-list';
import { minutesWords, toolWords } from './tool-words';

Chart.register(LinearScale, LineElement, PointElement, ScatterController, Tooltip);

/** The job's tools tried on a part, to choose from. */
export function ChooseTool(props: StepProps & { step: StepOf<'hatch'> }) {
  const { part, step } = props;
  const job = useBench((s) => s.job);
  const { set } = useStep(props, 'hatch');
  const [trials, setTrials] = useState<readonly ToolTrial[]>([]);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [fault, setFault] = useState(false);
  const [editing, setEditing] = useState(false);
  const latest = useRef(0);
  useEffect(() => {
    const mine = ++latest.current;
    const timer = setTimeout(async () => {
      setProgress({ done: 0, of: job.tools.length });
      setFault(false);
      try {
        const onProgress = proxy((done: number, of: number) => {
          if (mine === latest.current) setProgress({ done, of });
        });
        const made = await computing().toolTrials(job, part.id, onProgress);
        if (mine !== latest.current || made === null) return;
        setTrials(made);
      } catch {
        if (mine === latest.current) setFault(true);
      }
      if (mine === latest.current) setProgress(null);
    }, 200);
    return () => clearTimeout(timer);
  }, [job, part.id]);
  const proposed = proposedTool(trials, step.mostMissed);
  const isNow = ({ tool }: ToolTrial) =>
    tool.shape === step.tool.shape &&
    tool.tip === step.tool.tip &&
    tool.angle === step.tool.angle &&
    tool.depth === step.tool.depth;
  const take = ({ tool: { shape, tip, angle, depth } }: ToolTrial) => set({ tool: { shape, tip, angle, depth } });
  return (
    <div className={styles.tools}>
      {progress && (
        <p className="nf-small nf-muted m-0" role="status">
          Trying … {progress.done} of {progress.of}
        </p>
      )}
      {fault && <p className="nf-small text-danger">This could not be computed.</p>}
      {trials.length > 0 && (
        <>
          <ToolChart trials={trials} proposed={proposed} mostMissed={step.mostMissed} isNow={isNow} onTake={take} />
          <p className="nf-small mb-1">
            {proposed
              ? `Proposed: ${toolWords(proposed.tool, job.units)}, the widest that leaves no more than ${formatShare(step.mostMissed)}.`
              : `None of these leaves so little as ${formatShare(step.mostMissed)}.`}
          </p>
          <ul className={styles.trials} aria-label="Tools">
            {trials.map((trial) => (
              <li key={trial.tool.id}>
                <button
                  type="button"
                  aria-pressed={isNow(trial)}
                  data-proposed={trial === proposed}
                  disabled={part.locked || trial.unfit}
                  onClick={() => take(trial)}
                >
                  <b>{toolWords(trial.tool, job.units)}</b>
                  {trial.unfit ? (
                    <span>fits nowhere</span>
                  ) : (
                    <span className="nf-figure">
                      leaves {formatShare(trial.beyond)} · {formatRun(trial.drawnMm, job.units)} ·{' '}
                      {minutesWords(trial.minutes)}
                    </span>
                  )}
                  {trial === proposed && <span className={styles.proposed}>proposed</span>}
                </button>
              </li>
            ))}
          </ul>
          <p className="nf-small nf-muted mb-1">At the feed of each tool, and {LIFT_SECONDS} s a lift.</p>
        </>
      )}
      {trials.length === 0 && !progress && job.tools.length === 0 && (
        <p className="nf-small nf-muted">There is no tool in the list.</p>
      )}
      <Button variant="word" aria-expanded={editing} onClick={() => setEditing(!editing)}>
        {editing ? 'Done with the list' : 'Change the list of tools'}
      </Button>
      {editing && <ToolList />}
    </div>
  );
}

function ToolChart(props: {
  readonly trials: readonly ToolTrial[];
  readonly proposed: ToolTrial | null;
  readonly mostMissed: number;
  readonly isNow: (trial: ToolTrial) => boolean;
  readonly onTake: (trial: ToolTrial) => void;
}) {
  const { trials, proposed, mostMissed, isNow, onTake } = props;
  const unit = useBench((s) => s.job.units);
  const { scheme, ink, line, accent, good, fault } = useChartInks();
  const fit = trials.filter((t) => !t.unfit);
  const longest = 1.08 * fit.reduce((most, t) => Math.max(most, t.minutes), 0.1);
  const colourOf = (t: ToolTrial) => (t === proposed ? good : t.beyond > mostMissed ? fault : ink);
  return (
    <div className={styles.chart}>
      <Scatter
        key={scheme}
        aria-label="Time of each tool against what it leaves"
        data={{
          datasets: [
            {
              data: fit.map((t) => ({ x: t.minutes, y: 100 * t.beyond })),
              pointRadius: fit.map((t) => (isNow(t) ? 7 : 5)),
              pointStyle: fit.map((t) => (t.beyond > mostMissed ? 'crossRot' : 'circle')),
              pointBorderWidth: fit.map((t) => (isNow(t) || t.beyond > mostMissed ? 3 : 1)),
              pointBackgroundColor: fit.map(colourOf),
              pointBorderColor: fit.map((t) => (isNow(t) ? accent : colourOf(t))),
            },
            {
              data: [
                { x: 0, y: 100 * mostMissed },
                { x: longest, y: 100 * mostMissed },
              ],
              showLine: true,
              pointRadius: 0,
              pointHitRadius: 0,
              borderColor: fault,
              borderDash: [5, 4],
              borderWidth: 1.5,
            },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          onClick: (_, hit) => {
            const trial = fit[hit.find((h) => h.datasetIndex === 0)?.index ?? -1];
            if (trial) onTake(trial);
          },
          scales: {
            x: {
              type: 'linear',
              min: 0,
              max: longest,
              title: { display: true, text: 'minutes', color: ink },
              ticks: { color: ink, maxTicksLimit: 6, includeBounds: false },
              grid: { color: line },
            },
            y: {
              min: 0,
              suggestedMax: 100 * Math.min(1, Math.max(0.01, 1.6 * mostMissed)),
              title: { display: true, text: '% left', color: ink },
              ticks: { color: ink, maxTicksLimit: 6 },
              grid: { color: line },
            },
          },
          plugins: {
            tooltip: {
              callbacks: {
                label: ({ dataIndex }) => {
                  const t = fit[dataIndex];
                  return t
                    ? `${toolWords(t.tool, unit)}: leaves ${formatShare(t.beyond)}, ${minutesWords(t.minutes)}`
                    : '';
                },
              },
            },
          },
        }}
      />
    </div>
  );
}
