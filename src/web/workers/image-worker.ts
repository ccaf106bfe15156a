import { expose } from 'comlink';
import { hashFile, hashMember, lookAt } from './image-intake.ts';

/** A firmware image is hashed beside the page: half a gigabyte takes seconds. */
const imageWork = { lookAt, hashFile, hashMember };
export type ImageWork = typeof imageWork;
expose(imageWork);
