import type { SecretsKnown } from '../../core/document/site-secrets.ts';
import type { SiteMend } from '../../core/lanes/mends.ts';
import type { Judgement, JudgeWork } from './judge-work.ts';
import type { SiteAction } from './site-slice.ts';

/** The work of another thread: each answer is waited for. */
type Work = {
  readonly [K in keyof JudgeWork]: (...given: Parameters<JudgeWork[K]>) => Promise<ReturnType<JudgeWork[K]>>;
};

/** Judging in a worker; where the browser starts none, in the page after all: late is better than never. */
class Judge {
  #work: Promise<Work> | null = null;
  #asking: Promise<unknown> = Promise.resolve();

  /** Starts what judges before there is anything to judge: it is loaded while the page asks the server and the store. */
  warm(): void {
    this.#started().catch(() => {}); // whoever asks it something is told
  }

  #started(): Promise<Work> {
    this.#work ??= new Promise((resolve, reject) => {
      const inPage = async (): Promise<Work> => {
        const { createJudgeWork } = await import('./judge-work.ts');
        const { act, know, mends } = createJudgeWork();
        return {
          act: async (action) => act(action),
          know: async (known) => know(known),
          mends: async (cameraId, rule) => mends(cameraId, rule),
        };
      };
      try {
        const worker = new Worker(new URL('./judge-worker.ts', import.meta.url), { type: 'module' });
        worker.addEventListener('error', () => inPage().then(resolve, reject), { once: true });
        const talk = async (): Promise<Work> => {
          const { wrap } = await import('comlink'); // while the worker is loaded too
          const work = wrap<JudgeWork>(worker) as unknown as Work; // Remote says the same, less plainly
          await work.mends('', ''); // it answers when it runs; one that cannot be loaded raises an error instead
          return work;
        };
        talk().then(resolve, reject);
      } catch {
        inPage().then(resolve, reject);
      }
    });
    return this.#work;
  }

  /** Tells what was done to the site; what is judged of it. Answers come in the order of the telling. */
  async act(action: SiteAction): Promise<Judgement | null> {
    return (await this.#started()).act(action);
  }

  /** Tells what can be said of the secrets in reach; what is judged with it. */
  async know(known: SecretsKnown): Promise<Judgement | null> {
    return (await this.#started()).know(known);
  }

  /**
   * What would mend a finding. One question after the other, and none that nobody wants any more: each tries remedies on
   * the whole site, and what is done to the site meanwhile must not wait behind a row of them.
   */
  mends(cameraId: string, rule: string, isWanted: () => boolean): Promise<readonly SiteMend[]> {
    const answer = this.#asking.then(async () => (isWanted() ? (await this.#started()).mends(cameraId, rule) : []));
    this.#asking = answer.catch(() => {});
    return answer;
  }
}

export const judge = new Judge();
