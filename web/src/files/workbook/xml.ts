import { SaxesParser } from 'saxes';

export type Attributes = Record<string, string>;

/** What is done with the parts of an XML text as they come; names are bare of their prefix. */
export interface Reader {
  open?(name: string, attributes: Attributes): void;
  text?(text: string): void;
  close?(name: string): void;
}

const bare = (name: string) => name.slice(name.indexOf(':') + 1);

/** Reads an XML text through once. Throws where it is not well-formed; entities of its own are not expanded. */
export function readXml(xml: string, { open, text, close }: Reader): void {
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  if (open) parser.on('opentag', ({ name, attributes }) => open(bare(name), attributes as Attributes));
  if (close) parser.on('closetag', ({ name }) => close(bare(name)));
  if (text) parser.on('text', text);
  parser.write(xml).close();
}
