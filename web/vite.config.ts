import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    VitePWA({
      // registered where somebody packs for a fair, not by every visit
      injectRegister: null,
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'serviceWorker.ts',
      injectManifest: { globPatterns: ['**/*.{html,js,css,woff2,svg,png}'] },
      manifest: {
        name: 'Jutbank',
        short_name: 'Jutbank',
        description: 'Which it is, when it was made, and the most to pay for it',
        start_url: '/fair',
        display: 'standalone',
        background_color: '#f4efe5',
        theme_color: '#f4efe5',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
    }),
    // once, as small as it gets, instead of anew for every visitor
    compression({ include: /\.(js|css)$/, algorithms: ['gzip', 'brotliCompress'] }),
  ],
  worker: { format: 'es' },
  html: { cspNonce: '__CSP_NONCE__' },
  build: { assetsInlineLimit: 0, sourcemap: false, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } },
});
