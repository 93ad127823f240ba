import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';
import { type Plugin } from 'vite';
import { defineConfig } from 'vitest/config';
import { paper as colour } from './src/theme/tokens';

/** The page itself, so that it opens where there is no network. It needs an address a browser trusts. */
const installed = VitePWA({
  // a new version waits until somebody takes it, or until a page is opened anew
  registerType: 'prompt',
  injectRegister: false,
  manifest: {
    name: 'Knollfield',
    short_name: 'Knollfield',
    description: 'Timing belt and chain work: due, built, booked, done.',
    display: 'standalone',
    start_url: '/jobs',
    theme_color: colour.paper,
    background_color: colour.paper,
    icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
  },
  manifestFilename: 'manifest.json',
  workbox: {
    globPatterns: ['**/*.{html,js,css,svg,woff2}'],
    globIgnores: ['answer.html'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /^\/answer\//],
    cleanupOutdatedCaches: true,
    runtimeCaching: [
      {
        // a picture of a card never changes; they are read ahead with their cards
        urlPattern: /\/api\/jobs\/\d+\/card\/photos\/\d+\.jpg$/,
        handler: 'CacheFirst',
        options: {
          cacheName: 'card-pictures',
          expiration: { maxEntries: 300, maxAgeSeconds: 48 * 3600, purgeOnQuotaError: true },
        },
      },
    ],
  },
});

/** The owner's page has no script that could publish them. */
const tokensWithoutScript: Plugin = {
  name: 'tokens-without-script',
  transformIndexHtml: {
    handler: (_, page) =>
      page.filename.endsWith('answer.html')
        ? [
            {
              tag: 'style',
              children: `:root{${Object.entries(colour)
                .map(([name, value]) => `--${name}:${value}`)
                .join(';')}}`,
              injectTo: 'head',
            },
          ]
        : [],
  },
};

export default defineConfig({
  plugins: [react(), installed, tokensWithoutScript],
  // what a tablet kept for another build is not read: its answers may have looked different
  define: { __BUILD__: JSON.stringify(Date.now().toString(36)) },
  build: {
    outDir: 'target/site',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    rollupOptions: { input: ['index.html', 'answer.html'] },
  },
  server: { proxy: { '/api': 'http://localhost:8080' } },
  test: {
    environment: 'jsdom',
    setupFiles: './src/test/setup.ts',
    include: ['src/**/*.test.{ts,tsx}'],
    // one page for all files: making it anew for each took five sixths of the time
    isolate: false,
    // two busy cores may take their time; a right answer is right however late
    testTimeout: 30_000,
  },
});
