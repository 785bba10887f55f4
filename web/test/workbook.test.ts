import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import office from 'exceljs';
import { describe, expect, it } from 'vitest';
import { openFile } from '../src/files/open-file.js';
import { cutRange } from '../src/files/shown-values.js';
import { dateOf, isDateFormat } from '../src/files/workbook/number-formats.js';
import { readWorkbook } from '../src/files/workbook/read-workbook.js';
import { writeWorkbook } from '../src/files/workbook/write-workbook.js';

const PLAIN = { decimal: 'point', thousands: 'none' } as const;

/** A workbook of one sheet with this inside, as small as one can be. */
const bookOf = (sheet: string, texts?: string): Uint8Array => {
  const relation = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const parts = {
    'xl/workbook.xml': `<workbook xmlns:r="${relation}"><sheets><sheet name="one" r:id="r1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels':
      '<Relationships><Relationship Id="r1" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': `<worksheet>${sheet}</worksheet>`,
    ...(texts === undefined ? {} : { 'xl/sharedStrings.xml': `<sst><si><t>${texts}</t></si></sst>` }),
  };
  return zipSync(Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)])));
};
const rowsOf = (bytes: Uint8Array) => {
  const read = readWorkbook('x.xlsx', bytes);
  return 'incoming' in read && read.incoming.kind === 'sheets' ? read.incoming.sheets[0]!.rows : read;
};
const cell = (reference: string, value = '1') => `<c r="${reference}"><v>${value}</v></c>`;

describe('a spreadsheet that would fill the memory', () => {
  it('with a merge over the whole sheet is read: a merge holds no cells', () => {
    const merged = `<sheetData><row r="1">${cell('A1', '8.01')}</row></sheetData><mergeCells><mergeCell ref="A1:XFD1048576"/></mergeCells>`;
    expect(rowsOf(bookOf(merged))).toEqual([['8.01']]);
  });

  it('with one long text in twelve thousand cells is refused, though its file is small', () => {
    const rows = Array.from(
      { length: 12_000 },
      (_, i) => `<row r="${i + 1}"><c r="A${i + 1}" t="s"><v>0</v></c></row>`,
    );
    const small = bookOf(`<sheetData>${rows.join('')}</sheetData>`, 'x'.repeat(1_000_000));
    expect(small.length).toBeLessThan(100_000);
    expect(rowsOf(small)).toMatchObject({
      refusal: expect.stringContaining('the sheet “one” has more than 100\u202f000\u202f000 characters'),
    });
  });

  it.each([
    ['a last row of 999 999 999', `<row r="999999999">${cell('A999999999')}</row>`, 'names row 999\u202f999\u202f999'],
    [
      '20 000 rows with a cell at the far end',
      Array.from({ length: 20_000 }, (_, i) => `<row r="${i + 1}">${cell(`XFD${i + 1}`)}</row>`).join(''),
      'the sheet “one” covers more than 5\u202f000\u202f000 cells',
    ],
    ['a column that is none', `<row r="1">${cell('ZZZ1')}</row>`, 'names row 1'],
  ])('with %s is refused, with the sheet and what to do', (_, rows, said) => {
    const read = rowsOf(bookOf(`<sheetData>${rows}</sheetData>`));
    expect(read).toMatchObject({ refusal: expect.stringContaining(said) });
    expect(read).toMatchObject({ refusal: expect.stringContaining('save the readings as CSV') });
  });

  it('with entities of its own, or cut off, is damaged', () => {
    const bomb = bookOf('<sheetData/>');
    const parts = unzipSync(bomb);
    const entity = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><worksheet>&b;</worksheet>';
    for (const text of [entity, '<worksheet><sheetData><row>'])
      expect(rowsOf(zipSync({ ...parts, 'xl/worksheets/sheet1.xml': strToU8(text) }))).toMatchObject({
        refusal: 'x.xlsx is damaged and cannot be read.',
      });
  });
});

describe('a range of a spreadsheet', () => {
  it('that reaches far beyond what is written is cut to what is there', () => {
    const rows = [['a', 'b'], ['1']];
    expect(cutRange(rows, 'A1:XFD1048576')).toEqual([
      ['a', 'b'],
      ['1', ''],
    ]);
    expect(cutRange(rows, 'C1:XFD1')).toEqual([['']]);
  });
});

describe('a data package', () => {
  const packageOf = (resource: object, files: Record<string, string>) =>
    openFile(
      new File(
        [
          zipSync({
            'datapackage.json': strToU8(JSON.stringify({ resources: [resource] })),
            ...Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])),
          }) as BlobPart,
        ],
        'x.zip',
      ),
    );

  it.each([
    [{ path: 'a.csv', encoding: 'none' }, 'names the encoding “none”, which is not supported'],
    [{ path: '__proto__' }, 'does not contain it'],
    [{ path: 'b.csv' }, 'does not contain it'],
  ])('with %o is refused with the reason', async (resource, said) => {
    expect(await packageOf(resource, { 'a.csv': 'a\n1' })).toMatchObject({ refusal: expect.stringContaining(said) });
  });
});

describe('a cell of a spreadsheet', () => {
  it('without a place of its own follows the one before; the far ones leave empty cells between', () => {
    const sheet =
      '<sheetData><row><c><v>1</v></c><c><v>2</v></c></row><row r="4"><c r="C4" t="inlineStr"><is><t>a</t></is></c></row></sheetData>';
    expect(rowsOf(bookOf(sheet))).toEqual([['1', '2'], [], [], ['', '', 'a']]);
  });

  it('shows text, truth, errors and days as another library writes them', async () => {
    const workbook = new office.Workbook();
    const sheet = workbook.addWorksheet('s');
    sheet.addRow(['north', true, 12.5, { error: '#N/A' }]);
    sheet.getCell('E1').value = new Date(Date.UTC(2026, 10, 23, 14, 5));
    sheet.getCell('E1').numFmt = 'yyyy-mm-dd hh:mm';
    sheet.getCell('F1').value = { formula: 'C1*2', result: 25 };
    sheet.getCell('F1').numFmt = '0.00';
    sheet.getCell('G1').value = { richText: [{ text: 'two ' }, { text: 'parts' }] };
    const bytes = new Uint8Array(await workbook.xlsx.writeBuffer());
    expect(rowsOf(bytes)).toEqual([['north', 'true', '12.5', '#N/A', '2026-11-23 14:05', '25.00', 'two parts']]);
  });

  it('counts days from 1900, with the 29 February that there was not, or from 1904', () => {
    const day = (serial: number, from1904 = false) => dateOf(serial, from1904).toISOString().slice(0, 10);
    expect([day(1), day(59), day(61), day(46_349)]).toEqual(['1900-01-01', '1900-02-28', '1900-03-01', '2026-11-23']);
    expect(day(0, true)).toBe('1904-01-01');
  });

  it.each([
    ['dd.mm.yyyy', true],
    ['[$-409]h:mm AM/PM;@', true],
    ['General', false],
    ['0.00" mm"', false],
    ['[h]:mm', false],
    ['#,##0_);[Red]\\(#,##0\\)', false],
  ])('with the format %s is a date: %s', (format, isDate) => {
    expect(isDateFormat(format)).toBe(isDate);
  });
});

describe('a workbook that is written', () => {
  const TEXTS = ['<&>"\'', '  x ', 'line\nbreak', '_x0041_', '😀', '8,05', "'=1+1"];

  it('comes back cell for cell, here and in another library', async () => {
    const column = { name: 'a & b', kind: 'label' as const, format: PLAIN, cells: TEXTS };
    const bytes = new Uint8Array(await (await writeWorkbook('week 46: [x]', [column])).arrayBuffer());
    expect(rowsOf(bytes)).toEqual([['a & b'], ...TEXTS.map((text) => [text])]);
    const peer = new office.Workbook();
    await peer.xlsx.load(bytes.buffer as ArrayBuffer);
    const read = TEXTS.map((_, i) => peer.worksheets[0]!.getCell(i + 2, 1).value);
    expect(read).toEqual(TEXTS);
    expect(strFromU8(unzipSync(bytes)['xl/workbook.xml']!)).toContain('week 46');
  });

  it('opens as a file, as an analyst would open it', async () => {
    const column = { name: 'force (N)', kind: 'measure' as const, format: PLAIN, cells: ['12.30', '', '1e-5'] };
    const bytes = await (await writeWorkbook('t', [column])).arrayBuffer();
    expect(await openFile(new File([bytes], 't.xlsx'))).toMatchObject({
      incoming: { kind: 'sheets', sheets: [{ rows: [['force (N)'], ['12.30'], [], ['0.00001']] }] },
    });
  });
});
