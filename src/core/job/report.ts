/** The report of a prepared job: plain figures for people and programs, in mm. */

import type { Job, Operation } from '../document/schema';
import { countSegments, isContinuous } from '../geometry/path';
import { type Box, boxCentre, isEmptyBox, type Point } from '../geometry/point';
import { Names } from '../inspect/names';
import type { Stretch } from '../inspect/strength';
import { noteOf } from '../kinds/step';
import { hangStep } from '../kinds/steps/hang';
import { tieStep } from '../kinds/steps/tie';
import { finished } from '../memo';
import type { Hanger } from '../prepare/hanger';
import { tieOnSheet } from '../prepare/ties';
import { twiceWithin } from '../rules/twice';
import { SETTING_NAMES } from '../schema/shop/settings';
import { settingsOn, sourceOf } from '../shop/in-force';
import type { PartHatch } from '../toolpath/hatch/part-hatch';
import { partsOfGo } from './drawn';
import type { JobResult } from './evaluate';
import type { PartResult } from './part-result';
import { type Price, priceOfRun } from './price';
import type { OperationRun } from './run';
import { dotTotals, totalSetDowns } from './totals';

const round = (value: number, digits = 4): number => Number(value.toFixed(digits));

const boxReport = (box: Box) =>
  isEmptyBox(box)
    ? null
    : {
        x: round(box.minX),
        y: round(box.minY),
        width: round(box.maxX - box.minX),
        height: round(box.maxY - box.minY),
      };

const pointReport = ({ x, y }: Point) => ({ x: round(x), y: round(y) });

const stretchReport = ({ width, at, box }: Stretch) => ({
  widthMm: round(width),
  at: pointReport(at),
  box: boxReport(box),
});

const hatchReport = (hatch: PartHatch | null) =>
  hatch && {
    widthMm: round(hatch.widthMm),
    spacingMm: round(hatch.spacingMm),
    lines: hatch.lineCount,
    strips: hatch.strips,
    drawnMm: round(hatch.drawnMm),
    travelMm: round(hatch.travelMm),
    coveredMm2: round(hatch.cover.covered),
    missedMm2: round(hatch.cover.missed),
    beyondReachMm2: round(hatch.reach.missedMm2),
    spilledMm2: round(hatch.cover.spilled),
    missedPlaces: hatch.cover.places.map((p) => ({
      areaMm2: round(p.areaMm2),
      at: pointReport(p.at),
      box: boxReport(p.box),
    })),
  };

/** The settings that are given, each with where it comes from: typed, a row of the cut chart, reckoned between two, or the stock. */
const settingsReport = (operation: Operation, sheet: Job['sheet']) => {
  const now = settingsOn(operation, sheet);
  const given = SETTING_NAMES.flatMap((which) => {
    const from = sourceOf(operation, sheet, which);
    return from === null
      ? []
      : [[which, { value: now[which], from, tried: from === 'row' && operation.settings.tried }] as const];
  });
  return Object.fromEntries(given);
};

const NOT_RUN = { travelMm: 0, seconds: null, times: null, order: [] };

/** How an operation is run: the way without work, how long it takes, and where each thing of it begins, in order. */
const runReport = (run: OperationRun | undefined) =>
  run
    ? {
        travelMm: round(run.travelMm),
        seconds: run.times && round(run.times.seconds, 2),
        times: run.times && {
          working: round(run.times.working, 2),
          idle: round(run.times.idle, 2),
          piercing: round(run.times.piercing, 2),
          lifting: round(run.times.lifting, 2),
          changing: round(run.times.changing, 2),
          factor: run.times.factor,
        },
        order: run.goes.map(({ go, from }) => ({ parts: partsOfGo(go), at: pointReport(from) })),
      }
    : NOT_RUN;

const priceReport = (price: Price | null) =>
  price && {
    total: round(price.total, 2),
    stock: price.stock === null ? null : round(price.stock, 2),
    stockMm2: round(price.stockMm2),
    time: price.time === null ? null : round(price.time, 2),
    pierces: price.pierces,
    piercing: price.piercing === null ? null : round(price.piercing, 2),
  };

const hangReport = (hanger: Hanger | null) =>
  hanger && {
    at: hanger.at && pointReport(hanger.at),
    middleOfWeight: pointReport(hanger.weight),
    turnDeg: round(hanger.turnDeg, 2),
  };

/** Pieces with what they are called. */
function namedPieces(part: PartResult) {
  const names = new Names(part);
  return part.pieces.map((piece) => ({ piece, name: names.piece(piece) }));
}

/** What the headless command says of a job, as JSON. */
export type Report = ReturnType<typeof reportOf>;

/** Figures per part and operation, and the findings. Origin is the sheet's lower left corner, y upwards. */
export function reportOf(job: Job, result: JobResult) {
  const references = new Set(job.parts.flatMap((p) => (p.reference ? [p.id] : [])));
  const run = finished(result.run('full'));
  const runs = new Map(run.operations.map((o) => [o.operation.id, o]));
  return {
    title: job.title,
    ...(job.otherSheets.length > 0 && { sheetId: job.sheetId, sheetName: job.sheetName }),
    unit: 'mm' as const,
    sheet: { width: job.sheet.width, height: job.sheet.height },
    stock: { material: job.sheet.material, thicknessMm: job.sheet.thickness, kerfMm: job.sheet.kerf },
    machine: job.machine && { name: job.machine.name, kind: job.machine.kind },
    work: boxReport(result.workBox),
    seconds: round(run.seconds, 2),
    timeNotKnown: run.unknown,
    price: priceReport(priceOfRun(job, result.workBox, run)),
    parts: result.parts
      .filter(({ id }) => !references.has(id))
      .map((part) => ({
        id: part.id,
        name: job.parts.find((p) => p.id === part.id)?.name ?? '',
        box: boxReport(part.box),
        shapeAreaMm2: round(part.outlines.reduce((sum, o) => sum + o.area, 0)),
        keptAreaMm2: part.outlines.length === 0 ? 0 : round(part.kept.reduce((sum, o) => sum + o.area, 0)),
        keptPieces: part.pieces.length,
        pieces: namedPieces(part).map(({ piece, name }) => ({
          kind: piece.kind,
          name,
          areaMm2: round(piece.area),
          box: boxReport(piece.box),
          centre: pointReport(boxCentre(piece.box)),
        })),
        ties: (noteOf(tieStep, part)?.ties ?? []).map((onSheet) => {
          const { centre, angleDeg } = tieOnSheet(onSheet, part.matrix);
          return {
            piece: onSheet.piece,
            centre: pointReport(centre),
            lengthMm: round(onSheet.length),
            widthMm: round(onSheet.width),
            turnDeg: round(angleDeg, 2),
          };
        }),
        hangs: hangReport(noteOf(hangStep, part)),
        studs: (part.linework.studs?.at ?? []).map(pointReport),
        islands: (part.bridged?.islands ?? []).map((island) => ({
          letter: island.letter,
          island: island.rank,
          box: boxReport(island.outline.box),
          bridges: island.bridges.length,
          trouble: island.trouble,
        })),
        bridges: (part.bridged?.bridges ?? []).map((bridge) => ({
          letter: bridge.letter,
          island: bridge.island,
          from: pointReport(bridge.from),
          to: pointReport(bridge.to),
          widthMm: round(bridge.width),
          byHand: bridge.pinnedIndex !== null,
        })),
        thin: part.strength.thin.map((s) => ({ ...stretchReport(s), whenCutMm: round(s.left) })),
        tightGaps: part.strength.tight.map(stretchReport),
        closedUp: part.members.flatMap((m) =>
          (m.layout?.closedUp ?? []).map((c) => ({
            member: m.id,
            what: c.what,
            at: c.start,
            movedMm: round(c.move),
            jointMm: round(c.joint),
            kind: c.kind,
          })),
        ),
        middleLines: part.linework.centerline?.paths.length ?? 0,
        dots: part.linework.dots?.dots.length ?? 0,
        hatch: hatchReport(part.linework.hatch),
        paths: part.outlines.length,
        segments: countSegments(part.outlines.map((o) => o.path)),
        openPaths: part.openPaths.length + part.outlines.filter((o) => !o.path.closed || !isContinuous(o.path)).length,
      })),
    operations: result.operations.map((o) => ({
      id: o.operation.id,
      name: o.operation.name,
      kind: o.operation.kind,
      on: o.operation.on,
      paths: totalSetDowns(o.drawn),
      dots: dotTotals(o.drawn),
      lengthMm: round(o.lengthMm),
      ...runReport(runs.get(o.operation.id)),
      twiceMm: round(twiceWithin(o.drawn.map((d) => d.drawable))),
      scan: o.operation.scan,
      settings: settingsReport(o.operation, job.sheet),
      fillAreaMm2: round(o.fillMm2),
    })),
    findings: result.findings.map((f) => ({
      code: f.code,
      severity: f.severity,
      sentence: f.sentence,
      part: f.partId,
      box: f.box && boxReport(f.box),
      leftAsItIs: f.leftReason,
      key: f.key,
    })),
  };
}

/** What the command says of a job with several sheets: a report of each, in the order they were made. */
export type SheetReports = { readonly title: string; readonly sheets: readonly Report[] };
