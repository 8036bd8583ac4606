import { cpSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import vue from '@vitejs/plugin-vue';
import { defineConfig, type Plugin } from 'vite';

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** The fonts and character maps that documents without embedded ones need, beside the page. */
function documentResources(): Plugin {
  const pdfjs = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
  return {
    name: 'document-resources',
    apply: 'build',
    writeBundle: ({ dir }) => {
      for (const folder of ['standard_fonts', 'cmaps', 'wasm'])
        cpSync(join(pdfjs, folder), join(dir!, 'document', folder), { recursive: true });
    },
  };
}

export default defineConfig({
  root: at('.'),
  plugins: [vue(), tailwindcss(), documentResources()],
  build: {
    outDir: '../../dist/web',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1500,
    // The page of the kit is for development (`npm run dev`, then /kit.html) and for the tests.
    rollupOptions: { input: process.env.PANDECTA_KIT ? [at('index.html'), at('kit.html')] : at('index.html') },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4700' } },
});
