import { columnOfField, readDescriptor, splitRows, type PackageColumn } from '@verdict/core/readings';
import { strFromU8, unzipSync } from 'fflate';
import type { Facts, Opened } from './incoming.js';

/** A zip that unpacks to more than this is refused before it is unpacked. */
const MOST_UNPACKED = 200 * 1024 * 1024;

const factsOf = ({ decimal: _, name: __, about: ___, ...facts }: Partial<PackageColumn>): Facts => facts;

function decoded(bytes: Uint8Array, encoding: string): string | null {
  try {
    return new TextDecoder(encoding).decode(bytes);
  } catch {
    // An encoding that no browser knows: the caller says so.
    return null;
  }
}

/** The first table of a data package as rows, with what its descriptor says about the columns. */
function openPackage(source: string, files: Record<string, Uint8Array>): Opened {
  const read = readDescriptor(strFromU8(files['datapackage.json']!));
  if ('message' in read) return { refusal: `${source}: ${read.message}` };
  const resource = read.resources.find(({ path }) => path && Object.hasOwn(files, path));
  if (!resource) return { refusal: `${source} describes a table but does not contain it.` };
  const text = decoded(files[resource.path!]!, resource.encoding ?? 'utf-8');
  if (text === null) return { refusal: `${source} names the encoding “${resource.encoding}”, which is not supported.` };
  const fields = resource.schema?.fields ?? [];
  const delimiter = resource.dialect?.delimiter ?? ',';
  const separator = delimiter === ';' ? 'semicolon' : delimiter === '\t' ? 'tab' : 'comma';
  const rows = splitRows(text, separator);
  if (resource.dialect?.header === false) rows.unshift(fields.map(({ name }) => name));
  const facts = Object.fromEntries(fields.map((field) => [field.name, factsOf(columnOfField(field))]));
  return { incoming: { kind: 'rows', source: `${source}, ${resource.path}`, rows, facts } };
}

/** A zip: an OOXML spreadsheet or a data package. */
export async function openArchive(source: string, bytes: Uint8Array): Promise<Opened> {
  let unpacked = 0;
  const names: string[] = [];
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        names.push(name);
        unpacked += originalSize;
        return (
          unpacked <= MOST_UNPACKED && /^(datapackage\.json|[^/]*\.(csv|tsv|txt))$|\/[^/]*\.(csv|tsv)$/i.test(name)
        );
      },
    });
  } catch {
    return { refusal: `${source} is damaged and cannot be unpacked.` };
  }
  if (unpacked > MOST_UNPACKED) return { refusal: `${source} unpacks to more than 200 MB. Nothing was read.` };
  if (names.includes('xl/workbook.xml')) {
    const { openWorkbook } = await import('./workbook/in-worker.js');
    return openWorkbook(source, bytes);
  }
  if (Object.hasOwn(files, 'datapackage.json')) return openPackage(source, files);
  return { refusal: `${source} contains neither a spreadsheet nor a data package.` };
}
