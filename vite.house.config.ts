import { fileURLToPath } from 'node:url';
import { mergeConfig, type Plugin } from 'vite';
import page from './vite.config.ts';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** The registries of stations, chapters and steps, the version, and what stands in their place: nothing else is touched. */
const REPLACED = new Map([
  [here('./src/core/stations/registry.ts'), here('./tests/fixtures/house/stations.ts')],
  [here('./src/core/document/chapters/registry.ts'), here('./tests/fixtures/house/chapters.ts')],
  [here('./src/core/document/chapters/shapes.ts'), here('./tests/fixtures/house/shapes.ts')],
  [here('./src/core/document/version.ts'), here('./tests/fixtures/house/version.ts')],
  [here('./src/core/document/migrations/registry.ts'), here('./tests/fixtures/house/migrations.ts')],
  [here('./src/web/stations/registry.ts'), here('./tests/fixtures/house/pages.tsx')],
]);

const movedIn: Plugin = {
  name: 'four more stations and a chapter',
  enforce: 'pre',
  async resolveId(source, importer, options) {
    if (!importer || importer.includes('/tests/fixtures/')) return null;
    const resolved = await this.resolve(source, importer, { ...options, skipSelf: true });
    return (resolved && REPLACED.get(resolved.id)) ?? null;
  },
};

/** The page with eight stations and one more chapter, for the test that there is room for them; it does not ship. */
export default mergeConfig(page, {
  plugins: [movedIn],
  worker: { plugins: () => [movedIn] },
  build: { outDir: here('./dist/house') },
});
