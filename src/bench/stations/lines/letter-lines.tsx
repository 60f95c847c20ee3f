/** Mending the middle lines of one letter: by the motions that are most often wanted, and by its nodes. */
import Button from 'react-bootstrap/Button';
import type { Part, StepOf } from '@/core/document/schema';
import { correctionOf } from '@/core/toolpath/centerline/part-lines';
import { Choice } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { CenterlineView } from '@/worker/view';
import { usePathsInHand } from '../../nodes/hand';
import styles from '../../nodes/nodes.module.css';
import { NodesPanel } from '../../nodes/panel';
import { chosenAmong, dropLines, letRunThrough, mergeLines, pullToTip } from '../../nodes/tools';
import { change, setPointing, useBench, workOnNodes } from '../../store';

type Props = { readonly part: Part; readonly step: StepOf<'centerline'>; readonly lines: CenterlineView };

/** The middle lines of one letter, worked on by hand. */
export function LetterLinesPanel({ part, step, lines }: Props) {
  const at = useBench((s) => (s.atNodes?.partId === part.id && s.atNodes.letter !== null ? s.atNodes : null));
  const pointing = useBench((s) => s.pointing === 'letter');
  const edit = (recipe: (s: StepOf<'centerline'>) => void) =>
    change((job) => {
      const draft = job.parts.find((p) => p.id === part.id)?.steps.find((s) => s.kind === 'centerline');
      if (draft?.kind === 'centerline') recipe(draft);
    });
  const paths = usePathsInHand(at);
  const letter = lines.letters.find((l) => l.key === at?.letter);
  if (!at || !letter || !paths)
    return (
      <div className={styles.tools}>
        <Button
          variant="plain"
          active={pointing}
          aria-pressed={pointing}
          disabled={part.locked || lines.letters.length === 0}
          onClick={() => setPointing(pointing ? null : 'letter')}
        >
          {pointing ? 'Press on a letter …' : 'Mend a letter'}
        </Button>
        {step.corrections.length > 0 && (
          <Button
            variant="plain"
            disabled={part.locked}
            onClick={() =>
              edit((s) => {
                s.corrections = [];
              })
            }
          >
            Trace all anew
          </Button>
        )}
      </div>
    );
  const correction = correctionOf(step, letter);
  const alone = correction?.alike === null;
  const same = letter.alike === null ? 1 : lines.letters.filter((l) => l.alike === letter.alike).length;
  const { ends, lines: chosenLines } = chosenAmong(paths, at.chosen);
  const motion = (words: string, run: () => void, can: boolean, title: string) => (
    <Button variant="plain" disabled={!can} title={title} onClick={run}>
      {words}
    </Button>
  );
  return (
    <>
      <Heading beside={same > 1 ? `${same} of them` : ''}>
        {letter.text ? `Lines of “${letter.text}”` : 'Lines of the shape'}
      </Heading>
      <div className={styles.tools}>
        {motion('Run through', letRunThrough, ends >= 2, 'Two ends joined smoothly; four let two strokes pass')}
        {motion('To the tip', pullToTip, ends >= 1, 'Chosen ends go on straight to the edge of the letter')}
        {motion('Merge', mergeLines, chosenLines === 2, 'Two lines side by side become one between them')}
        {motion('Drop', dropLines, chosenLines >= 1, 'The lines with chosen nodes are left out')}
      </div>
      {letter.alike !== null && (
        <Choice
          label="Stands for"
          value={alone ? 'one' : 'alike'}
          options={[
            { value: 'alike', word: 'every such letter', title: 'In this part and all others of the job' },
            { value: 'one', word: 'this one' },
          ]}
          onChange={(value) =>
            edit((s) => {
              const mine = correctionOf(s, letter);
              if (!mine) return;
              if (value === 'alike') mine.alike = letter.alike;
              else if (mine.letter === letter.key) mine.alike = null;
              else s.corrections.push({ letter: letter.key, alike: null, d: mine.d });
            })
          }
        />
      )}
      <div className={styles.tools}>
        <Button
          variant="plain"
          onClick={() => {
            edit((s) => {
              const mine = correctionOf(s, letter);
              s.corrections = s.corrections.filter((c) => c !== mine);
            });
            workOnNodes(null);
          }}
        >
          Trace it anew
        </Button>
      </div>
      <NodesPanel partId={part.id} memberId={null} />
    </>
  );
}
