import { useSyncExternalStore } from 'react';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { questions } from './questions.ts';

/** What only a person can say about a password: which address asks for whose. Escape says no. */
export function QuestionDialog() {
  const question = useSyncExternalStore(questions.subscribe, questions.first);
  if (!question) return null;
  const { title, lines, rows, yes, no } = question;
  return (
    <DialogFrame
      title={title}
      description={lines[0] ?? ''}
      isOpen
      isWide={rows.length > 1}
      onOpenChange={(isOpen) => !isOpen && questions.answer(false)}
    >
      {rows.length > 0 && (
        <div className="max-h-[50dvh] overflow-auto">
          {rows.map(({ whose, typedFor, asks }) => (
            <dl
              key={`${whose} ${asks}`}
              className="mb-2 grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5 border-l-[3px] border-brass pl-3"
            >
              <dt className="text-soft">Password of</dt>
              <dd className="font-strong break-words">{whose}</dd>
              <dt className="text-soft">Typed for</dt>
              <dd className="font-mono wrap-anywhere">
                {typedFor ?? 'not recorded: it was kept by an earlier version'}
              </dd>
              <dt className="text-soft">Asked by</dt>
              <dd className="font-mono font-strong wrap-anywhere">{asks}</dd>
            </dl>
          ))}
        </div>
      )}
      {lines.slice(1).map((line) => (
        <p key={line} className="mt-2">
          {line}
        </p>
      ))}
      <div className="mt-4 flex flex-wrap justify-end gap-2">
        {/* who presses Enter without reading sends nothing */}
        <Button kind="main" autoFocus onClick={() => questions.answer(false)}>
          {no}
        </Button>
        <Button onClick={() => questions.answer(true)}>{yes}</Button>
      </div>
    </DialogFrame>
  );
}
