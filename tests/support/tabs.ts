import { jest } from '@jest/globals';
import * as editing from '../../src/web/store/editing.ts';
import type { RefusalOf } from '../../src/web/store/fit-guard.ts';

type Handler = (event: { preventDefault(): void }) => void;

/** What a browser gives the pages of one origin, in memory: a database, room for what a closing page puts down, word between tabs. */
export class TestBrowser {
  readonly #tables = new Map<string, Map<string, unknown>>();
  readonly #channels = new Set<{ readonly tab: object; readonly heard: Set<(event: { data: unknown }) => void> }>();
  /** As `localStorage`: its keys are its own properties, its methods are not counted among them. */
  readonly #room = Object.defineProperties(
    {},
    {
      getItem: { value: (key: string) => Reflect.get(this.#room, key) ?? null },
      setItem: {
        value: (key: string, value: string) => {
          if (this.hasNoRoomAtOnce) throw new DOMException('no room', 'QuotaExceededError');
          Reflect.set(this.#room, key, value);
        },
      },
      removeItem: { value: (key: string) => Reflect.deleteProperty(this.#room, key) },
    },
  );
  #turn: Promise<unknown> = Promise.resolve();
  /** Nothing more goes into the database. */
  isFull = false;
  /** Nothing more goes into what takes what a closing page puts down. */
  hasNoRoomAtOnce = false;

  table(name: string) {
    const items = this.#tables.get(name) ?? new Map<string, unknown>();
    this.#tables.set(name, items);
    return {
      getItem: async (key: string) => structuredClone(items.get(key) ?? null),
      setItem: async (key: string, value: unknown) => {
        if (this.isFull) throw new DOMException('no room', 'QuotaExceededError');
        items.set(key, structuredClone(value));
        return value;
      },
      removeItem: async (key: string) => void items.delete(key),
      keys: async () => [...items.keys()],
      iterate: async (visit: (value: unknown, key: string) => unknown) => {
        for (const [key, value] of items) {
          const found = visit(structuredClone(value), key);
          if (found !== undefined) return found;
        }
        return undefined;
      },
    };
  }

  /** The global names that a page finds, for the tab that is opened next. */
  install(tab: object, on: (kind: string, handler: Handler) => void): void {
    const browser = this;
    class Channel {
      readonly #own = { tab, heard: new Set<(event: { data: unknown }) => void>() };
      constructor() {
        browser.#channels.add(this.#own);
      }
      addEventListener(_: string, heard: (event: { data: unknown }) => void): void {
        this.#own.heard.add(heard);
      }
      postMessage(data: unknown): void {
        for (const other of browser.#channels)
          if (other !== this.#own) for (const heard of other.heard) queueMicrotask(() => heard({ data }));
      }
    }
    const locks = {
      request: <T>(_: string, work: () => Promise<T>): Promise<T> => {
        const done = this.#turn.then(work);
        this.#turn = done.catch(() => {});
        return done;
      },
    };
    const given = {
      localStorage: this.#room,
      BroadcastChannel: Channel,
      navigator: { locks },
      addEventListener: on,
    };
    for (const [name, value] of Object.entries(given))
      Object.defineProperty(globalThis, name, { value, configurable: true, writable: true });
  }
  /** As one that slept while another told what it wrote. */
  deafen(tab: object): void {
    for (const channel of this.#channels) if (channel.tab === tab) this.#channels.delete(channel);
  }
}

/** In the place of the schema; while it is not there it cannot be loaded. */
export interface TestSchema {
  isThere: boolean;
  readonly refusalOf: RefusalOf;
}

export type Tab = typeof import('../../src/web/store/site-slice.ts') &
  typeof import('../../src/web/store/site-store.ts') &
  typeof import('../../src/web/store/store.ts') & {
    /** What the bar below the head says, as text. */
    bar(): string;
    /** An event of the page; whether the browser would ask before it closes. */
    tell(kind: 'pagehide' | 'beforeunload'): boolean;
    /** It sleeps, and hears nothing of what others write. */
    sleep(): void;
    /** Gone, with what it had to say; whether the browser would ask. */
    close(): boolean;
  };

/** A page of the application without its views: its store over what the browser gives, in modules of its own. */
export async function openTab(browser: TestBrowser, schema?: TestSchema): Promise<Tab> {
  const handlers: { readonly kind: string; readonly handler: Handler }[] = [];
  const tab = {};
  browser.install(tab, (kind, handler) => handlers.push({ kind, handler }));
  const tell = (kind: string): boolean => {
    let isAsked = false;
    for (const one of handlers) if (one.kind === kind) one.handler({ preventDefault: () => (isAsked = true) });
    return isAsked;
  };
  const load = async () => {
    jest.doMock('localforage', () => ({
      __esModule: true,
      default: { createInstance: ({ storeName }: { storeName: string }) => browser.table(storeName) },
    }));
    jest.doMock('../../src/web/store/judge.ts', () => ({ judge: { act: async () => null } }));
    const { haveEditing } = await import('../../src/web/store/edits.ts');
    haveEditing(editing); // large, and it keeps nothing: all have the same
    const slice = await import('../../src/web/store/site-slice.ts');
    const stored = await import('../../src/web/store/site-store.ts');
    const store = await import('../../src/web/store/store.ts');
    const { SaveBar } = await import('../../src/web/shell/save-bar.tsx');
    const { renderToStaticMarkup } = await import('react-dom/server');
    const { createElement } = await import('react');
    const { Provider } = await import('react-redux');
    const bar = (): string =>
      renderToStaticMarkup(createElement(Provider, { store: store.store, children: createElement(SaveBar) }))
        .replace(/<[^>]*>/g, ' ')
        .replace(/\s+/g, ' ')
        .trim();
    return { ...slice, ...stored, ...store, bar };
  };
  let page!: Awaited<ReturnType<typeof load>>;
  if (schema) {
    jest.resetModules(); // what a page loads later comes from outside of its own modules
    jest.doMock('../../src/core/document/site-fit.ts', () => {
      if (!schema.isThere) throw new TypeError('Failed to fetch');
      return { refusalOf: schema.refusalOf };
    });
  } else jest.dontMock('../../src/core/document/site-fit.ts');
  await jest.isolateModulesAsync(async () => {
    page = await load();
  });
  return {
    ...page,
    tell,
    sleep: () => browser.deafen(tab),
    close: () => {
      const isAsked = tell('beforeunload');
      tell('pagehide');
      browser.deafen(tab);
      return isAsked;
    },
  };
}
