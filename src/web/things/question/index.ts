import { lazy } from 'react';

export { type QuestionRow, questions } from './questions.ts';

export const QuestionDialog = lazy(async () => ({ default: (await import('./question-dialog.tsx')).QuestionDialog }));
