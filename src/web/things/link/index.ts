export { Joins, usualMedium } from './joins.tsx';
export { LinkDialog } from './link-dialog.tsx';
export { newLink } from './new-link.ts';
