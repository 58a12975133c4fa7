import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

const routerBuild = fileURLToPath(new URL('node_modules/react-router/dist/production/index.mjs', import.meta.url));

/** Fonts of the first view are asked for with the page, not once its styles were read. */
const fontsFirst: Plugin = {
  name: 'fonts-first',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((name) =>
          /(bricolage-grotesque-latin-700|atkinson-hyperlegible-next-latin-400|martian-mono-latin-700)-normal[\w-]*\.woff2$/.test(
            name,
          ),
        )
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `/${name}`, crossorigin: true },
          injectTo: 'head-prepend' as const,
        })),
  },
};

/** What every page stands on. */
const FRAME =
  /\/node_modules\/(react|react-dom|scheduler|react-router|@tanstack\/(react-query|query-core)|uuid)\/|\/web\/api\/(queries|client|stale|first)\.|\/contract\/first\.|\/core\/defaults\./;
/** What stands at the cup, on the bench and where colour is dosed. */
const AT_THE_CUP =
  /\/web\/(places\/pours\/(AskedAtTheCup|Bench|CupCurve|CupSide|Keypad|Lane|NextCard|cupState|useAtTheCup|GradeDialog|partText)|parts\/(DoseBoard|ScaledRecipe))|\/core\/plastisol\/(cup|recipe)\.|\/contract\/(fields|pours|recipes|blend)\.|\/core\/(process\/(next|waits)|heat\/window)\./;

/** What Today and the cup draw with. */
const DRAWN =
  /\/web\/parts\/(BaitShape|CavityMap|Graduated|Glass|MoldBlock|Puck|hours|grades)\.|\/core\/(rounding|yield\/grades)\./;
const DATES = /\/node_modules\/date-fns\/|\/web\/parts\/dates\./;

export default defineConfig({
  root: 'web',
  resolve: {
    // Its package names the development build for everybody, with warnings and all.
    alias: [{ find: /^react-router$/, replacement: routerBuild }],
  },
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
    // The server reads from it which parts a page needs.
    manifest: true,
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    // The 3D library alone is larger than the usual limit; it is loaded with the views that show a solid.
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        codeSplitting: {
          includeDependenciesRecursively: false,
          // Few files for the first views: each costs slow Wi-Fi another way there and back.
          groups: [
            { name: 'frame', test: FRAME },
            { name: 'cup', test: AT_THE_CUP },
            { name: 'drawn', test: DRAWN },
            { name: 'dates', test: DATES },
          ],
        },
      },
    },
  },
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['highs', 'manifold-3d'] },
  server: { port: 5173, proxy: { '/api': 'http://127.0.0.1:4870' } },
});
