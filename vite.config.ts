import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
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
