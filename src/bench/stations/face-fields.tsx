/** What words use of their typeface: its styles, places along its axes, and what is in it. */
import { queryOptions, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { setAxes, setFace, setFeature } from '@/core/commands/faces';
import type { LinesAt } from '@/core/commands/own-lines';
import type { Lettering } from '@/core/document/schema';
import { ON_BY_ITSELF } from '@/core/lettering/face-features';
import { faceKey, sameFamily } from '@/core/lettering/pick';
import type { FaceAbout } from '@/core/schema/face-about';
import { aboutQuery } from '@/faces/about';
import { Outlines } from '@/faces/face-words';
import { faceIn, useFaces } from '@/faces/faces';
import { NumberField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { computing } from '@/worker/client';
import styles from '../bench.module.css';
import { dispatch } from '../store';

/** `member`: the words, set as the lines that are chosen are. */
type Props = { readonly at: LinesAt; readonly member: Lettering };

/** Whether words stand at a place along axes; what is not named there is as the face has it. */
const standsAt = (member: Lettering, axes: FaceAbout['axes'], place: Readonly<Record<string, number>>): boolean =>
  axes.every(({ tag, usual }) => (member.axes[tag] ?? usual) === (place[tag] ?? usual));

/** The styles of the family; those of a variable face are named places along its axes. */
function Styles({ at: words, member, about }: Props & { readonly about: FaceAbout | null }) {
  const { faces } = useFaces();
  const family = faces.filter(({ family: name }) => sameFamily(name, member.face));
  const own = faceIn(faces, member);
  const places = about?.instances ?? [];
  const at = places.findIndex(({ axes }) => standsAt(member, about?.axes ?? [], axes));
  if (family.length + places.length < 2) return null;
  const choose = (value: string) => {
    const place = value.startsWith('place ') ? places[Number(value.slice(6))] : undefined;
    const face = family.find(({ key }) => key === value);
    if (place) dispatch((job) => setAxes(job, words, place.axes, place.name));
    else if (face) dispatch((job) => setFace(job, words, { ...face.named, isLine: face.isLine }));
  };
  return (
    <Row label="Style" htmlFor={`style-${member.id}`}>
      <Form.Select
        size="sm"
        id={`style-${member.id}`}
        value={at >= 0 ? `place ${at}` : (own?.key ?? '')}
        onChange={(e) => choose(e.target.value)}
      >
        {!own && <option value="">{member.style ?? 'as it is'}</option>}
        {places.map(({ name }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: places have no other name that is theirs alone.
          <option key={i} value={`place ${i}`}>
            {name}
          </option>
        ))}
        {family.map(({ key, style }) =>
          places.length > 0 && key === own?.key ? (
            <option key={key} value={key} hidden={at >= 0}>
              between these
            </option>
          ) : (
            <option key={key} value={key}>
              {style}
            </option>
          ),
        )}
      </Form.Select>
    </Row>
  );
}

/** A slider and a figure for each axis of a variable face. */
function Axes({ at: words, member, about }: Props & { readonly about: FaceAbout }) {
  return about.axes.map(({ tag, name, least, usual, most }) => {
    const value = member.axes[tag] ?? usual;
    const set = (to: number) =>
      dispatch((job) => setAxes(job, words, { [tag]: to }), `axis:${tag}:${member.id}:${words.lines?.join()}`);
    const step = most - least > 20 ? 1 : (most - least) / 100;
    return (
      <div key={tag}>
        <NumberField label={name} suffix="" step={step} least={least} most={most} value={value} onChange={set} />
        <Form.Range
          className={styles.axis}
          aria-label={name}
          min={least}
          max={most}
          step={step}
          value={value}
          onChange={(e) => set(Number(e.target.value))}
        />
      </div>
    );
  });
}

const sampleWith = (member: Lettering, tag: string, value: number) =>
  queryOptions({
    queryKey: ['face sample', faceKey(member), member.text, member.features, tag, value],
    queryFn: () => computing().faceSample(member, member.text, { ...member.features, [tag]: value }),
    staleTime: Infinity,
  });

/** The words without a feature and with it; where that is the same, it is said. */
function BothWays({ member, tag, value }: { member: Lettering; tag: string; value: number }) {
  const without = useQuery(sampleWith(member, tag, 0)).data;
  const having = useQuery(sampleWith(member, tag, value)).data;
  if (!without || !having || 'sentence' in without || 'sentence' in having) return null;
  if (without.d === having.d) return <p className="nf-muted m-0">nothing in these words</p>;
  return (
    <div className={styles.bothWays} title="The words without it, and with it">
      <Outlines shown={without} className={styles.feature} />
      <Outlines shown={having} className={styles.feature} />
    </div>
  );
}

/** A feature: switched on and off, or one of the several forms it gives. */
function Feature({ at, member, feature }: Props & { readonly feature: FaceAbout['features'][number] }) {
  const { tag, name, forms } = feature;
  const usual = ON_BY_ITSELF.has(tag) ? 1 : 0;
  const value = member.features[tag] ?? usual;
  const set = (to: number) => dispatch((job) => setFeature(job, at, tag, to === usual ? null : to));
  const id = `feature-${member.id}-${tag}`;
  return (
    <li>
      {forms.length > 1 ? (
        <Row label={name} htmlFor={id}>
          <Form.Select size="sm" id={id} value={value} onChange={(e) => set(Number(e.target.value))}>
            <option value={0}>usual</option>
            {forms.map((form, i) => (
              <option key={form} value={i + 1}>
                {form}
              </option>
            ))}
          </Form.Select>
        </Row>
      ) : (
        <Form.Check
          type="switch"
          id={id}
          label={name}
          checked={value > 0}
          onChange={(e) => set(e.target.checked ? 1 : 0)}
        />
      )}
      <BothWays member={member} tag={tag} value={Math.max(1, value)} />
    </li>
  );
}

/** As high as the button that may stand here, so that what is below does not move under a press. */
const Nothing = ({ words }: { words: string }) => (
  <Button variant="plain" className="w-100 mb-2" disabled>
    {words}
  </Button>
);

/** What is in the face, folded away until it is wanted. */
function Features({ at: words, member, about }: Props & { readonly about: FaceAbout }) {
  const [isOpen, setIsOpen] = useState(false);
  const used = Object.keys(member.features).length;
  if (about.features.length === 0) return <Nothing words="Nothing more is in this typeface" />;
  if (!isOpen)
    return (
      <Button variant="plain" className="w-100 mb-2" onClick={() => setIsOpen(true)}>
        What is in this typeface · {used > 0 ? `${used} changed` : about.features.length}
      </Button>
    );
  return (
    <section aria-label="What is in this typeface">
      <Heading beside={`${about.features.length}`}>What is in this typeface</Heading>
      <ul className={styles.features}>
        {about.features.map((feature) => (
          <Feature key={feature.tag} at={words} member={member} feature={feature} />
        ))}
      </ul>
      <Button variant="plain" onClick={() => setIsOpen(false)}>
        Done
      </Button>
    </section>
  );
}

/** Styles, axes and features of the typeface of a lettering. */
export function FaceFields({ at, member }: Props) {
  const about = useQuery(aboutQuery(member));
  if (about.isPending) return <Nothing words="What is in this typeface …" />;
  const known = about.data ?? null;
  return (
    <>
      <Styles at={at} member={member} about={known} />
      {known && <Axes at={at} member={member} about={known} />}
      {known ? <Features at={at} member={member} about={known} /> : <Nothing words="This typeface is not there" />}
    </>
  );
}
