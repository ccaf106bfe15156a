import type { ServerInfo } from '../../contract/server-info.ts';
import { ROUND } from './cameras/index.ts';
import { COST } from './cost/index.ts';
import { FAULTS } from './faults/index.ts';
import { LOGBOOK } from './logbook/index.ts';
import { NETWORK } from './network/index.ts';
import type { Place } from './place.ts';
import { PLAN } from './plan/index.ts';
import { SHEETS } from './sheets/index.ts';

/** The places of a site, as the bar shows them. Router, bar, finder and keys are made from this list. */
export const PLACES: readonly Place[] = [ROUND, PLAN, NETWORK, COST, LOGBOOK, FAULTS, SHEETS];

/** Those of this network; of the bar, those that do not stand aside. On a phone it has room for the site’s own. */
export const placesOf = (network: ServerInfo['network'] | null): readonly Place[] =>
  PLACES.filter(({ isOfDemo }) => !isOfDemo || network === 'simulated');
export const barPlaces = (network: ServerInfo['network'] | null): readonly Place[] =>
  placesOf(network).filter(({ isAside }) => !isAside);
