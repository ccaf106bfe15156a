import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import node from './vite.node.config.ts';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** The bench as plain JavaScript, like what it measures: a transpiler at run time would be measured with it. */
export default defineConfig({
  ...node,
  // A browser driver finds its own files.
  ssr: {
    noExternal: true,
    external: ['sharp', 'h264-mp4-encoder', 'vite', 'bufferutil', 'utf-8-validate', '@playwright/test'],
  },
  build: {
    ...node.build,
    outDir: here('./dist/bench'),
    rollupOptions: {
      ...node.build?.rollupOptions,
      input: {
        run: here('./tests/bench/run.ts'),
        'media-source': here('./tests/bench/media-source.ts'),
        receiver: here('./tests/bench/receiver.ts'),
        leaks: here('./tests/bench/leaks.ts'),
        'onvif-source': here('./tests/bench/onvif-source.ts'),
        editor: here('./tests/bench/editor.ts'),
        'encoder-worker': here('./src/standins/pictures/encoder-worker.ts'),
      },
    },
  },
});
