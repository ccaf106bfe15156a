import { readFileSync } from 'node:fs';
import { ensureBuilt } from '../../scripts/ensure-built.mjs';

const SCRIPT = new URL('../fixtures/scripts/boot-room.json', import.meta.url);

/**
 * The page with eight stations is built for its test alone; and of the demo that all tests share, Boot room was reflashed
 * already: what is about reflashing it has a demo of its own.
 */
export default async function globalSetup(config) {
  ensureBuilt('house');
  const { inputs } = JSON.parse(readFileSync(SCRIPT, 'utf8'));
  const response = await fetch(`${config.projects[0].use.baseURL}/api/standin`, {
    method: 'POST',
    headers: { 'x-clear-tap': '1', 'Content-Type': 'application/json' },
    body: JSON.stringify({ host: '10.77.4.27', account: null, inputs }),
  });
  if (!response.ok) throw new Error(`Boot room was not reflashed: ${response.status}`);
}
