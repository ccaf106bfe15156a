import { ensureBuilt } from '../../scripts/ensure-built.mjs';

/** The page with eight stations is built for its test alone. */
export default function globalSetup() {
  ensureBuilt('house');
}
