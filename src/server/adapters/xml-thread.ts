import { Worker } from 'node:worker_threads';
import { textOf } from '../../core/base/bytes.ts';
import { type Fault, fault } from '../../core/base/fault.ts';
import { err, type Result } from '../../core/base/result.ts';
import type { HttpAnswer } from '../../core/http/http-message.ts';
import { type Envelope, type EnvelopeFaultCode, isLongToRead } from '../../core/onvif/envelope.ts';

type Read = Result<Envelope, Fault<EnvelopeFaultCode>>;

/** Of one answer; the largest that is taken needs a tenth of it on a slow machine. */
const MOST_MS = 3000;

interface Asked {
  readonly text: string;
  readonly done: (read: Read) => void;
}

const LATE: Read = err(fault('onvif.not-xml', 'It took too long to read.'));

/** From source the worker needs the TypeScript loader; in the built bundle it lies beside this file as plain JavaScript. */
function startWorker(): Worker {
  if (!import.meta.url.endsWith('.ts')) return new Worker(new URL('./xml-worker.mjs', import.meta.url));
  const module = new URL('./xml-worker.ts', import.meta.url).href;
  return new Worker(new URL('./worker-boot.mjs', import.meta.url), { workerData: { module } });
}

/** One thread for long answers, one after the other; it starts when there is one, and keeps no process alive. */
class XmlThread {
  #worker: Worker | null = null;
  #isUp = false;
  #waiting: Asked[] = [];
  #current: Asked | null = null;
  #timer: NodeJS.Timeout | null = null;

  read(text: string): Promise<Read> {
    return new Promise((resolve) => {
      this.#waiting.push({ text, done: resolve });
      this.#next();
    });
  }

  #next(): void {
    if (this.#current) return;
    this.#current = this.#waiting.shift() ?? null;
    if (!this.#current) return this.#worker?.unref();
    const worker = this.#running();
    worker.ref();
    worker.postMessage(this.#current.text);
    if (this.#isUp) this.#watch();
  }
  #watch(): void {
    this.#timer = setTimeout(() => this.#drop(), MOST_MS);
  }
  /** It hangs on what it was given: another one goes on with the rest. */
  #drop(): void {
    void this.#worker?.terminate();
    this.#worker = null;
    this.#isUp = false;
    this.#done(LATE);
  }
  #done(read: Read): void {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    const asked = this.#current;
    this.#current = null;
    asked?.done(read);
    this.#next();
  }
  #running(): Worker {
    if (this.#worker) return this.#worker;
    const worker = startWorker();
    worker.on('message', (read: Read | 'up') => {
      if (worker !== this.#worker) return;
      if (read !== 'up') return this.#done(read);
      this.#isUp = true;
      if (this.#current) this.#watch(); // its start is none of the answer's time
    });
    worker.on('error', () => {
      if (worker === this.#worker) this.#drop();
    });
    this.#worker = worker;
    return worker;
  }
}

const thread = new XmlThread();

/** A picture begins with it, and no text of UTF-8 does. */
const JPEG_START = 0xff;

/** Reads a long answer beside everything else; a short one is left to whoever asked, and `undefined`. */
export async function readAside({ body }: HttpAnswer): Promise<Read | undefined> {
  if (body[0] === JPEG_START) return undefined;
  const text = textOf(body);
  return isLongToRead(text) ? await thread.read(text) : undefined;
}
