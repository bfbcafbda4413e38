import { create } from 'zustand';

/** What the jobs of the open task have last found, by `answerKey`; kept apart from the document. */
export const useAnswers = create<{ readonly answers: Readonly<Record<string, unknown>> }>(() => ({ answers: {} }));
