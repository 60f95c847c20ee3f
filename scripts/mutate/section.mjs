// The section of docs/measurements.md that the mutation run writes, and reads again when only some files are measured anew; the
// rest of the page is written by npm run verify, which keeps it.
import { reasonFor } from './reasons.mjs';

const HEADING = '## Changes that tests notice';

/** The section as it stands, or nothing. */
export const sectionOf = (page) => {
  const at = page.indexOf(HEADING);
  return at < 0 ? '' : page.slice(at);
};

/** The page with the section put in, or replaced. */
export const withSection = (page, text) =>
  `${page.slice(0, page.length - sectionOf(page).length).trimEnd()}\n\n${HEADING}\n\n${text}`;

const cells = (row) =>
  row
    .split(/(?<!\\)\|/)
    .slice(1, -1)
    .map((cell) => cell.trim());
const plain = (cell) => cell.replace(/^`|`$/g, '').replaceAll('\\|', '|');
const code = (text) => `\`${text.replace(/\s+/g, ' ').slice(0, 80).replaceAll('|', '\\|').replaceAll('`', '´')}\``;

/** What a section says: for each file its changes and how many were noticed, what was not, and the runs it came from. */
export function readSection(page) {
  const figures = { files: new Map(), survived: [], runs: [] };
  for (const line of sectionOf(page).split('\n')) {
    const run = /^- (\d{4}-\d\d-\d\d): (.*)$/.exec(line);
    if (run) figures.runs.push(`${run[1]}: ${run[2]}`);
    if (!line.startsWith('| src/')) continue;
    const row = cells(line);
    if (row.length === 3) figures.files.set(row[0], { changes: Number(row[1]), noticed: Number(row[2].split(' ')[0]) });
    else {
      const [, file, at] = /^(.*):(\d+)$/.exec(row[0]);
      figures.survived.push({ file, line: Number(at), text: plain(row[1]), replacement: plain(row[2]) });
    }
  }
  return figures;
}

/** Figures with those of some files replaced; files that are no longer measured go. */
export function merged(before, now, isMeasured) {
  const keeps = (file) => isMeasured(file) && !now.files.has(file);
  return {
    files: new Map([...before.files, ...now.files].filter(([file]) => keeps(file) || now.files.has(file))),
    survived: [...before.survived.filter((m) => keeps(m.file)), ...now.survived],
    runs: [...before.runs, ...now.runs],
  };
}

export const shareOf = ({ files }) => {
  const all = [...files.values()];
  return all.reduce((n, f) => n + f.noticed, 0) / all.reduce((n, f) => n + f.changes, 0);
};

/** Figures as the text of the section. */
export function writeSection(figures, aim) {
  const all = [...figures.files.values()];
  const [noticed, changes] = [all.reduce((n, f) => n + f.noticed, 0), all.reduce((n, f) => n + f.changes, 0)];
  const rows = [...figures.files]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(
      ([file, f]) =>
        `| ${file} | ${f.changes} | ${f.noticed} (${((100 * f.noticed) / (f.changes || 1)).toFixed(0)} %) |`,
    );
  const left = [...figures.survived]
    .sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line)
    .map((m) => `| ${m.file}:${m.line} | ${code(m.text)} | ${code(m.replacement)} | ${reasonFor(m)} |`);
  return `Small changes made one at a time (a comparison turned, a condition dropped, a block emptied), and how many of them the
quick unit tests notice: ${noticed} of ${changes}, ${((100 * noticed) / changes).toFixed(1)} % (aim: at least ${100 * aim} %). Written by \`npm run mutate\`; words, lists
and regular expressions are not changed. \`npm run mutate -- FILE,FILE\` measures some files anew and keeps the others. Runs:

${figures.runs.map((run) => `- ${run}`).join('\n')}

| file | changes | noticed |
|---|---|---|
${rows.join('\n')}

What was not noticed:

| where | line | changed to | why |
|---|---|---|---|
${left.join('\n')}
`;
}
