/** A document as JSON gives it, of a version that its step knows. */
export type OldDocument = Readonly<Record<string, unknown>>;
/** One step forward: a document of one version becomes one of the next. It is frozen; what it knows is told in it. */
export type Migration = (document: OldDocument) => OldDocument;

/**
 * Brings a document forward step by step.
 * @param steps by the version they start from
 */
export function migrate(
  document: OldDocument,
  from: number,
  to: number,
  steps: Readonly<Record<number, Migration>>,
): OldDocument {
  let current = document;
  for (let version = from; version < to; version++) current = steps[version]?.(current) ?? current;
  return current;
}

/** Each item of a list changed; what is no list, and no item, is left for the shape to refuse by its path. */
export const eachOf = (items: unknown, change: (item: OldDocument) => OldDocument): unknown =>
  Array.isArray(items) ? items.map((item: unknown) => (isDocument(item) ? change(item) : item)) : items;

export const isDocument = (value: unknown): value is OldDocument =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
