import type { Part } from './schema';

/** Whether a part is a stencil in stock that sticks, whose islands stay by themselves. */
export const sticks = (part: Pick<Part, 'keep' | 'selfAdhesive'>): boolean =>
  part.selfAdhesive && part.keep === 'outside';
