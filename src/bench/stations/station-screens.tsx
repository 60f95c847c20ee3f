/** What the bench shows at each station: its panel at the left, and its layer over the sheet. */
import type { ComponentType } from 'react';
import type { Point } from '@/core/geometry/point';
import type { Station } from '@/core/inspect/stations';
import { BridgeLayer } from '../sheet/bridge-layer';
import type { Camera } from '../sheet/camera';
import { CutLayer } from '../sheet/cut-layer';
import { DotLayer } from '../sheet/dot-layer';
import { LoosePlaces, MissedPlaces } from '../sheet/found-layer';
import { GapLayer } from '../sheet/gap-layer';
import { HoldLayer } from '../sheet/hold-layer';
import type { Look } from '../state';
import { Assign } from './assign';
import { Close } from './close';
import { Compose } from './compose';
import { FillStation } from './fill';
import { Hold } from './hold/hold';
import { Prove } from './prove/prove';

/** What a station's layer on the sheet is given. */
export type LayerProps = {
  readonly camera: Camera;
  readonly toMm: (clientX: number, clientY: number) => Point;
  readonly look: Look;
  /** Whether nodes are being worked on. */
  readonly isAtNodes: boolean;
};

type Place = {
  readonly Panel: ComponentType;
  /** What is laid over the sheet there, but for the look at what the cut leaves; null: nothing. */
  readonly Layer: ComponentType<LayerProps> | null;
  /** What lies over the frame of what is chosen too, so that its handles cover nothing of it. */
  readonly Over?: ComponentType<LayerProps>;
};

const CloseLayer = ({ camera }: LayerProps) => <GapLayer camera={camera} />;

const HoldingLayer = ({ camera, toMm }: LayerProps) => (
  <>
    <HoldLayer camera={camera} toMm={toMm} />
    <BridgeLayer camera={camera} toMm={toMm} />
    <LoosePlaces camera={camera} />
  </>
);

const FillLayer = ({ camera, toMm, look, isAtNodes }: LayerProps) => (
  <>
    {look === 'drawing' && !isAtNodes && <DotLayer camera={camera} toMm={toMm} />}
    <MissedPlaces camera={camera} />
  </>
);

const CutPlaces = ({ camera, toMm }: LayerProps) => <CutLayer camera={camera} toMm={toMm} />;

/** The panel of each station, and what it draws over the sheet. */
export const STATION_SCREENS: Readonly<Record<Station, Place>> = {
  compose: { Panel: Compose, Layer: null },
  close: { Panel: Close, Layer: CloseLayer },
  hold: { Panel: Hold, Layer: HoldingLayer },
  fill: { Panel: FillStation, Layer: FillLayer },
  assign: { Panel: Assign, Layer: null, Over: CutPlaces },
  prove: { Panel: Prove, Layer: null },
};
