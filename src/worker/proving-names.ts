/** Proving what is made for a list of names: the files of each sheet they lie on, or of each name by itself. */
import type { Job } from '../core/document/schema';
import type { ExportScope } from '../core/job/export';
import { jobOfSheet, placesOn, sheetsLaid } from '../core/job/laid-sheets';
import type { ProofFinding } from '../core/proof/prove';
import { jobInRow, rowTitle } from '../core/roster/in-row';
import type { ProofView } from './proof-view';
import type { OnProgress } from './runner';

/** What came of proving the files of a name, or of a sheet with names. */
export type NameProof = {
  /** What it is called: "Sheet 2", or the name. */
  readonly title: string;
  /** The row; null for a sheet. */
  readonly rowId: string | null;
  readonly files: readonly { readonly name: string; readonly sha256: string }[];
  readonly refused: readonly string[];
  readonly findings: readonly ProofFinding[];
  /** How long its machine runs, in seconds; null where that is not known. */
  readonly seconds: number | null;
};

/** A job that is proved by itself. */
type Unit = Pick<NameProof, 'title' | 'rowId'> & { readonly job: () => Job; readonly inFiles: string };

/** The jobs that files are made of: sheets where names are laid on some, else names. */
function unitsOf(document: Job, today: string): Unit[] {
  const sheets = sheetsLaid(document);
  if (document.layout && sheets > 0)
    return Array.from({ length: sheets }, (_, sheet): Unit | null =>
      placesOn(document, sheet).length === 0
        ? null
        : {
            title: `Sheet ${sheet + 1}`,
            rowId: null,
            job: () => jobOfSheet(document, sheet, { today }),
            inFiles: `sheet ${sheet + 1}`,
          },
    ).filter((unit) => unit !== null);
  return (document.roster?.rows ?? []).flatMap((row, nth) =>
    row.out
      ? []
      : [
          {
            title: rowTitle(document, nth),
            rowId: row.id,
            job: () => jobInRow(document, nth, { today }),
            inFiles: rowTitle(document, nth),
          },
        ],
  );
}

const secondsOf = ({ run }: ProofView): number | null =>
  run?.operations.every((operation) => operation.isTimed) ? run.seconds : null;

/** Prove all of them, one after the other; null when that was asked anew meanwhile. `prove` proves one. */
export async function proofOfNames(
  document: Job,
  { scope, today }: { readonly scope: ExportScope; readonly today: string },
  prove: (job: Job, scope: ExportScope) => Promise<ProofView | null>,
  onProgress?: OnProgress,
): Promise<readonly NameProof[] | null> {
  const units = unitsOf(document, today);
  const proofs: NameProof[] = [];
  for (const { title, rowId, job, inFiles } of units) {
    onProgress?.(proofs.length, units.length);
    const view = await prove(job(), { ...scope, partIds: null, row: inFiles });
    if (!view) return null;
    const { refused, findings } = view;
    const files = view.files.map(({ name, sha256 }) => ({ name, sha256 }));
    proofs.push({ title, rowId, files, refused, findings, seconds: secondsOf(view) });
  }
  return proofs;
}
