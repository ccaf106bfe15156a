export { DestinationDialog } from './destination-dialog.tsx';
export { LicenceLine } from './licence-line.tsx';
export { PackFields, packsSchema } from './pack-fields.tsx';
