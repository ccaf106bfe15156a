import { useCallback, useEffect, useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { forgetCard, keepCards, listCards } from './model-library.ts';

export interface Told {
  readonly isError: boolean;
  readonly text: string;
}

/** A card with where it lies: in this site, which is judged by it, or only in the library of this browser. */
export interface ListedCard {
  readonly card: Model;
  readonly isOfSite: boolean;
}

/** The cards of this site and of the library, and what can be done with them. */
export function useCards() {
  const dispatch = useAppDispatch();
  const { models } = useAppSelector(selectSite);
  const [library, setLibrary] = useState<readonly Model[]>([]);
  const [told, setTold] = useState<Told | null>(null);
  const [forgotten, setForgotten] = useState<Model | null>(null);
  const readLibrary = useCallback(
    () =>
      listCards().then(setLibrary, () =>
        setTold({ isError: true, text: 'This browser stores nothing: model cards of other sites cannot be shown.' }),
      ),
    [],
  );
  useEffect(() => void readLibrary(), [readLibrary]);
  const inSite = new Set(models.map(({ id }) => id));
  const cards: readonly ListedCard[] = [
    ...models.map((card) => ({ card, isOfSite: true })),
    ...library.filter(({ id }) => !inSite.has(id)).map((card) => ({ card, isOfSite: false })),
  ].sort((a, b) => nameOfModel(a.card).localeCompare(nameOfModel(b.card)));

  return {
    cards,
    told,
    forgotten,
    /** Into the site, which must hold all that it is judged by, and into the library for the next one. */
    keep: async (card: Model): Promise<void> => {
      dispatch(commandIssued({ kind: 'putModel', model: card }));
      await keepCards([card]).catch(() => {}); // a browser that keeps nothing still has it in the site
      await readLibrary();
    },
    keepInLibrary: async (card: Model): Promise<void> => {
      await keepCards([card]).catch(() =>
        setTold({ isError: true, text: 'The browser’s storage is full or blocked.' }),
      );
      await readLibrary();
    },
    forget: async (card: Model): Promise<void> => {
      await forgetCard(card.id).catch(() => {});
      setForgotten(card);
      await readLibrary();
    },
    putBack: async (): Promise<void> => {
      if (forgotten) await keepCards([forgotten]).catch(() => {});
      setForgotten(null);
      await readLibrary();
    },
    takeIn: async (file: File): Promise<void> => {
      const { readCardFile } = await import('../../../core/document/chapters/models/card-file.ts');
      const read = readCardFile(await file.text());
      if (!read.ok) return setTold({ isError: true, text: `${read.error.message} Nothing was imported.` });
      try {
        await keepCards(read.value);
        await readLibrary();
        setTold({ isError: false, text: `${sayMany(read.value.length, 'model card')} imported from ${file.name}.` });
      } catch {
        setTold({ isError: true, text: 'The browser’s storage is full or blocked. Nothing was imported.' });
      }
    },
  };
}
