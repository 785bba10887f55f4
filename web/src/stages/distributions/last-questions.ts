import { useLocalStorage } from '@vueuse/core';
import type { Query } from './question.js';

/** A question that was asked here, with its answer as it stood. */
export interface LastQuestion {
  query: Query;
  question: string;
  answer: string;
}

const MOST = 8;

/** The last questions asked in this browser, the latest first. */
export function useLastQuestions() {
  const questions = useLocalStorage<LastQuestion[]>('verdict.questions', []);

  function remember(asked: LastQuestion): void {
    const others = questions.value.filter(({ question }) => question !== asked.question);
    questions.value = [asked, ...others].slice(0, MOST);
  }

  return { questions, remember, forget: () => (questions.value = []) };
}
