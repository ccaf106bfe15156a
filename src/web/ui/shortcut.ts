import { useHotkeys } from 'react-hotkeys-hook';

/** Keys and what they do, as the list of shortcuts shows them; those of places stand in their registry. `mod` is Ctrl, or ⌘ where the keyboard has it. */
export const SHORTCUTS = [
  { keys: '/', shown: ['/'], does: 'Find a camera, a destination, a command' },
  { keys: 'n', shown: ['N'], does: 'Go to the next open step' },
  { keys: 'a', shown: ['A'], does: 'Main command of this view' },
  { keys: 'm', shown: ['M'], does: 'Carry out the remedy at the top of a station' },
  { keys: 'p', shown: ['P'], does: 'Probe the stream, at Tap' },
  { keys: 't', shown: ['T'], does: 'Send the stream to the destination, at Tap' },
  { keys: 'mod+z', shown: ['Ctrl', 'Z'], does: 'Undo the last edit' },
  { keys: 'mod+shift+z', shown: ['Ctrl', 'Shift', 'Z'], does: 'Redo' },
  { keys: 'k', shown: ['K'], does: 'Previous camera' },
  { keys: 'j', shown: ['J'], does: 'Next camera' },
  { keys: '?', shown: ['?'], does: 'This list' },
] as const;

const isCovered = (): boolean => document.querySelector('[role="dialog"], [role="menu"], [data-opening]') !== null;

/** Runs an action when its keys are pressed outside any field, dialog and menu, while none of them is on its way. Letters count, not places on the board. */
export function useShortcut(keys: string, action: () => void): void {
  useHotkeys(keys, action, { useKey: true, preventDefault: true, ignoreEventWhen: isCovered }, [action]);
}
