import localforage from 'localforage';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';

/** Model cards of the person, beyond any one site. */
const store = localforage.createInstance({ name: 'clear-tap', storeName: 'model-cards' });

export async function listCards(): Promise<readonly Model[]> {
  const { readCardFile, writeCardFile } = await import('../../../core/document/chapters/models/card-file.ts');
  const cards: Model[] = [];
  await store.iterate((value: Model) => {
    // A card that another version wrote, or that is damaged, is left lying and not shown.
    const read = readCardFile(writeCardFile([value]));
    if (read.ok) cards.push(...read.value);
  });
  return cards;
}

export async function keepCards(cards: readonly Model[]): Promise<void> {
  for (const card of cards) await store.setItem(card.id, card);
}
