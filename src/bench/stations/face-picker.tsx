/** Choosing a typeface by seeing the words set in it, beside the sheet that follows. */
import { type RefObject, useEffect, useEffectEvent, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Offcanvas from 'react-bootstrap/Offcanvas';
import { setFace } from '@/core/commands/faces';
import type { LinesAt } from '@/core/commands/own-lines';
import type { Lettering } from '@/core/document/schema';
import { textLines } from '@/core/lettering/draft-lines';
import { faceInLine } from '@/core/schema/lettering';
import { BringInFaces } from '@/faces/bring-in-faces';
import { FaceList } from '@/faces/face-list';
import { type ListedFace, useFaces, useMarkFace } from '@/faces/faces';
import styles from '../bench.module.css';
import { dispatch, useBench } from '../store';

type Props = {
  readonly at: LinesAt;
  readonly member: Lettering;
  /** The words set as the lines that are chosen are. */
  readonly shown: Lettering;
};

/** Chooses the typeface of a lettering, or of lines of it. */
export function FacePicker({ at, member, shown }: Props) {
  const [isOpen, setIsOpen] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  return (
    <>
      <Button
        ref={opener}
        variant="plain"
        className="w-100 text-start fw-normal text-truncate"
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        onClick={() => setIsOpen(!isOpen)}
      >
        {facesIn(member, at.lines)}
      </Button>
      {isOpen && <Faces at={at} member={member} shown={shown} opener={opener} onClose={() => setIsOpen(false)} />}
    </>
  );
}

/** The typefaces of the lines that are acted on, by name. */
function facesIn(member: Lettering, lines: readonly number[] | null): string {
  const acted = lines ?? textLines(member.text).map((_, line) => line);
  return [...new Set(acted.map((line) => faceInLine(member, line).face))].join(', ');
}

function Faces({
  at,
  member,
  shown,
  opener,
  onClose,
}: Props & {
  /** What opens and closes the list. */
  opener: RefObject<HTMLElement | null>;
  onClose: () => void;
}) {
  const { families, error } = useFaces();
  const units = useBench((s) => s.job.units);
  const least = useBench((s) => s.job.sheet.leastWidth);
  const mark = useMarkFace();
  const search = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState<ListedFace | null>(null);
  const choose = (face: ListedFace) => {
    setChosen(face);
    dispatch(
      (job) => setFace(job, at, { ...face.named, isLine: face.isLine }),
      `face:${member.id}:${at.lines?.join()}`,
    );
  };
  const { size, letterSpacing, lineSpacing, align, evenLines, features } = shown;
  const every = textLines(member.text);
  const text = at.lines ? at.lines.map((line) => every[line]).join('\n') : member.text;
  // Going on elsewhere leaves the list, and what is pressed there gets the press.
  const leave = useEffectEvent((e: PointerEvent) => {
    const pressed = e.target instanceof Element ? e.target : null;
    if (!pressed?.closest('.offcanvas') && !opener.current?.contains(pressed)) onClose();
  });
  // What was stepped through on the way was not used.
  const used = useEffectEvent(() => chosen && mark({ face: chosen.key, used: true }));
  useEffect(() => {
    document.addEventListener('pointerdown', leave, true);
    return () => {
      document.removeEventListener('pointerdown', leave, true);
      used();
    };
  }, []);
  const own = families.find(({ faces }) =>
    faces.some(({ named }) => named.face === shown.face && named.content === shown.content),
  );
  return (
    <Offcanvas
      show
      placement="end"
      backdrop={false}
      scroll
      autoFocus={false}
      enforceFocus={false}
      onHide={onClose}
      onEntered={() => search.current?.focus()}
      className={styles.faces}
      aria-labelledby="faces-title"
    >
      <Offcanvas.Header closeButton>
        <Offcanvas.Title id="faces-title" as="h2" className="fs-5">
          Your words in each typeface
        </Offcanvas.Title>
      </Offcanvas.Header>
      <Offcanvas.Body className="d-flex flex-column gap-2 pt-0">
        {error && <p role="alert">{error.message} The typefaces that ship are here all the same.</p>}
        <div className="flex-fill overflow-hidden">
          <FaceList
            families={families}
            words={{
              text,
              size,
              letterSpacing,
              lineSpacing,
              align,
              evenLines,
              features,
              leastMm: least ?? 0,
            }}
            units={units}
            chosen={own?.family ?? ''}
            onChoose={choose}
            onDone={onClose}
            search={search}
          />
        </div>
        <BringInFaces />
      </Offcanvas.Body>
    </Offcanvas>
  );
}
