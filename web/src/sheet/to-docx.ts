import {
  AlignmentType,
  Document,
  HeadingLevel,
  ImageRun,
  Packer,
  type IParagraphOptions,
  type IRunOptions,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import type { Piece } from '@verdict/core/road';
import { isoTime, withTimes, type Sheet, type SheetPiece, type SheetTable } from './sheet.js';

/** A picture as it goes into a word-processor document. */
export interface DocumentPicture {
  bytes: Uint8Array;
  width: number;
  height: number;
  title: string;
}

/** As wide as the text of an A4 page with margins of 20 mm, in pixels. */
const TEXT_WIDTH = 620;

/** Characters that an XML document cannot hold, whatever was typed or pasted. */
// eslint-disable-next-line no-control-regex -- these are meant
const NOT_IN_XML = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** A text of the sheet: its moments written out, its lines kept. */
const runs = (text: string, style: Partial<IRunOptions> = {}): TextRun[] =>
  withTimes(text, isoTime)
    .replace(NOT_IN_XML, '')
    .split('\n')
    .map((line, i) => new TextRun({ ...style, text: line, ...(i > 0 ? { break: 1 } : {}) }));

const words = (text: string, more: Partial<IParagraphOptions> = {}) =>
  new Paragraph({ children: runs(text), spacing: { after: 80 }, ...more });
const heading = (text: string, level: (typeof HeadingLevel)[keyof typeof HeadingLevel] = HeadingLevel.HEADING_2) =>
  new Paragraph({ children: runs(text), heading: level, keepNext: true, spacing: { before: 200, after: 60 } });
const listed = (lines: readonly string[]) => lines.map((line) => words(line, { bullet: { level: 0 } }));
const small = (text: string) =>
  new Paragraph({ children: runs(text, { size: 16, color: '626B65' }), spacing: { after: 80 } });

function pictureOf({ bytes, width, height, title }: DocumentPicture): Paragraph {
  const scale = Math.min(1, TEXT_WIDTH / width);
  const transformation = { width: Math.round(width * scale), height: Math.round(height * scale) };
  const name = title.replace(NOT_IN_XML, '');
  const altText = { title: name, description: name, name };
  return new Paragraph({
    children: [new ImageRun({ type: 'png', data: bytes, transformation, altText })],
    alignment: AlignmentType.LEFT,
  });
}

const findingOf = (finding: readonly Piece[], keepNext: boolean) =>
  new Paragraph({
    children: finding.flatMap(({ text, strong }) => runs(text, { size: 24, bold: strong === true })),
    spacing: { after: 100 },
    keepNext,
  });

function pieceOf(piece: SheetPiece, number: number, picture: DocumentPicture | undefined): Paragraph[] {
  return [
    heading(`${number} ${piece.heading}`, HeadingLevel.HEADING_3),
    ...(piece.stale ? [words(`Changed: ${piece.stale}`)] : []),
    findingOf(piece.finding, picture !== undefined),
    ...(picture ? [pictureOf(picture)] : []),
    words(piece.method),
    ...piece.cautions.flatMap(({ text, answer }) => [
      words(`Caution: ${text}`),
      words(answer ? `Answer: ${answer}` : 'Not answered.'),
    ]),
    ...(piece.note ? [words(`Note: ${piece.note}`)] : []),
    small(piece.provenance),
  ];
}

function tableOf({ heads, rows }: SheetTable): Table {
  const row = (cells: readonly string[], header: boolean) =>
    new TableRow({
      tableHeader: header,
      children: cells.map(
        (text) =>
          new TableCell({ children: [new Paragraph({ children: [...runs(text, { size: 16, bold: header })] })] }),
      ),
    });
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [row(heads, true), ...rows.map((cells) => row(cells, false))],
  });
}

function decisionOf({ decision }: Sheet): Paragraph[] {
  if (!decision) return [];
  return [
    heading('Decision'),
    new Paragraph({
      children: runs(decision.words, { size: 30, color: '1F6B4F' }),
      spacing: { after: 80 },
    }),
    words(decision.reason),
    ...(decision.leftOpen ? [words(`Left open: ${decision.leftOpen}`)] : []),
    small(`${decision.who}, ${isoTime(decision.at)}, after change ${decision.revision}`),
  ];
}

const headlineOf = ({ headline }: Sheet): Paragraph[] =>
  headline
    ? [heading('Basis of the decision'), findingOf(headline.finding, true), small(`Evidence ${headline.of}, below.`)]
    : [];

const section = (title: string, ...lines: Paragraph[]) => (lines.length ? [heading(title), ...lines] : []);

/** The sheet as a word-processor document in the open format (ISO/IEC 29500). */
export function sheetDocx(sheet: Sheet, pictures: ReadonlyMap<string, DocumentPicture>): Promise<Blob> {
  const { appendix } = sheet;
  const children = [
    small(sheet.kicker),
    heading(sheet.title, HeadingLevel.HEADING_1),
    ...(sheet.notVerified
      ? [words(`Not verified. This study does not agree with its record: ${sheet.notVerified}`)]
      : []),
    ...section('Question', words(sheet.question)),
    ...decisionOf(sheet),
    ...headlineOf(sheet),
    ...section('Readings', ...sheet.readings.map((line) => words(line))),
    ...(sheet.aside.length ? [words('Set aside:'), ...listed(sheet.aside)] : []),
    ...(sheet.leftIn.length ? [words('Suspected outliers kept with a reason:'), ...listed(sheet.leftIn)] : []),
    ...section('Evidence', ...sheet.pieces.flatMap((piece, i) => pieceOf(piece, i + 1, pictures.get(piece.id)))),
    ...section('Analyses viewed', ...sheet.weighed.map((line) => words(line))),
    ...(sheet.leftOut.length ? [words('Kept, but excluded from this report:'), ...listed(sheet.leftOut)] : []),
    ...section('Earlier verdicts', ...sheet.earlier.map((line) => words(line))),
    ...section('Reproduce these results', ...sheet.recompute.map(small)),
    ...(appendix ? [heading(appendix.title), tableOf(appendix)] : []),
  ];
  const page = {
    size: { width: '210mm', height: '297mm' },
    margin: { top: '20mm', right: '20mm', bottom: '20mm', left: '20mm' },
  } as const;
  const file = new Document({
    creator: 'Verdict',
    title: sheet.title.replace(NOT_IN_XML, ''),
    styles: { default: { document: { run: { font: 'IBM Plex Sans', size: 20 } } } },
    sections: [{ properties: { page }, children }],
  });
  return Packer.toBlob(file);
}
