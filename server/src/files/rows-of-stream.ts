import { groupThousands } from '@verdict/core/format';
import { createRowCutter, LONGEST_ROW, type Separator } from '@verdict/core/readings';
import { StoreError } from '../store/errors.js';

/**
 * The rows of a delimited text as its bytes arrive. Bytes that are no text of the encoding become the replacement character, as in the page.
 */
export async function* rowsOfStream(
  bytes: AsyncIterable<Uint8Array>,
  separator: Separator,
  encoding: 'utf-8' | 'windows-1252',
): AsyncGenerator<string[]> {
  const decoder = new TextDecoder(encoding);
  const cutter = createRowCutter(separator);
  let rows = 0;
  for await (const chunk of bytes) {
    for (const row of cutter.push(decoder.decode(chunk, { stream: true }))) {
      rows++;
      yield row;
    }
    if (cutter.waiting <= LONGEST_ROW) continue;
    const said = `Row ${rows + 1} of the file has more than ${groupThousands(LONGEST_ROW)} characters. Look for a missing line break or an unclosed quote.`;
    throw new StoreError('invalid', said, { field: 'file' });
  }
  yield* cutter.push(decoder.decode());
  yield* cutter.end();
}
