export { StreamDialog } from './stream-dialog.tsx';
