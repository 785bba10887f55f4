import { createRowCutter, type Separator } from '@verdict/core';

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
  for await (const chunk of bytes) yield* cutter.push(decoder.decode(chunk, { stream: true }));
  yield* cutter.push(decoder.decode());
  yield* cutter.end();
}
