export { accountWithNewSecret, secretRoom, usualRoom } from './new-secret.ts';
export { askOneMore, askReadable } from './one-more.ts';
export { loginOf, mayGo, type PasswordUse, passwordAt } from './password-gate.ts';
export { TrustAct } from './trust-act.tsx';
