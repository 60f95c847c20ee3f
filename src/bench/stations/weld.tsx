/** Whether overlapping letters become one outline. */
import { stepIn, withStep } from '@/core/kinds/steps';
import { Switch } from '@/ui/fields';
import { change } from '../store';
import type { StepProps } from './hold/use-step';

/** Whether overlapping outlines become one. */
export function Weld({ part, view }: StepProps) {
  const weld = stepIn(part, 'weld')?.on ?? true;
  const mustWeld = part.members.some((m) => m.role !== 'join');
  const setWeld = (on: boolean) =>
    change((job) => {
      const draft = job.parts.find((p) => p.id === part.id);
      if (draft) draft.steps = withStep(draft.steps, { kind: 'weld', on });
    });
  return (
    <Switch
      label="Weld what overlaps"
      on={weld || mustWeld}
      disabled={mustWeld}
      onChange={setWeld}
      note={
        mustWeld
          ? 'Always, where something is cut out or kept within.'
          : view.overlaps
            ? 'Off: letters overlap, and each overlap would be cut.'
            : weld
              ? 'Overlapping letters become one outline. The words stay words.'
              : 'Off: every letter keeps its own outline. None overlap.'
      }
    />
  );
}
