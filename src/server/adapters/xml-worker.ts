// Reads long answers of devices away from the thread that serves sockets.
import { parentPort } from 'node:worker_threads';
import { parseEnvelope } from '../../core/onvif/envelope.ts';
import { MAX_ANSWER_BYTES } from '../../core/onvif/onvif-limits.ts';

parentPort?.on('message', (text: string) => parentPort?.postMessage(parseEnvelope(text, MAX_ANSWER_BYTES)));
parentPort?.postMessage('up');
