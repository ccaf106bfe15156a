export { GearDialog } from './gear-dialog.tsx';
