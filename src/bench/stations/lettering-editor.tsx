/** Words, typeface, size and spacing of a lettering member. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { memberOf } from '@/core/commands/changed';
import { chosenLines, linesAlike } from '@/core/commands/own-lines';
import type { Lettering } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { setAsLine } from '@/core/schema/lettering';
import { Choice, Row, TextField } from '@/ui/fields';
import { useBeside } from '../beside';
import { WordsField } from '../names/words-field';
import { change, dispatch, useBench } from '../store';
import { writeIn } from '../type-words';
import { AlongFields } from './along-fields';
import { FaceFields } from './face-fields';
import { FacePicker } from './face-picker';
import { LettersEditor } from './letters-editor';
import { LineChooser } from './line-chooser';
import { SizeFields } from './size-fields';
import { WithinFields } from './within-fields';

const CASES = [
  { as: 'upper', word: 'CAPITALS', title: 'Write all in capitals' },
  { as: 'lower', word: 'small', title: 'Write all in small letters' },
  { as: 'title', word: 'Each Word', title: 'Begin each word with a capital' },
] as const;

/** The panel of lettering. */
export function LetteringEditor({ partId, member }: { partId: string; member: Lettering }) {
  const [chosen, setChosen] = useState<readonly number[] | null>(null);
  const seen = useBeside((view) => view?.parts.find((p) => p.id === partId));
  const computed = seen?.members.find((m) => m.id === member.id);
  const edit = (recipe: (m: Lettering) => void, merge: string | null) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'lettering') recipe(draft);
    }, merge && `${merge}:${member.id}`);

  const isStarter = useBench((s) => s.job.starter !== null);
  const lines = chosenLines(member.text, chosen);
  const at = { partId, memberId: member.id, lines };
  // What the fields show is that of the first line they act on.
  const shown = lines?.[0] === undefined ? member : setAsLine(member, lines[0]);

  return (
    <>
      <WordsField partId={partId} member={member} />
      {isStarter && (
        <TextField
          label="Asked for as"
          value={member.asked ?? ''}
          most={LIMITS.nameCharacters}
          placeholder="not asked for: they stay"
          onChange={(asked) =>
            edit((m) => {
              m.asked = asked === '' ? null : asked;
            }, 'asked')
          }
        />
      )}
      <fieldset className="d-flex gap-1 mb-2" aria-label="Write the words in">
        {CASES.map(({ as, word, title }) => (
          <Button key={as} variant="plain" title={title} onClick={() => writeIn(partId, member.id, as)}>
            {word}
          </Button>
        ))}
      </fieldset>
      <LettersEditor partId={partId} member={member} view={computed} />
      <LineChooser text={member.text} chosen={lines} own={member.lines.map((l) => l.line)} onChoose={setChosen} />
      <Row label="Typeface">
        <FacePicker at={at} member={member} shown={shown} />
      </Row>
      <FaceFields at={at} member={shown} />
      <SizeFields at={at} member={member} />
      {lines === null && !member.fit && <WithinFields partId={partId} member={member} />}
      {lines && member.lines.some((l) => lines.includes(l.line)) && (
        <Button variant="word" className="mb-2" onClick={() => dispatch((job) => linesAlike(job, at))}>
          {lines.length === 1 ? 'This line as the others' : 'These lines as the others'}
        </Button>
      )}
      <AlongFields partId={partId} member={member} />
      {member.text.includes('\n') && (
        <Choice
          label="Equal widths"
          value={member.evenLines}
          options={[
            { value: 'no', word: 'no' },
            { value: 'spacing', word: 'spacing', title: 'Lines made as wide as the widest by their letter spacing' },
            { value: 'size', word: 'size', title: 'By the size of their letters' },
            { value: 'both', word: 'both', title: 'Half by each' },
          ]}
          onChange={(evenLines) =>
            edit((m) => {
              m.evenLines = evenLines;
            }, null)
          }
        />
      )}
      <Choice
        label="Align"
        value={member.align}
        options={[
          { value: 'left', word: 'left' },
          { value: 'centre', word: 'centre' },
          { value: 'right', word: 'right' },
        ]}
        onChange={(align) => {
          const box = computed?.ownBox;
          edit((m) => {
            // The words stay where they are: the origin moves to the other end of the line.
            if (box && Number.isFinite(box.minX) && !m.placement.mirror) {
              const ends = { left: box.minX, centre: (box.minX + box.maxX) / 2, right: box.maxX };
              // Members are placed as large as they say, whatever an overall width makes of them.
              const end = ends[align] / (seen?.scale ?? 1);
              const turn = (m.placement.turn * Math.PI) / 180;
              m.placement.x = Math.round((m.placement.x + end * Math.cos(turn)) * 1e3) / 1e3;
              m.placement.y = Math.round((m.placement.y + end * Math.sin(turn)) * 1e3) / 1e3;
            }
            m.align = align;
          }, null);
        }}
      />
    </>
  );
}
