import type { FaultGallery } from '../../contract/fault-api.ts';
import { callServer } from './client.ts';

/** The faults that the demo has to take. */
export const fetchFaults = async (): Promise<FaultGallery> => (await callServer('/api/faults')).json();
