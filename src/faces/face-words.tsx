/** Words in a face, drawn as they come into sight. */
import { useQuery } from '@tanstack/react-query';
import type { FaceSample, Shown } from '@/worker/face-samples';
import type { ListedFace } from './faces';
import styles from './faces.module.css';
import { sampleQuery } from './trials';

/** A few outlines, fitted into the room they have. */
export function Outlines({ shown, className }: { shown: Shown; className?: string | undefined }) {
  const { box, d, isSingleStroke } = shown;
  return (
    <svg
      className={className}
      viewBox={`${box.x} ${box.y} ${Math.max(box.width, 1)} ${Math.max(box.height, 1)}`}
      preserveAspectRatio="xMinYMid meet"
      aria-hidden="true"
    >
      {isSingleStroke ? <path d={d} className={styles.lines} /> : <path d={d} fill="currentColor" />}
    </svg>
  );
}

/** The user's words in a face; a sentence where it can't be used. */
export function FaceWords({ face, text }: { face: ListedFace; text: string }) {
  const { data, isError } = useQuery(sampleQuery(face, text));
  if (isError) return <span className="nf-muted">could not be set</span>;
  if (!data) return <span />;
  return isRefused(data) ? (
    <span className="nf-muted text-truncate">{data.sentence}</span>
  ) : (
    <Outlines shown={data} className={styles.sample} />
  );
}

const isRefused = (sample: FaceSample): sample is { readonly sentence: string } => 'sentence' in sample;
