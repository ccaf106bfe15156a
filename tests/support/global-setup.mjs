import { ensureBuilt } from '../../scripts/ensure-built.mjs';

/** The programs under dist/ are tested as they are shipped, so they are built first. */
export default function globalSetup() {
  ensureBuilt('web', 'node');
}
