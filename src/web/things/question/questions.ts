/** One thing that only a person can say, in words of its own. */
export interface Question {
  readonly title: string;
  /** What it is about, a line each. */
  readonly lines: readonly string[];
  /** Who asks for whose password: of many, a row each. */
  readonly rows: readonly QuestionRow[];
  readonly yes: string;
  readonly no: string;
}
export interface QuestionRow {
  /** Whose password it is. */
  readonly whose: string;
  /** Where it was typed for; `null` where nobody noted that. */
  readonly typedFor: string | null;
  /** Which address asks for it now. */
  readonly asks: string;
}

interface Waiting {
  readonly question: Question;
  readonly answer: (isYes: boolean) => void;
}

/** Questions that wait for a person, one after the other. What waits for an answer is a promise, and so is no state for the store. */
class Questions {
  #waiting: readonly Waiting[] = [];
  readonly #listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly first = (): Question | null => this.#waiting[0]?.question ?? null;

  ask(question: Question): Promise<boolean> {
    return new Promise((resolve) => {
      this.#waiting = [...this.#waiting, { question, answer: resolve }];
      this.#tell();
    });
  }
  answer(isYes: boolean): void {
    const [first, ...rest] = this.#waiting;
    this.#waiting = rest;
    first?.answer(isYes);
    this.#tell();
  }

  #tell(): void {
    for (const listener of this.#listeners) listener();
  }
}

export const questions = new Questions();
