import { PLACES } from '../places/registry.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { SHORTCUTS } from '../ui/shortcut.ts';

const KEYS = [
  ...SHORTCUTS.slice(0, -1),
  ...PLACES.flatMap(({ key, name }) => (key ? [{ keys: key, shown: [key.toUpperCase()], does: name }] : [])),
  ...SHORTCUTS.slice(-1),
];

/** What `?` shows. */
export function ShortcutList({ onClose }: { onClose: () => void }) {
  return (
    <DialogFrame
      title="Keyboard shortcuts"
      description="They work wherever you are not typing. On keyboards with ⌘ use it for Ctrl."
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
    >
      <dl className="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-1.5">
        {KEYS.map(({ keys, shown, does }) => (
          <div key={keys} className="contents">
            <dt className="flex gap-1">
              {shown.map((key) => (
                <kbd key={key} className="rounded-control border border-hair px-1.5 font-mono text-small">
                  {key}
                </kbd>
              ))}
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-4 flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </DialogFrame>
  );
}
