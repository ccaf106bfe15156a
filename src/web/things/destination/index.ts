export { DestinationDialog } from './destination-dialog.tsx';
export { PackFields, packsSchema } from './pack-fields.tsx';
export { SeatLine } from './seat-line.tsx';
