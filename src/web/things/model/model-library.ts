import localforage from 'localforage';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';

/** Model cards of the person, beyond any one site. */
const store = localforage.createInstance({ name: 'clear-tap', storeName: 'model-cards' });

const cardFile = () => import('../../../core/document/chapters/models/card-file.ts');

export async function listCards(): Promise<readonly Model[]> {
  const { readStoredCard } = await cardFile();
  const cards: Model[] = [];
  await store.iterate((value: unknown) => {
    // A card that a newer version wrote, or that is damaged, is left lying and not shown.
    const card = readStoredCard(value);
    if (card) cards.push(card);
  });
  return cards;
}

export async function keepCards(cards: readonly Model[]): Promise<void> {
  const { storedCard } = await cardFile();
  for (const card of cards) await store.setItem(card.id, storedCard(card));
}

export const forgetCard = (id: string): Promise<void> => store.removeItem(id);
