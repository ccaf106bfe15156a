export { ChargeFields } from './charge-fields.tsx';
