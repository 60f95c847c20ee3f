/** What a typeface file holds: each of its faces described, for lists, for choosing and for what it may be used for. */
import type { Face } from 'harfbuzzjs';
import { LIMITS } from '../limits';
import type { FaceAbout } from '../schema/face-about';
import type { Typeface } from './face';
import { axesIn, instancesIn } from './face-axes';
import { featuresIn } from './face-features';
import { nameInFace } from './harfbuzz';
import { lookOf } from './look';
import { NAME } from './outline-face';
import { scriptsIn } from './scripts';
import type { Bytes } from './sfnt';
import { type OpenTypeface, openTypeface } from './typeface';

/** The faces of a file; sentences about those of a collection that could not be read. Or why none could. */
export type FacesInFile =
  | { readonly ok: true; readonly faces: readonly FaceAbout[]; readonly notes: readonly string[] }
  | { readonly ok: false; readonly sentence: string };

/** Describe the faces of a typeface file. */
export async function facesAbout(file: Uint8Array): Promise<FacesInFile> {
  const opened = await openTypeface(file);
  if (!opened.ok) return opened;
  const { open } = opened;
  const faces: FaceAbout[] = [];
  const notes: string[] = [];
  for (let number = 0; number < open.count; number++) {
    const about = aboutOf(open, number);
    if (typeof about === 'string') notes.push(about);
    else faces.push(about);
  }
  return faces.length > 0 ? { ok: true, faces, notes } : { ok: false, sentence: notes[0] ?? 'The file holds no face.' };
}

/** A face of an open file described, or the sentence why it can't be used. */
export function aboutOf(open: OpenTypeface, number: number): FaceAbout | string {
  const load = open.at({ number, axes: {} });
  if (!load.ok) return load.sentence;
  const raw = open.raw(number);
  return raw ? aboutFace(number, load.typeface, raw) : aboutGlyphs(load.typeface);
}

/** What is counted of a face. */
function countsOf(typeface: Typeface): Pick<FaceAbout, 'characters' | 'scripts' | 'broken'> {
  const characters = typeface.characters();
  return {
    characters: characters.length,
    scripts: scriptsIn(characters),
    broken: typeface.glyphs().filter((glyph) => typeface.isBroken(glyph)).length,
  };
}

/** A face that is a table of glyphs: it has nothing but letters. */
const aboutGlyphs = (typeface: Typeface): FaceAbout => ({
  number: 0,
  family: typeface.family,
  style: typeface.italic ? 'Italic' : 'Regular',
  weight: typeface.weight,
  width: 100,
  italic: typeface.italic,
  slantDeg: typeface.slantDeg,
  isSingleStroke: typeface.isSingleStroke,
  ...countsOf(typeface),
  axes: [],
  instances: [],
  features: [],
  foundry: '',
  copyright: '',
  licence: '',
  embedding: 'any',
  look: lookOf(typeface),
});

/** Widths by the classes of the OS/2 table, in percent. */
const WIDTHS = [50, 62.5, 75, 87.5, 100, 112.5, 125, 150, 200];
/** Where the OS/2 table keeps the class of width and the flags of embedding. */
const WIDTH_CLASS = 6;
const EMBEDDING = 8;
const RESTRICTED = 0x2;
const PREVIEW = 0x4;
const EDITABLE = 0x8;

/** Ids of the name table of what a face says about itself. */
const SAID = { copyright: 0, foundry: 8, licence: 13 } as const;

function aboutFace(
  number: number,
  typeface: Typeface,
  { face, tables }: { readonly face: Face; readonly tables: ReadonlyMap<string, Bytes> },
): FaceAbout {
  const os2 = tables.get('OS/2');
  const said = (id: number, most?: number) => nameInFace(face, id, most);
  const flags = os2?.u16(EMBEDDING) ?? 0;
  // Of several the least strict one counts.
  const embedding =
    flags & EDITABLE ? 'editable' : flags & PREVIEW ? 'preview' : flags & RESTRICTED ? 'restricted' : 'any';
  return {
    number,
    family: typeface.family,
    style: said(NAME.typographicStyle) || said(NAME.style) || 'Regular',
    weight: Math.min(1000, Math.max(1, Math.round(typeface.weight))),
    width: WIDTHS[(os2?.u16(WIDTH_CLASS) ?? 5) - 1] ?? 100,
    italic: typeface.italic,
    slantDeg: typeface.slantDeg,
    isSingleStroke: false,
    ...countsOf(typeface),
    axes: axesIn(face),
    instances: instancesIn(face, tables.get('fvar')),
    features: featuresIn(face),
    foundry: said(SAID.foundry),
    copyright: said(SAID.copyright, LIMITS.faceWords),
    licence: said(SAID.licence, LIMITS.faceWords),
    embedding,
    look: lookOf(typeface, os2),
  };
}
