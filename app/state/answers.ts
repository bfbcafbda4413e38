import { create } from 'zustand';

/** What the jobs of the open task have last found, by their names; kept apart from the document. */
export const useAnswers = create<{ readonly answers: Readonly<Record<string, unknown>> }>(() => ({ answers: {} }));
