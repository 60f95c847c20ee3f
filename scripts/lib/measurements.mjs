// docs/measurements.md: a table of figures, each with the command that measures it, and what mutation left.
import fs from 'node:fs';
import path from 'node:path';
import { sectionOf } from '../mutate/section.mjs';
import { root } from './paths.mjs';

const page = path.join(root, 'docs', 'measurements.md');

/** Figures as they were kept on the way, one a line. */
export const figuresIn = (file) =>
  (fs.existsSync(file) ? fs.readFileSync(file, 'utf8') : '')
    .split('\n')
    .filter(Boolean)
    .map((line) => JSON.parse(line));

/** A figure as it is shown. */
export const shown = (f) => `${f.value.toFixed(f.digits)}${f.unit ? ` ${f.unit}` : ''}`;

const rowOf = (f) => ({
  name: f.name,
  command: `\`${f.command}\``,
  line: `| ${f.name} | ${shown(f)} | ${f.aim ? `at most ${f.aim.most}${f.unit ? ` ${f.unit}` : ''}` : ''} | ${f.note ?? ''} | \`${f.command}\` |`,
});

/** The rows that the page has. */
const rowsNow = () => {
  const text = fs.readFileSync(page, 'utf8');
  return text
    .slice(0, text.length - sectionOf(text).length)
    .split('\n')
    .filter((line) => /^\| .* \| `[^`]+` \|$/.test(line))
    .map((line) => {
      const cells = line.slice(2, -2).split(' | ');
      return { name: cells[0], command: cells.at(-1), line };
    });
};

/**
 * Write the page with these figures; those it has by other names stay where `isAll` is false.
 */
export function writeMeasurements(figures, isAll) {
  const fresh = figures.map(rowOf);
  const names = new Set(fresh.map(({ name }) => name));
  const kept = isAll ? [] : rowsNow().filter(({ name }) => !names.has(name));
  const rows = [...kept, ...fresh].sort(
    (a, b) => a.command.localeCompare(b.command) || a.name.localeCompare(b.name, 'en', { numeric: true }),
  );
  const mutation = sectionOf(fs.readFileSync(page, 'utf8'));
  const date = new Date().toISOString().slice(0, 10);
  const said = isAll
    ? `Written by \`npm run verify\` on ${date}; ratios are against the thing named, measured in the same run.`
    : `Written by the commands named; the newest rows are of ${date}. Ratios are against the thing named, measured in the same run.`;
  fs.writeFileSync(
    page,
    `# Measurements

${said}

| figure | measured | aim | how | command |
|---|---|---|---|---|
${rows.map(({ line }) => line).join('\n')}
${mutation ? `\n${mutation}` : ''}`,
  );
}
