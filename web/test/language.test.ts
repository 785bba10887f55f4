import { formatFigure, formatPercentOf, formatValue, groupThousands } from '@verdict/core/format';
import { readNumber, type NumberFormat } from '@verdict/core/readings';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { writeLocally } from '../src/charts/local-context.js';
import { typedNumber } from '../src/components/fields/typed-number.js';
import { decimalMarkOf, patternOfNames, withMark } from '../src/language/figures.js';
import {
  chosenLanguage,
  decimalMark,
  formatTime,
  keepAsWritten,
  languageWords,
  local,
  localCell,
  typedCell,
} from '../src/language/language.js';
import { typedValue } from '../src/workbench/run/field-values.js';

const POINT: NumberFormat = { decimal: 'point', thousands: 'none' };
const COMMA: NumberFormat = { decimal: 'comma', thousands: 'none' };

afterEach(() => {
  chosenLanguage.value = '';
  keepAsWritten(() => []);
});

describe('figures in a text', () => {
  it('take the decimal mark of the language', () => {
    expect([decimalMarkOf('de'), decimalMarkOf('fr'), decimalMarkOf('en-GB'), decimalMarkOf('de-CH')]).toEqual([
      ...['comma', 'comma', 'point', 'point'],
    ]);
    const text = 'mean 8.02 mm, p = 0.59, 95 % in 7.5 to 8.5. A² = −0.25 (3.1 × 10⁻⁹; 2.5e-7).';
    expect(withMark(text, 'comma')).toBe(
      'mean 8,02 mm, p = 0,59, 95 % in 7,5 to 8,5. A² = −0,25 (3,1 × 10⁻⁹; 2,5e-7).',
    );
    expect(withMark(text, 'point')).toBe(text);
  });

  it.each(['Verdict 0.1.0', 'x1.5', '02.12.2026', 'doi 10.1093/biomet', 'readings-2.5.csv', '192.168.0.1'])(
    'are none in “%s”',
    (text) => expect(withMark(text, 'comma')).toBe(text),
  );

  it('are none in quotation marks, which hold typed texts', () => {
    expect(withMark('“8.3l” is no number; “x*2.5” gives 2.5.', 'comma')).toBe(
      '“8.3l” is no number; “x*2.5” gives 2,5.',
    );
  });

  it('leave the names that the analyst gave, the longest first', () => {
    const names = patternOfNames(['layer 2.5', 'layer 2.55 (x)', 'width']);
    expect(withMark('layer 2.55 (x) and layer 2.5 differ by 2.5 mm', 'comma', names)).toBe(
      'layer 2.55 (x) and layer 2.5 differ by 2,5 mm',
    );
    expect(withMark('layer 2.57 is 2.5 mm', 'comma', names)).toBe('layer 2,57 is 2,5 mm');
    // A name that is a figure alone is read as one.
    expect(patternOfNames(['width', 'lot 3', '2.5'])).toBeNull();
  });

  it('are typed back as the number they stand for, whatever the formatter', () => {
    const number = fc.double({ min: -1e6, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(number, (value) => {
        for (const text of [
          formatValue(value),
          formatFigure(value, 'spread', 0.01),
          formatFigure(value, 'statistic'),
        ]) {
          if (text.includes('×')) continue;
          expect(typedNumber(withMark(text, 'comma'))).toBe(typedNumber(text));
        }
      }),
    );
    expect(withMark(groupThousands(1_234_567), 'comma')).toBe('1\u202f234\u202f567');
    expect(withMark(formatPercentOf(0.1234), 'comma')).toBe('12,34\u00a0%');
  });
});

describe('the reader’s language', () => {
  it('is the browser’s until one is chosen; an unknown tag is ignored', () => {
    chosenLanguage.value = 'de';
    expect([decimalMark.value, local('8.5')]).toEqual(['comma', '8,5']);
    chosenLanguage.value = 'no such tag';
    expect([decimalMark.value, local('8.5')]).toEqual(['point', '8.5']);
  });

  it('writes moments, in the digits of the figures', () => {
    chosenLanguage.value = 'de';
    expect(formatTime('2026-11-23T12:05:00Z')).toMatch(/^2[34]\.11\.2026, \d\d:05$/);
    chosenLanguage.value = 'ar-EG';
    expect(formatTime('2026-11-23T12:05:00Z')).toMatch(/2026/);
  });

  it('shows each language by an example', () => {
    expect(languageWords('de')).toBe('Deutsch: 2,5 · 23.11.2026');
    expect(languageWords('en-GB')).toBe('British English: 2.5 · 23 Nov 2026');
  });

  it('leaves the names of the open study as they are', () => {
    chosenLanguage.value = 'de';
    keepAsWritten(() => ['layer 2.5']);
    expect(local('The mean of layer 2.5 is 8.3 mm.')).toBe('The mean of layer 2.5 is 8,3 mm.');
  });

  it('is drawn and measured alike, each text turned once', () => {
    chosenLanguage.value = 'de';
    const drawn: string[] = [];
    const measured: string[] = [];
    const context = {
      fillText: (text: string) => void drawn.push(text),
      measureText: (text: string) => (measured.push(text), { width: text.length }) as unknown as TextMetrics,
    };
    writeLocally(context);
    writeLocally(context);
    context.fillText('8.5');
    expect(context.measureText('8.55').width).toBe(4);
    expect([drawn, measured]).toEqual([['8,5'], ['8,55']]);
  });
});

describe('cells', () => {
  const shown = (language: string, text: string, format: NumberFormat) => {
    chosenLanguage.value = language;
    return localCell(text, format);
  };
  const typed = (language: string, text: string, format: NumberFormat) => {
    chosenLanguage.value = language;
    return typedCell(text, format);
  };

  it('show each digit as written, in the reader’s mark; what is no number stays', () => {
    expect(shown('de', '8.310', POINT)).toBe('8,310');
    expect(shown('en-GB', '2,500', COMMA)).toBe('2.500');
    expect(shown('de', '<0.05', POINT)).toBe('<0,05');
    expect(shown('de', '1,234.5', { decimal: 'point', thousands: 'comma' })).toBe('1234,5');
    for (const text of ['', 'n/a', '8.3l', '8.31 mm', '2.5.2026']) expect(shown('de', text, POINT)).toBe(text);
  });

  it('are stored in the marks of their column, whichever mark was typed', () => {
    expect(typed('de', '2,5', POINT)).toBe('2.5');
    expect(typed('de', '2.5', POINT)).toBe('2.5');
    expect(typed('en-GB', '2.5', COMMA)).toBe('2,5');
    expect(typed('en-GB', '2,5', COMMA)).toBe('2,5');
    expect(typed('de', '1 234,5', POINT)).toBe('1234.5');
    expect(typed('en-GB', '< 0.05', POINT)).toBe('< 0.05');
    // A comma is the decimal mark of this reader, not one between thousands.
    expect(typed('de', '1,234', { decimal: 'point', thousands: 'comma' })).toBe('1.234');
    for (const text of ['', 'n/a', '8,3l']) expect(typed('de', text, POINT)).toBe(text);
  });

  it('come back to their number after they are shown and stored again', () => {
    const cell = fc.double({ noNaN: true, noDefaultInfinity: true }).map(String);
    fc.assert(
      fc.property(cell, fc.constantFrom('de', 'en-GB'), fc.constantFrom(POINT, COMMA), (text, language, format) => {
        chosenLanguage.value = language;
        const written = format === COMMA ? text.replace('.', ',') : text;
        expect(readNumber(typedCell(localCell(written, format), format), format)).toBe(readNumber(written, format));
      }),
    );
  });
});

describe('fields with several numbers', () => {
  const field = { field: 'at', type: 'numbers' as const, label: 'values', empty: '', min: 0, max: 10, most: 9 };
  const values = (language: string, text: string) => {
    chosenLanguage.value = language;
    return typedValue(field, text)?.value;
  };
  it('take decimal commas where the reader writes them, and commas between numbers elsewhere', () => {
    expect(values('de', '0,5 1,5')).toEqual([0.5, 1.5]);
    expect(values('de', '0,5, 1,5')).toEqual([0.5, 1.5]);
    expect(values('de', '0.5; 1.5')).toEqual([0.5, 1.5]);
    expect(values('en-GB', '1,2,3')).toEqual([1, 2, 3]);
    expect(values('en-GB', '0,5; 1,5')).toEqual([0.5, 1.5]);
    expect(values('de', '1,2,3')).toBeUndefined();
  });
});
