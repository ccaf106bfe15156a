import { eachOf, isDocument, type Migration, type OldDocument } from './migrate.ts';

/** A card of version 5 of a site, and of version 1 of a file of cards: paths were not on it, and what is lost not asked. */
export const cardTo6 = (card: OldDocument): OldDocument => ({
  ...card,
  path: '',
  rtspPort: null,
  subs: eachOf(card.subs, (sub) => ({ ...sub, path: '' })),
  // An empty list was written where nobody had looked, and where nothing is lost: it tells nothing.
  lostWithoutAccount:
    Array.isArray(card.lostWithoutAccount) && card.lostWithoutAccount.length === 0 ? null : card.lostWithoutAccount,
});

const withoutPrices = { 'network-cable': null, pair: null, usb: null, fibre: null };

/** 6: what a destination takes and counts, what things cost, which channel a camera is, a length that nobody typed. */
export const to6: Migration = (document) => {
  const { costing } = document;
  return {
    ...document,
    version: 6,
    gear: eachOf(document.gear, (gear) => ({ ...gear, price: null })),
    plan: isDocument(document.plan)
      ? { ...document.plan, walls: eachOf(document.plan.walls, (wall) => ({ ...wall, name: '' })), northDeg: null }
      : document.plan,
    links: eachOf(document.links, (link) => ({
      ...link,
      name: '',
      lengthM: link.medium === 'wifi' ? null : link.lengthM,
    })),
    models: eachOf(document.models, cardTo6),
    cameras: eachOf(document.cameras, ({ feed, ...camera }) => ({
      ...camera,
      channel: null,
      feed:
        isDocument(feed) && isDocument(feed.sun)
          ? { ...feed, sun: { ...feed.sun, panelPrice: null, batteryPrice: null } }
          : feed,
      memoryCard: null,
    })),
    destinations: eachOf(document.destinations, ({ storage, ...destination }) => ({
      ...destination,
      protocols: [],
      largest: null,
      mostFps: null,
      mostKbps: null,
      decodes: null,
      seats: null,
      storage: isDocument(storage) ? { ...storage, price: null } : storage,
    })),
    costing: isDocument(costing)
      ? {
          ...costing,
          perMetre: withoutPrices,
          options: eachOf(costing.options, (option) => ({
            ...option,
            destinationId: null,
            lines: eachOf(option.lines, (line) => ({ ...line, of: null })),
          })),
        }
      : costing,
  };
};
