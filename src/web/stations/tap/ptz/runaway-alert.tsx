import { Button } from '../../../ui/button.tsx';
import type { Hand } from './use-ptz.ts';

/** A head that was told to stop and was not seen to rest: said where the eyes are, with the stop beside it. */
export function RunawayAlert({ hand }: { hand: Hand }) {
  if (!hand.state.isRunaway) return null;
  const isOver = hand.state.status === 'ended';
  return (
    <div
      role="alert"
      className="sticky top-2 z-10 mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-[3px] border-brick bg-sheet px-3 py-2"
    >
      <p className="min-w-0 flex-1 basis-64">
        <b className="text-brick">Not seen to stop.</b> Stop was sent for ten seconds. Send it again; if it still turns,
        disconnect its power.
      </p>
      <Button kind="main" onClick={isOver ? hand.reopen : hand.stop}>
        {isOver ? 'Connect again' : 'Stop it'}
      </Button>
    </div>
  );
}
