// The section of docs/measurements.md that the mutation run writes; the rest is written by npm run verify, which keeps it.
const HEADING = '## Changes that tests notice';

/** The section as it stands, or nothing. */
export const sectionOf = (page) => {
  const at = page.indexOf(HEADING);
  return at < 0 ? '' : page.slice(at);
};

/** The page with the section put in, or replaced. */
export const withSection = (page, text) =>
  `${page.slice(0, page.length - sectionOf(page).length).trimEnd()}\n\n${HEADING}\n\n${text}`;
