import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const webPort = Number(process.env['WEB_PORT'] ?? 5173);
const apiUrl = process.env['API_URL'] ?? 'http://127.0.0.1:4180';

/** Its package gives bundlers the development build, whatever they build for: warnings that nobody reads on a page in use. */
const ROUTER = fileURLToPath(new URL('node_modules/react-router/dist/production/', import.meta.url));

/** Of the parts that are loaded when they are wanted. Charts and the editor are wanted by fewer. */
const MANY_PAGES = 10;

export default defineConfig(({ mode }) => ({
  root: 'src/web',
  publicDir: 'public',
  cacheDir: '../../node_modules/.vite',
  plugins: [react(), tailwindcss()],
  resolve: {
    alias:
      mode === 'production'
        ? [
            { find: /^react-router$/, replacement: `${ROUTER}index.mjs` },
            { find: /^react-router\/dom$/, replacement: `${ROUTER}dom-export.mjs` },
          ]
        : [],
  },
  build: {
    outDir: '../../dist/web',
    emptyOutDir: true,
    target: 'es2023',
    modulePreload: { polyfill: false },
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // All that the first page needs comes as one part, and as another what many pages do. By itself each module
            // comes apart that other pages share: 130 parts a page, a tenth more bytes once packed.
            { name: 'first', tags: ['$initial'], priority: 1 },
            { name: 'common', minShareCount: MANY_PAGES, maxModuleSize: 60_000 },
          ],
        },
      },
    },
  },
  server: {
    host: '127.0.0.1',
    port: webPort,
    strictPort: true,
    // A plain '/api' would also catch `/api.ts`, one of our own files.
    proxy: { '^/api/': { target: apiUrl } },
  },
}));
