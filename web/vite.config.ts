import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { coasts } from './coasts';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  plugins: [tailwindcss(), svelte(), coasts()],
  build: { target: 'es2023', outDir: '../internal/webui/dist', emptyOutDir: true, assetsInlineLimit: 0 },
  server: { host: '127.0.0.1', proxy: { '/api': { target: 'http://127.0.0.1:8146', changeOrigin: false } } },
  resolve: {
    alias: { $lib: here('./src/lib'), $parts: here('./src/parts'), $session: here('./src/session') },
    ...(process.env.VITEST ? { conditions: ['browser'] } : {}),
  },
  test: { environment: 'node', include: ['src/**/*.test.ts'], setupFiles: ['src/lib/testing/setup.ts'] },
});
