/** Choosing a typeface by seeing the words set in it. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import Spinner from 'react-bootstrap/Spinner';
import { SHIPPED_FACES } from '@/core/lettering/catalogue';
import { computing } from '@/worker/client';
import type { FaceSample } from '@/worker/samples';
import styles from '../bench.module.css';

function Sample({ sample, chosen, onChoose }: { sample: FaceSample; chosen: boolean; onChoose: () => void }) {
  const { box } = sample;
  const manner = SHIPPED_FACES.find((f) => f.family === sample.family)?.manner;
  return (
    <button
      ref={(button) => {
        if (chosen) button?.scrollIntoView({ block: 'nearest' });
      }}
      type="button"
      role="option"
      aria-selected={chosen}
      className={styles.face}
      onClick={onChoose}
    >
      {sample.d === null ? (
        <span className="nf-muted">could not be loaded</span>
      ) : (
        <svg
          viewBox={`${box.x} ${box.y} ${Math.max(box.width, 1)} ${Math.max(box.height, 1)}`}
          preserveAspectRatio="xMinYMid meet"
          aria-hidden="true"
        >
          {sample.isSingleStroke ? (
            <path d={sample.d} className={styles.faceLines} />
          ) : (
            <path d={sample.d} fill="currentColor" />
          )}
        </svg>
      )}
      <small>
        <span>{sample.family}</span>
        <span>{sample.missing.length > 0 ? `has no ${sample.missing.slice(0, 6).join(' ')}` : manner}</span>
      </small>
    </button>
  );
}

/** Chooses a typeface by how it sets the user's words. */
export function FacePicker({
  face,
  text,
  onChange,
}: {
  face: string;
  text: string;
  onChange: (family: string) => void;
}) {
  const [open, setOpen] = useState(false);
  const samples = useQuery({
    queryKey: ['samples', text],
    queryFn: () => computing().samples(text),
    enabled: open,
    staleTime: 60_000,
  });
  return (
    <>
      <Button
        variant="plain"
        className="w-100 text-start fw-normal"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        {face}
      </Button>
      {/* While it faded it would take the keys from the field one has gone on to, and give them back to its button. */}
      <Modal
        show={open}
        animation={false}
        onHide={() => setOpen(false)}
        size="lg"
        scrollable
        aria-labelledby="faces-title"
      >
        <Modal.Header closeButton>
          <Modal.Title id="faces-title" as="h2" className="fs-5">
            Your words in each typeface
          </Modal.Title>
        </Modal.Header>
        <Modal.Body className="p-2">
          {samples.data ? (
            <div className={styles.faceList} role="listbox" aria-label="Typefaces">
              {samples.data.map((sample) => (
                <Sample
                  key={sample.family}
                  sample={sample}
                  chosen={sample.family === face}
                  onChoose={() => {
                    onChange(sample.family);
                    setOpen(false);
                  }}
                />
              ))}
            </div>
          ) : samples.isError ? (
            <p role="alert">The typefaces could not be set. Close this and try again.</p>
          ) : (
            <Spinner role="status" aria-label="Setting your words" size="sm" />
          )}
        </Modal.Body>
      </Modal>
    </>
  );
}
