// What has to do with what changed since a commit: for work in hand. Says what it left out.
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../ensure-installed.mjs';

/** Browser tests of a part of the page, and of what it is reckoned from: by the beginning of a path. */
const SPECS = [
  [/^src\/(web|core)\/stations\/choose\//, ['choose', 'planning']],
  [/^src\/(web|core)\/(stations\/power|power|radio)\//, ['planning']],
  [/^src\/(web|core)\/(stations\/prepare|firmware|handset)\//, ['prepare', 'reflash']],
  [/^src\/(web|core)\/(stations\/address|places\/network|net|scan)\//, ['network']],
  [
    /^src\/(web|core)\/stations\/tap\/|^src\/core\/(rtsp|rtp|sdp|probe|diagnosis|live|video|audio)\//,
    ['main-path', 'old-box'],
  ],
  [/^src\/(web|core)\/stations\/tap\/(onvif|steer)|^src\/core\/(onvif|ptz|talk)\//, ['onvif']],
  [/^src\/(web|core)\/(stations\/hand-over|places\/sheets|handover)\//, ['main-path']],
  [/^src\/(web|core)\/places\/(plan|cost)\/|^src\/core\/(optics|cost|storage)\//, ['planning']],
  [/^src\/(web|core)\/places\/faults\/|^src\/core\/gallery\//, ['faults']],
  [
    /^src\/web\/(places\/(round|logbook)|shell|things|ui)\/|^src\/core\/(lanes|imports)\//,
    ['everywhere', 'edits', 'things', 'import'],
  ],
  [/^src\/web\/(store|workers)\/|^src\/core\/document\//, ['store', 'things']],
  [/^src\/web\/vault\/|^src\/core\/auth\//, ['vault', 'passwords']],
  [/^src\/web\/(api|main|router)/, ['everywhere']],
];
/** What is tried on real sockets. */
const BEHIND_SOCKETS =
  /^src\/(server|cli|standins)\/|^src\/core\/(rtsp|rtp|onvif|http|talk|scan|sessions|live|probe|machine)\/|^tests\/support\//;

function git(...args) {
  const { status, stdout, stderr } = spawnSync('git', args, { cwd: root, encoding: 'utf8' });
  if (status !== 0) {
    console.error(`--since: git ${args[0]} failed: ${stderr.trim()}`);
    process.exit(2);
  }
  return stdout.split('\n').filter((line) => line !== '');
}

/** @param {string} ref the commit that the work in hand began from */
export function partOf(ref) {
  const base = git('merge-base', ref, 'HEAD')[0];
  const changed = [
    ...new Set([...git('diff', '--name-only', base), ...git('ls-files', '--others', '--exclude-standard')]),
  ];
  const files = changed.filter((name) => /\.(tsx?|mjs|cjs|json|css|md)$/.test(name) && existsSync(join(root, name)));
  const sources = files.filter((name) => /^(src|tests)\/.*\.tsx?$/.test(name) && !name.startsWith('tests/e2e/'));
  const named = (pattern) => files.filter((name) => pattern.test(name));
  const specs = new Set(named(/^tests\/e2e\/.*\.spec\.ts$/));
  for (const [pattern, names] of SPECS)
    if (sources.some((name) => pattern.test(name) && !name.includes('.test.')))
      for (const name of names) specs.add(`tests/e2e/${name}.spec.ts`);
  const behindSockets = sources.filter((name) => BEHIND_SOCKETS.test(name));
  const sockets =
    behindSockets.length > 0
      ? ['--findRelatedTests', ...behindSockets, '--testPathPatterns', 'tests/integration']
      : named(/^tests\/integration\//);
  return {
    files,
    sources,
    sockets,
    specs: [...specs],
    leftOut: [
      `what none of the ${changed.length} changed files leads to`,
      'layers, circles, unused exports and vectors',
      sockets.length > 0 ? 'socket tests of what did not change' : 'all socket tests',
      specs.size > 0
        ? `browser tests but ${[...specs].map((name) => name.replace(/.*\/|\.spec\.ts/g, '')).join(', ')}`
        : 'all browser tests',
    ],
  };
}
