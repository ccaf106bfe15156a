export { HostField } from './host-field.tsx';
export { KeepingField } from './keeping-field.tsx';
export { KEEPING_WORDS } from './keeping-words.ts';
export { MacField } from './mac-field.tsx';
