import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** Fonts of the first view are asked for with the page, not once its styles were read. */
const fontsFirst: Plugin = {
  name: 'fonts-first',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((name) => /(bricolage|atkinson)[\w-]*-latin-wght-normal[\w-]*\.woff2$/.test(name))
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `/${name}`, crossorigin: true },
          injectTo: 'head-prepend' as const,
        })),
  },
};

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    tailwindcss(),
    fontsFirst,
    VitePWA({
      // The shell opens without the server; records never come from a browser's store.
      strategies: 'generateSW',
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Blunko',
        short_name: 'Blunko',
        description: 'The bench companion for makers of soft plastic baits.',
        display: 'standalone',
        background_color: '#0f181c',
        theme_color: '#16232a',
        icons: [{ src: '/favicon.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2,wasm}'],
        // The solver is loaded by the one tool that needs it.
        globIgnores: ['**/highs*.wasm'],
        maximumFileSizeToCacheInBytes: 3_000_000,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        inlineWorkboxRuntime: true,
        sourcemap: false,
      },
    }),
  ],
  build: {
    outDir: '../dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    // The 3D library alone is larger than the usual limit; it is loaded with the views that show a solid.
    chunkSizeWarningLimit: 700,
  },
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['highs', 'manifold-3d'] },
  server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:4870' } },
});
