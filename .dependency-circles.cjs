const arrows = require('./.dependency-cruiser.cjs');

/** Circles between folders, tests left out: what a test asks is often asked through what stands above. */
module.exports = {
  forbidden: [
    {
      name: 'no-folder-circles',
      scope: 'folder',
      severity: 'error',
      from: { path: '^src/' },
      to: { circular: true },
    },
  ],
  options: { ...arrows.options, exclude: { path: '\\.test\\.tsx?$' } },
};
