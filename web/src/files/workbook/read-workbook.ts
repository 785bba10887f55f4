import { strFromU8, unzipSync } from 'fflate';
import type { Opened, Sheet } from '../incoming.js';
import { numberFormats } from './number-formats.js';
import { readSheet, SheetTooLarge, type Book } from './sheet.js';
import { readXml } from './xml.js';

type Parts = Record<string, Uint8Array>;

/** The texts that cells share; how one is spoken (phonetic runs) is no part of it. */
function sharedTexts(xml: string): string[] {
  const texts: string[] = [];
  let inText = false;
  let spoken = false;
  let text = '';
  readXml(xml, {
    open(name) {
      if (name === 'si') text = '';
      else if (name === 'rPh') spoken = true;
      else if (name === 't') inText = true;
    },
    text(piece) {
      if (inText && !spoken) text += piece;
    },
    close(name) {
      if (name === 'si') texts.push(text);
      else if (name === 'rPh') spoken = false;
      else if (name === 't') inText = false;
    },
  });
  return texts;
}

/** The sheets of a workbook by name, with the part that holds each, and from when its days are counted. */
function contents(
  workbook: string,
  relations: string,
): { sheets: { name: string; part: string }[]; from1904: boolean } {
  const targets = new Map<string, string>();
  readXml(relations, {
    open: (name, { Id, Target }) => name === 'Relationship' && targets.set(Id ?? '', Target ?? ''),
  });
  const sheets: { name: string; part: string }[] = [];
  let from1904 = false;
  readXml(workbook, {
    open(name, attributes) {
      if (name === 'workbookPr') from1904 = /^(1|true)$/.test(attributes.date1904 ?? '');
      const target = name === 'sheet' && targets.get(attributes['r:id'] ?? '');
      if (target) sheets.push({ name: attributes.name ?? '', part: target.replace(/^\/?(xl\/)?/, 'xl/') });
    },
  });
  return { sheets, from1904 };
}

function readParts(parts: Parts): Sheet[] {
  const text = (part: string) => (parts[part] ? strFromU8(parts[part]) : null);
  const { sheets, from1904 } = contents(text('xl/workbook.xml') ?? '', text('xl/_rels/workbook.xml.rels') ?? '');
  const strings = text('xl/sharedStrings.xml');
  const styles = text('xl/styles.xml');
  const book: Book = {
    texts: strings === null ? [] : sharedTexts(strings),
    formats: styles === null ? [] : numberFormats(styles),
    from1904,
  };
  return sheets.flatMap(({ name, part }) => {
    const xml = text(part);
    if (xml === null) return [];
    try {
      return [{ name, rows: readSheet(xml, book) }];
    } catch (error) {
      throw error instanceof SheetTooLarge ? new SheetTooLarge(`the sheet “${name}” ${error.message}`) : error;
    }
  });
}

const NEEDED = /^xl\/(workbook\.xml|_rels\/workbook\.xml\.rels|sharedStrings\.xml|styles\.xml|worksheets\/[^/]+\.xml)$/;

/** The sheets of an OOXML workbook (ISO/IEC 29500) that hold anything, each cell as its sheet shows it. */
export function readWorkbook(source: string, bytes: Uint8Array): Opened {
  try {
    const sheets = readParts(unzipSync(bytes, { filter: ({ name }) => NEEDED.test(name) })).filter(
      ({ rows }) => rows.length > 0,
    );
    if (sheets.length === 0) return { refusal: `${source} has no cells.` };
    return { incoming: { kind: 'sheets', source, sheets } };
  } catch (error) {
    if (error instanceof SheetTooLarge) {
      const what = 'Delete cells far from the readings, or save the readings as CSV and open that file.';
      return { refusal: `${source}: ${error.message}. ${what}` };
    }
    return { refusal: `${source} is damaged and cannot be read.` };
  }
}
