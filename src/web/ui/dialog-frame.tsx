import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface DialogFrameProps {
  readonly title: string;
  readonly description: string;
  readonly isOpen: boolean;
  /** For a table that must be seen. */
  readonly isWide?: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly children: ReactNode;
}

/** A slip laid over the sheet: for the few acts that need their own moment. */
export function DialogFrame({ title, description, isOpen, isWide = false, onOpenChange, children }: DialogFrameProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-veil" />
        <Dialog.Content
          className={`fixed inset-x-0 bottom-0 z-30 max-h-[90dvh] overflow-auto md:max-h-[88dvh] border border-ink bg-sheet p-5 md:inset-x-auto md:bottom-auto md:left-1/2 md:-translate-x-1/2 ${isWide ? 'md:top-[5dvh] md:w-[min(1080px,94vw)]' : 'md:top-[7dvh] md:w-[460px]'}`}
        >
          <Dialog.Title className="text-name font-strong">{title}</Dialog.Title>
          <Dialog.Description className="mt-1 mb-3 text-small text-soft">{description}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
