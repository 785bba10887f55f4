import { QUESTION_WORDS, type Change } from '@verdict/contract';
import { quantileChoice } from '@verdict/core/analyses';
import { eq } from 'drizzle-orm';
import { studies } from '../schema.js';
import { LONGEST_TEXT, type Applied, type Context, type Of } from './context.js';

export async function changeStudy(context: Context, change: Of<'change-study'>): Promise<Applied> {
  const { q, study } = context;
  const { kind: _, ...after } = change;
  if (Object.keys(after).length > 0) await q.update(studies).set(after).where(eq(studies.id, study.id));
  const nameOf = (id: string | null) => context.columns.find((c) => c.id === id)?.name ?? 'none';
  const said: string[] = [];
  const inverse: Change = { kind: 'change-study' };
  if (change.name !== undefined) {
    inverse.name = study.name;
    said.push(`name: “${study.name}” → “${change.name}”`);
  }
  if (change.question !== undefined) {
    inverse.question = study.question;
    said.push('question changed');
  }
  if (change.asks !== undefined) {
    inverse.asks = study.asks;
    said.push(change.asks === null ? 'no type of question' : `type of question: “${QUESTION_WORDS[change.asks]}”`);
  }
  if (change.tags !== undefined) {
    inverse.tags = study.tags;
    said.push(change.tags.length ? `tags: ${change.tags.join(', ')}` : 'no tags');
  }
  if (change.alpha !== undefined) {
    inverse.alpha = study.alpha;
    said.push(`significance level ${study.alpha} → ${change.alpha}`);
  }
  if (change.quantileType !== undefined) {
    inverse.quantileType = study.quantileType;
    said.push(`quartiles by ${quantileChoice(study.quantileType)} → ${quantileChoice(change.quantileType)}`);
  }
  if (change.subject !== undefined) {
    inverse.subject = study.subject;
    said.push(`subject ${nameOf(study.subject)} → ${nameOf(change.subject)}`);
  }
  return { inverse, text: `Study: ${said.join('; ')}`.slice(0, LONGEST_TEXT) };
}
