/** Places for studs or stand-offs, and the paper to drill the wall by. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { LIMITS } from '@/core/limits';
import { download } from '@/ui/download';
import { NumberField, QuantityField, Switch } from '@/ui/fields';
import { computing } from '@/worker/client';
import { useBench } from '../../store';
import { DoneBy } from '../lines/done-by';
import { type StepProps, useStep } from './use-step';

/** The panel of studs. */
export function StudsPanel(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, set, turn } = useStep(props, 'studs');
  const [said, setSaid] = useState<{ readonly words: string; readonly bad: boolean } | null>(null);
  const small = unit === 'mm' ? 0.5 : 25.4 / 64;
  const { studs } = props.view;
  const paper = async () => {
    try {
      const { files, refused } = await computing().drillPaper(useBench.getState().job, props.part.id);
      for (const file of files) download(file.name, file.bytes, 'application/pdf');
      const [file] = files;
      setSaid(file ? { words: `Written: ${file.name}`, bad: false } : { words: refused.join(' '), bad: true });
    } catch {
      setSaid({ words: 'The drill paper could not be written.', bad: true });
    }
  };
  return (
    <section aria-label="Studs">
      <Switch
        label="Studs or stand-offs"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'Places to mount separate letters by, and a paper to drill the wall by.'}
      />
      {step && (
        <>
          <QuantityField
            label="Hole"
            unit={unit}
            {...at('width')}
            least={LIMITS.leastLengthMm}
            most={1000}
            stepMm={small}
            onChange={(width) => set({ width }, 'width')}
          />
          <QuantityField
            label="To the edge"
            unit={unit}
            {...at('edge')}
            least={0}
            most={1000}
            stepMm={small}
            onChange={(edge) => set({ edge }, 'edge')}
          />
          <NumberField
            label="For each piece"
            suffix=""
            step={1}
            digits={0}
            {...at('each')}
            least={1}
            most={LIMITS.studsEach}
            onChange={(each) => set({ each: Math.round(each) }, 'each')}
          />
          <DoneBy {...props} what="studs" label="On the part" />
          {!props.also && (
            <>
              <p className="nf-small mb-2">
                {studs ? (
                  <>
                    <span className="nf-figure">{studs.at.length.toLocaleString('en')}</span>{' '}
                    {studs.at.length === 1 ? 'place' : 'places'}
                  </>
                ) : (
                  'Looking for places …'
                )}
              </p>
              <Button
                variant="plain"
                className="w-100"
                disabled={!studs || studs.at.length === 0}
                title="Its outlines and places at true size, seen from the front"
                onClick={() => void paper()}
              >
                Drill paper (PDF)
              </Button>
              {said && (
                <p role="status" className={`nf-small mt-1 mb-0 ${said.bad ? 'text-danger' : 'nf-muted'}`}>
                  {said.words}
                </p>
              )}
            </>
          )}
        </>
      )}
    </section>
  );
}
