/** For words whose typeface is not there: the nearest ones, in these words. Nothing is replaced until one of them is pressed. */
import { memberOf } from '@/core/commands/changed';
import { replaceFace } from '@/core/commands/faces';
import { FaceWords } from '@/faces/face-words';
import { useFaces } from '@/faces/faces';
import { nearestFaces } from '@/faces/nearest';
import styles from './bench.module.css';
import { useBeside } from './beside';
import { dispatch, useBench } from './store';

/** How many are offered. */
const OFFERED = 3;

/** The nearest typefaces for a lettering. */
export function NearFaces({ partId, memberId }: { partId: string; memberId: string }) {
  const member = useBench((s) => memberOf(s.job, partId, memberId));
  const { faces } = useFaces();
  const view = useBeside((v) => v?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId));
  if (member?.kind !== 'lettering') return null;
  const gone = view?.lacks ?? (view?.trouble?.kind === 'no typeface' ? view.trouble.named : member);
  return (
    <ul className={styles.nearFaces} aria-label={`Nearest to ${gone.face}`}>
      {nearestFaces(gone, faces, OFFERED).map((face) => (
        <li key={face.key}>
          <button
            type="button"
            title={`Set these words in ${face.family}`}
            onClick={() =>
              dispatch((job) => replaceFace(job, { partId, memberId }, gone, { ...face.named, isLine: face.isLine }))
            }
          >
            <FaceWords face={face} text={member.text} />
            <small>
              {face.family}
              {face.kept && ` ${face.style}`}
            </small>
          </button>
        </li>
      ))}
    </ul>
  );
}
