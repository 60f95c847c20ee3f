/** Figures measured on the way: printed, and kept for docs/measurements.md where NEEDLEFILE_FIGURES names a file. */
import { appendFileSync } from 'node:fs';

export type Figure = {
  readonly name: string;
  readonly value: number;
  readonly digits: number;
  readonly unit?: string;
  readonly aim?: { readonly most: number };
  readonly note?: string;
};

export function figure(f: Figure): void {
  const unit = f.unit ? ` ${f.unit}` : '';
  const aim = f.aim ? `  (aim: at most ${f.aim.most}${unit})` : '';
  const file = process.env.NEEDLEFILE_FIGURES;
  if (file) appendFileSync(file, `${JSON.stringify({ ...f, command: process.env.NEEDLEFILE_COMMAND ?? '' })}\n`);
  if (file || !process.env.VITEST)
    console.log(`${f.name}: ${f.value.toFixed(f.digits)}${unit}${aim}${f.note ? `  ${f.note}` : ''}`);
}
