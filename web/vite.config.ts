import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  html: { cspNonce: '__CSP_NONCE__' },
  build: { assetsInlineLimit: 0, sourcemap: false, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } },
});
