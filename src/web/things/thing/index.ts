export { ThingActs } from './thing-acts.tsx';
