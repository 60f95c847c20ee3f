/** Pens of plotter files: which number stands for which operation. */
import { LIMITS } from '../limits';
import type { Operation, OperationKind } from '../schema/operations';

type Penned = Pick<Operation, 'id' | 'kind' | 'pens'>;

/** Who is given the lowest numbers where the user has given none: most machines that read plotter files have one pen, and it cuts. */
const FIRST: readonly OperationKind[] = ['cut', 'score', 'engrave', 'mark'];

/** The pen each operation is written with, by id: the first of its own, else the lowest that none has, cuts first. */
export function pensOf(operations: readonly Penned[]): ReadonlyMap<string, number> {
  const taken = new Set(operations.flatMap((o) => o.pens));
  const pens = new Map<string, number>();
  const inTurn = FIRST.flatMap((kind) => operations.filter((o) => o.kind === kind));
  for (const { id, pens: own } of inTurn) {
    let pen = own[0] ?? 1;
    if (own.length === 0) while (taken.has(pen) && pen < LIMITS.pens) pen++;
    taken.add(pen);
    pens.set(id, pen);
  }
  return pens;
}

/** The operation a pen stands for when a plotter file is read: the first that has it among its own, else one written with it. */
export function operationOfPen<O extends Penned>(pen: number, operations: readonly O[]): O | null {
  const written = pensOf(operations);
  return operations.find((o) => o.pens.includes(pen)) ?? operations.find((o) => written.get(o.id) === pen) ?? null;
}
