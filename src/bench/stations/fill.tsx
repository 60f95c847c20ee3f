import { interiorOf } from '@/core/commands/interior';
import { partWords } from '@/core/document/part-words';
import { stepIn } from '@/core/kinds/steps';
import { formatRun, formatShare } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { useBench } from '../store';
import type { Shown } from './hold/use-step';
import { lineLength } from './lines/centerline';
import { areLocked, asProps, type InShort, Locked, NothingYet, ShortList, useShownParts } from './shown-parts';
import { StepPanels } from './step-panels';

/** What is done inside a part, in a few words. */
function insideWords({ part, view }: Shown, unit: 'mm' | 'in'): InShort {
  const step = stepIn(part, 'centerline');
  const lines = step?.on ? view.centerline : null;
  const dots = stepIn(part, 'dots')?.on ? view.dots : null;
  const also = [
    step && lines && `middle lines, ${formatRun(lineLength(lines, step), unit)}`,
    dots && `${dots.count.toLocaleString('en')} dots`,
  ].filter(Boolean);
  const inside = interiorOf(part);
  const own =
    inside === 'lines'
      ? `lines${view.hatch ? `, ${formatShare(view.hatch.covered)} covered` : ''}`
      : inside === 'area'
        ? 'an area'
        : '';
  return { words: [own, ...also].filter(Boolean).join(' · ') || 'left alone' };
}

/** What happens to the area inside the outlines. */
export function FillStation() {
  const parts = useShownParts(true);
  const unit = useBench((s) => s.job.units);
  const isChosen = useBench((s) => s.selection.partId !== null);
  const props = asProps(parts);
  if (!props) return <NothingYet>Nothing to fill yet: add lettering or a shape first.</NothingYet>;
  if (!isChosen && parts.length > 1)
    return (
      <ShortList
        parts={parts}
        ask="Choose a part to fill it, or several with Shift or Ctrl."
        inShort={(shown) => insideWords(shown, unit)}
      />
    );
  if (areLocked(props))
    return (
      <>
        <Heading beside={insideWords(props, unit).words}>{partWords(props.part)}</Heading>
        <Locked />
      </>
    );
  return (
    <>
      <StepPanels section="fill: inside" {...props} />
      <StepPanels section="fill: lines" {...props} />
    </>
  );
}
