import { FILE_LIMIT, STUDY_FILE, STUDY_FILE_LIMIT, TEXT_FILE_LIMIT } from '@verdict/contract';
import { readJsonTable } from '@verdict/core/readings';
import type { Opened } from './incoming.js';

const megabytes = (bytes: number) => `${Math.round((bytes / 1024 / 1024) * 10) / 10} MB`;

const ZIP = [0x50, 0x4b, 0x03, 0x04];
/** The compound files of older office programs. */
const OLD_OFFICE = [0xd0, 0xcf, 0x11, 0xe0];

const startsWith = (bytes: Uint8Array, magic: readonly number[]) => magic.every((byte, i) => bytes[i] === byte);

function decoded(bytes: Uint8Array): { text: string; encoding: 'utf-8' | 'windows-1252' } {
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
  } catch {
    // Older spreadsheets write CSV in the Western code page; every byte has a meaning there.
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' };
  }
}

function openJson(source: string, text: string): Opened {
  if (/"resources"\s*:\s*\[/.test(text.slice(0, 100_000))) {
    return { refusal: `${source} is only the description of a data package. Open the .zip file with its tables.` };
  }
  const table = readJsonTable(text);
  if (!table.ok) return { refusal: `${source}: ${table.message}` };
  return { incoming: { kind: 'rows', source, rows: table.rows, facts: {} } };
}

const tooLarge = ({ name, size }: File, limit: number) =>
  `${name} has ${megabytes(size)}; files may have at most ${megabytes(limit)}. Nothing was read.`;

/** A study file says so where it begins. It goes to the server as it is. */
const isStudyFile = async (file: File) =>
  new RegExp(`^\\s*\\{[^]*"format"\\s*:\\s*"${STUDY_FILE}"`).test(await file.slice(0, 400).text());

/**
 * Reads a file that was chosen or dropped: delimited text, JSON, a spreadsheet, a data package, a saved study. A file over its limit is
 * not touched at all. What is in a file decides, not its name.
 */
export async function openFile(file: File): Promise<Opened> {
  const { name } = file;
  if (await isStudyFile(file))
    return file.size > STUDY_FILE_LIMIT ? { refusal: tooLarge(file, STUDY_FILE_LIMIT) } : { study: file };
  if (file.size > TEXT_FILE_LIMIT) return { refusal: tooLarge(file, TEXT_FILE_LIMIT) };
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (startsWith(bytes, ZIP)) {
    if (file.size > FILE_LIMIT) return { refusal: tooLarge(file, FILE_LIMIT) };
    const { openArchive } = await import('./archive.js');
    return openArchive(name, bytes);
  }
  if (startsWith(bytes, OLD_OFFICE)) {
    return {
      refusal: `${name} is a spreadsheet in the older .xls format. Save it as .xlsx or CSV and open that file.`,
    };
  }
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  if (wide) {
    const text = new TextDecoder(wide).decode(bytes);
    return { incoming: { kind: 'text', source: name, text, file: new Blob([text]), encoding: 'utf-8' } };
  }
  if (bytes.subarray(0, 4096).includes(0)) {
    return { refusal: `${name} is not a text file. Save it as CSV or TSV and open that file.` };
  }
  const { text, encoding } = decoded(bytes);
  if (/^\s*[[{]/.test(text)) {
    const opened = openJson(name, text);
    // A delimited text may begin with a bracket too.
    if (!('refusal' in opened) || /\.json$/i.test(name)) return opened;
  }
  return { incoming: { kind: 'text', source: name, text, file, encoding } };
}
