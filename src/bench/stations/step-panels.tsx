/** The panel of each kind of step, and where it stands: each station shows those of its sections, in the order of the kinds. */
import type { ComponentType } from 'react';
import type { Part } from '@/core/document/schema';
import { STEPS, type StepKind, stepIn } from '@/core/kinds/steps';
import { PartNodes } from '../nodes/panel';
import { BorderEditor } from './border-editor';
import { Bridges } from './hold/bridges';
import { Hang } from './hold/hang';
import { Plate } from './hold/plate';
import { Bar, Thicken, Ties } from './hold/steps';
import { StudsPanel } from './hold/studs';
import { type StepProps, shownIn } from './hold/use-step';
import { InteriorPanel } from './interior/interior-panel';
import { CenterlinePanel } from './lines/centerline';
import { DotsPanel } from './lines/dots';
import { Weld } from './weld';

/** The sections that panels of steps stand in, by station. */
export type Section =
  | 'compose: border'
  | 'close: outlines'
  | 'close: nodes'
  | 'hold: plate'
  | 'hold: bridges'
  | 'hold: bar'
  | 'hold: ties'
  | 'hold: hang'
  | 'hold: studs'
  | 'hold: strength'
  | 'fill: inside'
  | 'fill: lines';

type StepPanel = {
  readonly section: Section;
  readonly Panel: ComponentType<StepProps>;
  /** Parts it is for; left out: for all. */
  readonly suits?: (part: Part) => boolean;
};

const isPositive = ({ keep }: Part): boolean => keep === 'inside';
const isNegative = ({ keep }: Part): boolean => keep === 'outside';

/** Whether it is a piece by itself: what is cut out of the sheet has a plate of its own, or is none. */
const comesOff = (part: Part): boolean => isPositive(part) || stepIn(part, 'plate')?.on === true;

const PANELS: Readonly<Record<StepKind['kind'], StepPanel>> = {
  weld: { section: 'close: outlines', Panel: Weld },
  thicken: { section: 'hold: strength', Panel: Thicken },
  bar: { section: 'hold: bar', Panel: Bar, suits: isPositive },
  tie: { section: 'hold: ties', Panel: Ties, suits: isPositive },
  border: { section: 'compose: border', Panel: BorderEditor },
  plate: { section: 'hold: plate', Panel: Plate, suits: isNegative },
  hang: { section: 'hold: hang', Panel: Hang, suits: comesOff },
  nodes: { section: 'close: nodes', Panel: PartNodes },
  bridge: { section: 'hold: bridges', Panel: Bridges },
  hatch: { section: 'fill: inside', Panel: InteriorPanel },
  centerline: { section: 'fill: lines', Panel: CenterlinePanel },
  dots: { section: 'fill: lines', Panel: DotsPanel },
  studs: { section: 'hold: studs', Panel: StudsPanel, suits: comesOff },
};

/** The panels of one section that suit a part, or all of several. */
export function StepPanels({ section, ...props }: StepProps & { readonly section: Section }) {
  return (
    <>
      {STEPS.map(({ kind }) => {
        const { section: own, Panel, suits } = PANELS[kind];
        return own === section && shownIn(props).every(({ part }) => suits?.(part) ?? true) ? (
          <Panel key={kind} {...props} />
        ) : null;
      })}
    </>
  );
}
