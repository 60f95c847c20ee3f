/** Writes docs/job-format.md from the schema: npx tsx scripts/job-format.ts */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { jobSchema } from '../src/core/document/schema';
import { SIZED_ALONG, STAYS_AS_SET } from '../src/core/document/sizes';
import { LIMITS } from '../src/core/limits';

type Schema = {
  type?: string;
  description?: string;
  enum?: unknown[];
  const?: unknown;
  default?: unknown;
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  prefixItems?: Schema[];
  oneOf?: Schema[];
  anyOf?: Schema[];
  minimum?: number;
  exclusiveMinimum?: number;
  maximum?: number;
  maxLength?: number;
  maxItems?: number;
};

const code = (value: unknown) => `\`${JSON.stringify(value)}\``;

function typeOf(s: Schema): string {
  if (s.const !== undefined) return code(s.const);
  if (s.enum) return s.enum.map(code).join(', ');
  if (s.oneOf) return `one of: ${s.oneOf.map(kindOf).join(', ')}`;
  if (s.anyOf) return s.anyOf.map(typeOf).join(' or ');
  if (s.prefixItems) return `[${s.prefixItems.map(typeOf).join(', ')}]`;
  if (s.type === 'array') return `list of ${s.items?.oneOf || s.items?.properties ? 'objects' : typeOf(s.items ?? {})}`;
  return s.type ?? '';
}

function limitsOf(s: Schema): string {
  const low =
    s.exclusiveMinimum !== undefined
      ? `more than ${s.exclusiveMinimum}`
      : s.minimum !== undefined
        ? `from ${s.minimum}`
        : '';
  const most = s.maximum ?? s.maxLength ?? s.maxItems;
  const high =
    most === undefined ? '' : s.maxLength ? `up to ${most} characters` : s.maxItems ? `up to ${most}` : `to ${most}`;
  return [low, high].filter(Boolean).join(' ');
}

function table(s: Schema): string {
  const rows = Object.entries(s.properties ?? {}).map(([key, field]) => {
    const fallback =
      field.default === undefined
        ? 'needed'
        : JSON.stringify(field.default).length > 60 || JSON.stringify(field.default) === '{}'
          ? 'see below'
          : code(field.default);
    return `| \`${key}\` | ${typeOf(field)} | ${limitsOf(field)} | ${fallback} | ${field.description ?? ''} |`;
  });
  return ['| field | type | limits | when left out | meaning |', '|---|---|---|---|---|', ...rows].join('\n');
}

/** Every object of the schema as a section of its own, in the order they are met. */
function sections(name: string, s: Schema, depth: number): string[] {
  const own = s.properties
    ? [`${'#'.repeat(Math.min(4, depth))} ${name}\n\n${s.description ? `${s.description}\n\n` : ''}${table(s)}`]
    : [];
  const inner = Object.entries(s.properties ?? {}).flatMap(([key, field]) => {
    const at = name === 'Job' ? key : `${name}.${key}`;
    return [field, ...(field.anyOf ?? [])].flatMap((one) => described(at, one, depth));
  });
  return [...own, ...inner];
}

/** What a field holds: an object, one of several, or a list of these. */
function described(at: string, field: Schema, depth: number): string[] {
  if (field.properties) return sections(at, field, depth + 1);
  if (field.oneOf) return field.oneOf.flatMap((o) => sections(`${at} · ${kindOf(o)}`, o, depth + 1));
  return field.items ? described(`${at}[]`, field.items, depth) : [];
}

/** What tells one of several from the others. */
const kindOf = ({ properties }: Schema): string => String((properties?.kind ?? properties?.to)?.const);

/** What grows along beside what stays as it was set. */
function sizingTable(): string {
  const rows = Array.from({ length: Math.max(SIZED_ALONG.length, STAYS_AS_SET.length) }, (_, i) => i);
  return [
    '| grows along | stays as it was set |',
    '|---|---|',
    ...rows.map((i) => `| ${SIZED_ALONG[i] ?? ''} | ${STAYS_AS_SET[i] ?? ''} |`),
  ].join('\n');
}

export function jobFormatPage(): string {
  const schema = z.toJSONSchema(jobSchema, { io: 'input' }) as Schema;
  return `# The job document

A job is one JSON document. With the typefaces it names it is enough to make every file again, byte for byte; the
headless command takes it as it is. This page is written from the schema in \`src/core/document/schema.ts\` by
\`npx tsx scripts/job-format.ts\`; a test keeps the two in step.

- Lengths are in millimetres, whatever unit the job is shown in. Angles are in degrees, counter-clockwise.
- The origin is the lower left corner of the sheet, x to the right, y upwards.
- A document of up to ${LIMITS.documentBytes / 1024 / 1024} MB is read. Fields that are not listed here are refused with their name, so that a typing
  mistake is not lost silently. A document of a newer format is refused and left as it is.
- A document of an older format is read as what it was: each format has one migration from the one before. In format 1 parts
  had no placement, and members were placed on the sheet.
- A part has a placement, and its members are placed in the part. With the part turn and are mirrored: its members, the direction
  of hatch, what is level and upright for bridges and ties, bars and plates. The direction in which a beam scans
  (\`operations[].scan\`) is the machine's and stays. A part that goes along with another is placed in that one's coordinates.
- When \`operations\` is left out there are four: \`engrave\`, \`mark\`, \`score\` and \`cut\`, in this order, all on.
- One lettering prepares up to ${LIMITS.letteringCharacters.toLocaleString('en')} characters; longer ones are kept and yield a finding.

What sizing a part sizes, unless everything is to go along:

${sizingTable()}

The smallest useful document:

\`\`\`json
{
  "format": 2,
  "title": "House number",
  "sheet": { "width": 200, "height": 120 },
  "parts": [
    {
      "id": "number",
      "placement": { "x": 40, "y": 30 },
      "members": [
        {
          "id": "figures",
          "kind": "lettering",
          "placement": { "x": 0, "y": 0 },
          "text": "27",
          "face": "Alfa Slab One",
          "size": { "by": "capital", "mm": 60 }
        }
      ],
      "work": [{ "what": "outline", "operation": "cut" }]
    }
  ]
}
\`\`\`

${sections('Job', schema, 2).join('\n\n')}
`;
}

if (process.argv[1]?.endsWith('job-format.ts'))
  writeFileSync(path.resolve(import.meta.dirname, '..', 'docs', 'job-format.md'), jobFormatPage());
