import { useQueryClient } from '@tanstack/react-query';
import { Download, Package } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { sheetsOf } from '@/core/document/on-sheet';
import { partWords } from '@/core/document/part-words';
import type { ExportSettings } from '@/core/document/schema';
import { WRITTEN_FORMATS, type WrittenFormat } from '@/core/formats/written';
import { isEmptyBox } from '@/core/geometry/point';
import type { ExportScope } from '@/core/job/export';
import { fileName } from '@/core/job/file-names';
import type { MadeFiles } from '@/core/job/files';
import { sheetsLaid } from '@/core/job/laid-sheets';
import { machineFileNames } from '@/core/job/machine-files';
import { placeOfRow, rowTitle } from '@/core/roster/in-row';
import { takeJobAlong } from '@/taken/take-along';
import { download } from '@/ui/download';
import { Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { GIVEN_FILES } from '@/ui/questions';
import { today } from '@/ui/when';
import { computing } from '@/worker/client';
import { useBeside } from '../../beside';
import { keepGiven } from '../../given-out';
import { filesOfNames } from '../../names/files-of-names';
import { proofOf, useProof } from '../../proof/proving';
import { change, selectedParts, useBench } from '../../store';
import { FileNames } from '../file-names';
import { BenchMachine } from './bench-machine';
import { Figures } from './figures';
import { ForMachine, namesWords } from './for-machine';
import { Given } from './given';
import { HowWritten } from './how-written';
import { NamesProof } from './names-proof';
import { Papers } from './papers';
import { Proof } from './proof';
import { TestPiece } from './test-piece';

const COUNTS = ['none', 'one', 'two', 'three', 'four', 'five', 'six'];
const counted = (n: number): string => COUNTS[n] ?? `${n}`;

/** How many names, or sheets with names, there are files of. */
function namesOf(names: number, sheets: number): string {
  if (sheets > 0) return sheets === 1 ? 'one sheet' : `${sheets} sheets`;
  return names === 1 ? 'one name' : `${names.toLocaleString('en')} names`;
}

/** What is asked of files of names. */
const namesLabel = (names: number, sheets: number): string =>
  names === 1 && sheets === 0 ? 'named by the list' : `files for each of the ${namesOf(names, sheets)}`;

/** The media type of a file, by the ending of its name. */
const typeOf = (name: string): string => WRITTEN_FORMATS.find((f) => name.endsWith(`.${f.ending}`))?.type ?? '';

/** Figures, how files are written, and the files. */
export function Prove() {
  const client = useQueryClient();
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const selection = useBench((s) => s.selection);
  const [onlySelected, setOnlySelected] = useState(false);
  const [isEverySheet, setEverySheet] = useState(true);
  const sheets = sheetsOf(job);
  const isEvery = isEverySheet && sheets.length > 1;
  const names = useBench((s) => s.document.roster?.rows.filter((row) => !row.out).length ?? 0);
  const [isEachNameAsked, setEachName] = useState(true);
  const isEachName = isEachNameAsked && names > 0;
  const sheetsOfNames = useBench((s) => sheetsLaid(s.document));
  const areNamesProved = isEachName && (names > 1 || sheetsOfNames > 0);
  const inHand = useBench((s) => (s.document.roster ? rowTitle(s.document, placeOfRow(s.document, s.rowId)) : ''));
  const [state, setState] = useState<{ busy: boolean; words: string | null; bad?: boolean }>({
    busy: false,
    words: null,
  });
  const chosen = job.parts.filter((p) => selectedParts(selection).includes(p.id));
  const [part] = chosen;
  const scope = { partIds: onlySelected && part ? chosen.map((p) => p.id) : null, date: today() };
  const nothing = !view || isEmptyBox(view.workBox);

  const edit = (recipe: (s: ExportSettings) => void, merge: string | null = null) =>
    change((draft) => void recipe(draft.export), merge);

  const write = async (make: (now: ExportScope) => Promise<MadeFiles>) => {
    setState({ busy: true, words: 'Writing …' });
    try {
      // The day it is now: a bench may be open overnight.
      const { files, refused } = await make({ ...scope, date: today() });
      if (refused.length > 0) return setState({ busy: false, words: refused.join(' '), bad: true });
      if (files.length === 0)
        return setState({
          busy: false,
          words: 'There is nothing to write: no part is given to an operation that is on.',
          bad: true,
        });
      for (const { name, bytes } of files) download(name, bytes, typeOf(name));
      const written = `Written: ${files.map((f) => f.name).join(', ')}`;
      setState({ busy: false, words: written });
      // They are out already: what is not kept is told, and nothing waits for it.
      void keepGiven(files, scope.partIds).then((notKept) => {
        if (notKept) setState({ busy: false, words: `${written}. ${notKept}` });
        void client.invalidateQueries({ queryKey: GIVEN_FILES });
      });
    } catch (reason) {
      setState({
        busy: false,
        bad: true,
        words: `The file could not be written: ${reason instanceof Error ? reason.message : 'unknown'}.`,
      });
    }
  };

  const writeAs = (formats: readonly WrittenFormat[]) =>
    write((now) => {
      if (isEachName)
        return filesOfNames(
          formats.map((f) => f.id),
          now,
          setState,
        );
      return computing().files(
        job,
        formats.map((f) => f.id),
        now,
        isEvery,
      );
    });
  /** The files of the machine: the very bytes that were proved, where they are of the same parts. */
  const forMachine = async (now: ExportScope): Promise<MadeFiles> => {
    if (isEachName) return filesOfNames('machine', now, setState);
    const { proved } = useProof.getState();
    const proof = proofOf(proved, job);
    const isSame = JSON.stringify(proved?.partIds ?? null) === JSON.stringify(now.partIds);
    if (proof && isSame && !isEvery) return { files: proof.files, refused: proof.refused };
    return computing().machineFiles(job, now, isEvery);
  };
  const drawing = (view?.operations ?? [])
    .filter((o) => (o.paths > 0 || o.fillMm2 > 0) && job.operations.find((x) => x.id === o.id)?.on)
    .map((o) => o.id);

  const take = async () => {
    setState({ busy: true, words: 'Packing …' });
    try {
      setState({ busy: false, words: await takeJobAlong(useBench.getState().document) });
    } catch (reason) {
      const why = reason instanceof Error ? reason.message : 'unknown';
      setState({ busy: false, bad: true, words: `The job could not be packed: ${why}.` });
    }
  };

  return (
    <>
      <Heading beside="as the machine runs it">Proof</Heading>
      {areNamesProved && <NamesProof scope={scope} what={namesOf(names, sheetsOfNames)} isOff={state.busy} />}
      <Proof scope={scope} isOff={nothing || state.busy} alone={areNamesProved ? inHand : null} />
      <Figures />
      <HowWritten job={job} edit={edit} />
      {part && (
        <Row label="Parts">
          <Form.Check
            type="switch"
            id="only-selected"
            label={`only ${chosen.length > 1 ? `the ${chosen.length} chosen` : partWords(part)}`}
            checked={onlySelected}
            onChange={(e) => setOnlySelected(e.target.checked)}
          />
        </Row>
      )}
      {sheets.length > 1 && (
        <Row label="Sheets">
          <Form.Check
            type="switch"
            id="every-sheet"
            label={`a file for each of the ${sheets.length}`}
            checked={isEverySheet}
            onChange={(e) => setEverySheet(e.target.checked)}
          />
        </Row>
      )}
      {names > 0 && (
        <Row label="Names">
          <Form.Check
            type="switch"
            id="each-name"
            label={namesLabel(names, sheetsOfNames)}
            checked={isEachNameAsked}
            onChange={(e) => setEachName(e.target.checked)}
          />
        </Row>
      )}
      <FileNames job={job} scope={scope} edit={edit} />
      <Heading beside="true size">Files</Heading>
      <ForMachine
        job={job}
        about={
          isEachName
            ? namesOf(names, sheetsOfNames)
            : isEvery
              ? `a set for each of ${sheets.length} sheets`
              : namesWords(machineFileNames(job, drawing, scope))
        }
        isOff={nothing || state.busy}
        onWrite={() => void write(forMachine)}
      />
      {WRITTEN_FORMATS.map((format) => (
        <Button
          key={format.id}
          variant="plain"
          className="w-100 mb-1 d-flex justify-content-between align-items-center gap-2"
          disabled={nothing || state.busy}
          onClick={() => void writeAs([format])}
          aria-label={`Write ${format.word}`}
        >
          <span>{format.word}</span>
          <span className="nf-muted nf-small fw-normal text-truncate">
            {isEachName
              ? namesOf(names, sheetsOfNames)
              : isEvery
                ? `${sheets.length} files`
                : fileName(job, format.id, scope)}
          </span>
          <Download size={15} aria-hidden="true" className="flex-shrink-0" />
        </Button>
      ))}
      <Button
        variant={job.machine ? 'plain' : 'primary'}
        className="w-100 mt-1"
        disabled={nothing || state.busy}
        onClick={() => void writeAs(WRITTEN_FORMATS)}
      >
        Write all {counted(WRITTEN_FORMATS.length)}
      </Button>
      <Heading beside="in one file">The whole job</Heading>
      <Button
        variant="plain"
        className="w-100"
        title="With its drawings, pictures and typefaces, to be opened in another Needlefile"
        disabled={state.busy}
        onClick={() => void take()}
      >
        <Package size={14} className="me-1" aria-hidden="true" />
        Take the job along
      </Button>
      {state.words && (
        <p
          // What came of it is not left below the edge.
          ref={(words) => void words?.scrollIntoView({ block: 'nearest' })}
          role="status"
          className={`nf-small mt-2 mb-0 ${state.bad ? 'text-danger' : 'nf-muted'}`}
        >
          {state.words}
        </p>
      )}
      <TestPiece isOff={nothing || state.busy} />
      <Papers isOff={nothing || state.busy} />
      {/* These come from the server: what is pressed above them stays where it is. */}
      <Given />
      <BenchMachine scope={scope} isOff={nothing || state.busy} />
    </>
  );
}
