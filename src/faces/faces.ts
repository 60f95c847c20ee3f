/** The shop's typefaces: those that ship and those that were brought in, grouped into families. */
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { z } from 'zod';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { SHIPPED_FACES } from '@/core/lettering/catalogue';
import { sameFamily } from '@/core/lettering/pick';
import type { ListedAbout, Look } from '@/core/schema/face-about';
import type { FaceMark } from '@/core/schema/kept-face';
import { type FaceNamed, faceOfFamily } from '@/core/schema/lettering';

/** A face that can be chosen. */
export type ListedFace = {
  /** What notes about it are kept under: content and number, or the family of one that ships. */
  readonly key: string;
  readonly named: FaceNamed;
  readonly family: string;
  readonly style: string;
  readonly look: Look;
  readonly isLine: boolean;
  readonly favourite: boolean;
  readonly usedAt: string | null;
  /** Its file and what is known of it; null for one that ships. */
  readonly kept: { readonly content: string; readonly file: string; readonly about: ListedAbout } | null;
};

/** Faces of one family name; the one that stands for it comes first. */
export type Family = { readonly family: string; readonly faces: readonly [ListedFace, ...ListedFace[]] };

/** What the question for the list is known by. */
export const FACES = ['typefaces'];

type Answer = z.infer<(typeof API.listTypefaces)['answer']>;

const keyOf = (content: string, number: number): string => `${content}#${number}`;

/** What notes about a face are kept under. */
export const markKey = ({ face, content, number }: FaceNamed): string =>
  content === null ? face : keyOf(content, number);

/** All faces, as the server and the app itself have them. */
export function listedFaces({ typefaces, marks }: Answer): ListedFace[] {
  const noted = new Map(marks.map((mark) => [mark.face, mark]));
  const marked = (key: string, look: Look) => {
    const mark = noted.get(key);
    return { key, favourite: mark?.favourite ?? false, usedAt: mark?.usedAt ?? null, look: mark?.look ?? look };
  };
  const shipped = SHIPPED_FACES.map(
    ({ family, manner }): ListedFace => ({
      ...marked(family, manner),
      named: faceOfFamily(family),
      family,
      style: 'ships with Needlefile',
      isLine: manner === 'one line' || manner === 'lines side by side',
      kept: null,
    }),
  );
  const own = typefaces.flatMap(({ content, name, faces }) =>
    faces.map((about): ListedFace => {
      const { number, family, style, weight, italic } = about;
      return {
        ...marked(keyOf(content, number), about.look),
        named: { face: family, weight, italic, style, content, number, axes: {} },
        family,
        style,
        isLine: about.isSingleStroke,
        kept: { content, file: name, about },
      };
    }),
  );
  return [...own, ...shipped];
}

/** How far a face is from a plain one of its family: a regular weight and width, upright. */
const oddness = ({ kept }: ListedFace): number => {
  if (!kept) return 0;
  const { weight, width, italic } = kept.about;
  return Math.abs(weight - 400) / 100 + Math.abs(width - 100) / 10 + (italic ? 5 : 0);
};

/** Faces by family, families by name; styles from light to heavy, behind the one that stands for all. */
export function familiesOf(faces: readonly ListedFace[]): Family[] {
  const byName = new Map<string, ListedFace[]>();
  for (const face of faces) {
    const name = face.family.trim().toLowerCase();
    const known = byName.get(name);
    if (known) known.push(face);
    else byName.set(name, [face]);
  }
  return [...byName.values()]
    .map((all): Family => {
      const first = all.reduce((best, face) => (oddness(face) < oddness(best) ? face : best));
      const others = all.filter((face) => face !== first).sort(byWeight);
      return { family: first.family, faces: [first, ...others] };
    })
    .sort((a, b) => a.family.localeCompare(b.family, 'en'));
}

const byWeight = (a: ListedFace, b: ListedFace): number =>
  (a.kept?.about.weight ?? 400) - (b.kept?.about.weight ?? 400) ||
  Number(a.kept?.about.italic ?? false) - Number(b.kept?.about.italic ?? false) ||
  a.style.localeCompare(b.style, 'en');

/** The face that words name; undefined where it is not in the list. */
export const faceIn = (faces: readonly ListedFace[], named: FaceNamed): ListedFace | undefined =>
  named.content === null
    ? faces.find(({ kept, family }) => kept === null && sameFamily(family, named.face))
    : faces.find(({ key }) => key === markKey(named));

/** The list of faces and families, kept up to date. */
export function useFaces() {
  const { data, error, isPending, refetch } = useQuery({
    queryKey: FACES,
    queryFn: ({ signal }) => call(API.listTypefaces, {}, null, signal),
    staleTime: 60_000,
  });
  // The app's own faces are there whatever the server says.
  const faces = useMemo(() => listedFaces(data ?? { typefaces: [], marks: [] }), [data]);
  const families = useMemo(() => familiesOf(faces), [faces]);
  return { faces, families, error, isPending, refetch };
}

type Change = Partial<Pick<FaceMark, 'favourite' | 'look'>> & { readonly used?: boolean };

function put(client: QueryClient, face: string, { favourite, look, used }: Change): void {
  client.setQueryData<Answer>(FACES, (answer) => {
    if (!answer) return answer;
    const before = answer.marks.find((mark) => mark.face === face);
    const mark: FaceMark = {
      face,
      favourite: favourite ?? before?.favourite ?? false,
      look: look === undefined ? (before?.look ?? null) : look,
      usedAt: used ? new Date().toISOString() : (before?.usedAt ?? null),
    };
    return { ...answer, marks: [...answer.marks.filter((m) => m.face !== face), mark] };
  });
}

/** Note something of a face: at once here, and on the server. */
export function useMarkFace() {
  const client = useQueryClient();
  const { mutate } = useMutation({
    mutationFn: ({ face, ...change }: { face: string } & Change) => call(API.markFace, {}, { face, ...change }),
    onMutate: ({ face, ...change }) => put(client, face, change),
    onError: () => client.invalidateQueries({ queryKey: FACES }),
  });
  return mutate;
}
