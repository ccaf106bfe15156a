/** What a step of the bench test is known as in the journal. */
export const benchQuantity = (itemId: string): string => `bench.${itemId}`;
