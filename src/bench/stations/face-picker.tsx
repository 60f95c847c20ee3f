/** Choosing a typeface by seeing the words set in it, beside the sheet that follows. */
import { type RefObject, useEffect, useEffectEvent, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Offcanvas from 'react-bootstrap/Offcanvas';
import { setFace } from '@/core/commands/letters';
import type { Lettering } from '@/core/document/schema';
import { BringInFaces } from '@/faces/bring-in-faces';
import { FaceList } from '@/faces/face-list';
import { type ListedFace, useFaces, useMarkFace } from '@/faces/faces';
import styles from '../bench.module.css';
import { dispatch, useBench } from '../store';

/** Chooses the typeface of a lettering. */
export function FacePicker({ partId, member }: { partId: string; member: Lettering }) {
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
        {member.face}
      </Button>
      {isOpen && <Faces partId={partId} member={member} opener={opener} onClose={() => setIsOpen(false)} />}
    </>
  );
}

function Faces({
  partId,
  member,
  opener,
  onClose,
}: {
  partId: string;
  member: Lettering;
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
    dispatch((job) => setFace(job, partId, member.id, { ...face.named, isLine: face.isLine }), `face:${member.id}`);
  };
  const { text, size, letterSpacing, lineSpacing, align, evenLines, features } = member;
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
    faces.some(({ named }) => named.face === member.face && named.content === member.content),
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
