/** `npm run words`: every text the product can show, with where it stands; then what the analyses say of demo and odd columns. */
import { sourceCorpus } from './corpus.js';
import { everythingSaid } from './said.js';

for (const [file, texts] of sourceCorpus({ placed: true })) console.log(`# ${file}\n${texts}`);
for await (const { analysis, of, texts } of everythingSaid()) {
  console.log(`# ${analysis}: ${of}`);
  for (const text of texts) console.log(text);
}
