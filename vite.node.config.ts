import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** The server, the command line and the encoder's thread as plain JavaScript: they start without a transpiler. */
export default defineConfig({
  publicDir: false,
  // Bundled whole, but for what brings machine code or finds its own files.
  ssr: { noExternal: true, external: ['sharp', 'h264-mp4-encoder', 'vite', 'bufferutil', 'utf-8-validate'] },
  build: {
    ssr: true,
    outDir: here('./dist/node'),
    emptyOutDir: true,
    target: 'node20',
    minify: false,
    rollupOptions: {
      input: {
        cleartap: here('./src/cli/cleartap.ts'),
        server: here('./src/server/main.ts'),
        'xml-worker': here('./src/server/adapters/xml-worker.ts'),
        'encoder-worker': here('./src/standins/pictures/encoder-worker.ts'),
      },
      // Everything in one folder: a worker is started by its name beside the file that asks for it.
      output: { format: 'es', entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
});
