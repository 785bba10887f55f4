import type { Separator } from '@verdict/core';
import Papa from 'papaparse';
import type { Readable } from 'node:stream';

const DELIMITER = { tab: '\t', comma: ',', semicolon: ';' } as const;

/** Text that arrives in pieces, as lines without their breaks. */
async function* linesOf(chunks: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = '';
  for await (const chunk of chunks) {
    rest += chunk;
    // A carriage return at the very end may be half of a break.
    const whole = rest.endsWith('\r') ? rest.slice(0, -1) : rest;
    const lines = whole.split(/\r\n|\n|\r/);
    rest = lines.pop()! + rest.slice(whole.length);
    yield* lines;
  }
  yield* rest.split(/\r\n|\n|\r/);
}

async function* rawRows(text: AsyncIterable<string>, separator: Separator): AsyncGenerator<string[]> {
  if (separator === 'none' || separator === 'blanks') {
    for await (const line of linesOf(text)) yield separator === 'none' ? [line] : line.trim().split(/[ \t]+/);
    return;
  }
  const parser = Papa.parse(Papa.NODE_STREAM_INPUT, { delimiter: DELIMITER[separator] });
  const feeding = (async () => {
    for await (const piece of text) {
      if (parser.destroyed) return;
      if (!parser.write(piece)) await new Promise((resolve) => parser.once('drain', resolve).once('close', resolve));
    }
    parser.end();
  })();
  // Whoever reads is told when the sender breaks off: the rows end in its error.
  feeding.catch((error: Error) => parser.destroy(error));
  for await (const row of parser as AsyncIterable<string[]>) yield row;
  await feeding;
}

const isBlankLine = (row: readonly string[]) => row.length === 1 && row[0] === '';

/**
 * The rows of a delimited text as it arrives, cut as `splitRows` of the core cuts the whole of it: no byte order mark, no empty lines at
 * the end. Bytes that are no text of the encoding become the replacement character, as in the page.
 */
export async function* rowsOfStream(
  bytes: Readable | AsyncIterable<Uint8Array>,
  separator: Separator,
  encoding: 'utf-8' | 'windows-1252',
): AsyncGenerator<string[]> {
  async function* text() {
    const decoder = new TextDecoder(encoding);
    for await (const chunk of bytes as AsyncIterable<Uint8Array>) yield decoder.decode(chunk, { stream: true });
    yield decoder.decode();
  }
  let blank = 0;
  for await (const row of rawRows(text(), separator)) {
    if (isBlankLine(row)) {
      blank++;
      continue;
    }
    // Between blanks an empty line is nothing; elsewhere it is a row, unless nothing follows it.
    for (; blank > 0; blank--) if (separator !== 'blanks') yield [''];
    yield row;
  }
}
