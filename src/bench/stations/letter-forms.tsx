/** The other forms that a face has for the letter that is picked, shown with its neighbours. */
import { useQuery } from '@tanstack/react-query';
import { setForm } from '@/core/commands/faces';
import type { Lettering } from '@/core/document/schema';
import { textLines } from '@/core/lettering/draft-lines';
import { faceKey } from '@/core/lettering/pick';
import { faceInLine } from '@/core/schema/lettering';
import { Outlines } from '@/faces/face-words';
import { Heading } from '@/ui/heading';
import { computing } from '@/worker/client';
import styles from '../bench.module.css';
import { dispatch } from '../store';

/** Chooses the form of the picked letters; those offered are the first one’s. */
export function LetterForms({
  partId,
  member,
  picked,
}: {
  partId: string;
  member: Lettering;
  picked: readonly number[];
}) {
  const at = picked[0] ?? 0;
  const { text } = member;
  const { features, ...named } = faceInLine(member, textLines(text.slice(0, at)).length - 1);
  const { data } = useQuery({
    queryKey: ['letter forms', faceKey(named), text, at, features],
    queryFn: () => computing().letterForms(named, { text, at, features }),
    staleTime: Infinity,
  });
  const now = member.letters.find((c) => c.at === at)?.form ?? null;
  if (!data || data.length < 2) return null;
  return (
    <>
      <Heading beside={`${data.length}`}>Forms in this typeface</Heading>
      <div className={styles.forms} role="radiogroup" aria-label="Forms in this typeface">
        {data.map((form) => {
          const { tag, value, name } = form;
          const isNow = tag === '' ? now === null : now?.tag === tag && now.value === value;
          return (
            // biome-ignore lint/a11y/useSemanticElements: a picture is chosen, which a radio button has no room for.
            <button
              key={`${tag}${value}`}
              type="button"
              role="radio"
              aria-checked={isNow}
              aria-label={name}
              title={name}
              onClick={() =>
                dispatch((job) =>
                  setForm(job, { partId, memberId: member.id }, picked, tag === '' ? null : { tag, value }),
                )
              }
            >
              <Outlines shown={form} />
            </button>
          );
        })}
      </div>
    </>
  );
}
