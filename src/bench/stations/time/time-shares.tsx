/** The chart of where the time goes; in a file of its own, so that its library is loaded when it is looked at. */
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import type { Job } from '@/core/document/schema';
import { formatSeconds } from '@/core/units/duration';
import { useChartInks } from '@/ui/chart-inks';
import type { RunView } from '@/worker/run-view';
import styles from './time.module.css';

Chart.register(BarController, BarElement, CategoryScale, Legend, LinearScale, Tooltip);

const SHARES = ['working', 'idle', 'piercing', 'lifting', 'changing'] as const;
const WORDS = {
  working: 'works',
  idle: 'moves',
  piercing: 'pierces',
  lifting: 'lifts',
  changing: 'change of tool',
} as const satisfies Record<(typeof SHARES)[number], string>;

/** Heights in pixels: of what is about the bars, and of each of them. */
const AROUND_PX = 84;
const EACH_PX = 26;

/** A bar for each operation, parted by what its time goes into. */
export function TimeShares({ run, job }: { run: RunView; job: Job }) {
  const { scheme, ink, line, shares } = useChartInks();
  const timed = run.operations.flatMap((o) => (o.times ? [{ ...o, times: o.times }] : []));
  const names = timed.map((o) => job.operations.find((own) => own.id === o.id)?.name ?? '');
  const longest = timed.reduce((most, o) => Math.max(most, o.times.seconds), 0);
  const [unit, scale] = longest > 180 ? (['minutes', 60] as const) : (['seconds', 1] as const);
  const of = (o: (typeof timed)[number], share: (typeof SHARES)[number]): number =>
    // A change of tool takes as long as it takes, whatever was measured of the work.
    o.times[share] * (share === 'changing' ? 1 : o.times.factor);
  const there = SHARES.filter((share) => timed.some((o) => o.times[share] > 0));
  return (
    <div className={styles.chart} style={{ height: AROUND_PX + EACH_PX * timed.length }}>
      <Bar
        key={scheme}
        aria-label="Where the time of each operation goes"
        data={{
          labels: names.map((name) => (name.length > 14 ? `${name.slice(0, 13)}…` : name)),
          datasets: there.map((share) => ({
            label: WORDS[share],
            data: timed.map((o) => of(o, share) / scale),
            backgroundColor: shares[SHARES.indexOf(share)] ?? ink,
            borderColor: ink,
            borderWidth: 0.5,
          })),
        }}
        options={{
          indexAxis: 'y',
          animation: false,
          maintainAspectRatio: false,
          scales: {
            x: {
              stacked: true,
              title: { display: true, text: unit, color: ink },
              ticks: { color: ink, maxTicksLimit: 6 },
              grid: { color: line },
            },
            y: { stacked: true, ticks: { color: ink }, grid: { display: false } },
          },
          plugins: {
            legend: { position: 'bottom', labels: { color: ink, boxWidth: 12, padding: 8 } },
            tooltip: {
              callbacks: {
                title: ([item]) => names[item?.dataIndex ?? -1] ?? '',
                label: ({ dataset, parsed }) => `${dataset.label}: ${formatSeconds(Number(parsed.x) * scale)}`,
              },
            },
          },
        }}
      />
    </div>
  );
}
