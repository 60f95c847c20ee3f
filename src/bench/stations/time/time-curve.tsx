/** The chart of time against a setting; in a file of its own, so that its library is loaded when it is looked at. */
import { CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { Line } from 'react-chartjs-2';
import { formatSeconds } from '@/core/units/duration';
import { useChartInks } from '@/ui/chart-inks';
import styles from './time.module.css';

Chart.register(CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

type CurvePoint = { readonly value: number; readonly seconds: number; readonly words: string };

/** Time by value: a point for each, that of now marked; a press takes one. */
export function TimeCurve(props: {
  readonly points: readonly CurvePoint[];
  readonly now: number;
  readonly axis: string;
  /** Whether values are things in a list, with nothing between them. */
  readonly isListed: boolean;
  readonly onTake: (value: number) => void;
}) {
  const { points, now, axis, isListed, onTake } = props;
  const { scheme, ink, line, accent } = useChartInks();
  const longest = points.reduce((most, p) => Math.max(most, p.seconds), 0);
  const [unit, scale] = longest > 180 ? (['minutes', 60] as const) : (['seconds', 1] as const);
  const isNow = points.map((p) => p.value === now);
  return (
    <div className={styles.chart} style={{ height: 150 }}>
      <Line
        key={scheme}
        aria-label={`Time by ${axis}`}
        data={{
          labels: points.map((p) => p.words),
          datasets: [
            {
              data: points.map((p) => p.seconds / scale),
              borderColor: ink,
              borderWidth: 1.5,
              showLine: !isListed,
              pointRadius: isNow.map((own) => (own ? 7 : 4)),
              pointHoverRadius: 8,
              pointHitRadius: 10,
              pointStyle: isNow.map((own) => (own ? 'rectRot' : 'circle')),
              pointBackgroundColor: isNow.map((own) => (own ? accent : ink)),
              pointBorderColor: ink,
            },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          onClick: (_, [hit]) => {
            const point = points[hit?.index ?? -1];
            if (point) onTake(point.value);
          },
          scales: {
            x: {
              title: { display: true, text: axis, color: ink },
              ticks: { color: ink, maxRotation: 0, autoSkipPadding: 6 },
              grid: { color: line },
            },
            y: {
              min: 0,
              title: { display: true, text: unit, color: ink },
              ticks: { color: ink, maxTicksLimit: 5 },
              grid: { color: line },
            },
          },
          plugins: {
            legend: { display: false },
            tooltip: {
              callbacks: {
                label: ({ dataIndex }) => {
                  const p = points[dataIndex];
                  return p
                    ? `${formatSeconds(p.seconds)}${p.value === now ? ', as it is now' : '; press to take it'}`
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
