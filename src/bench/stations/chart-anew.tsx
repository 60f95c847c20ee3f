/** Where the shop's cut charts say other than when the job took its settings: they can be taken anew. */
import Button from 'react-bootstrap/Button';
import { differences, takeFromChart } from '@/core/commands/shop';
import { useShopAsked } from '@/ui/use-shop';
import { dispatch, useBench } from '../store';

/** Says so, and takes them. */
export function ChartAnew() {
  const job = useBench((s) => s.job);
  const { data: shop } = useShopAsked();
  if (!shop || !job.machine) return null;
  const count = differences(job, takeFromChart(job, shop)).length;
  if (count === 0) return null;
  return (
    <p className="nf-small mb-2">
      The cut charts say other than when this job took its settings.{' '}
      <Button variant="word" onClick={() => dispatch((now) => takeFromChart(now, shop))}>
        Take {count === 1 ? 'the one that changed' : `the ${count} that changed`}
      </Button>
    </p>
  );
}
