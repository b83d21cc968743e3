import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: 'es2023', chunkSizeWarningLimit: 600 },
  // The worker loads large libraries when it needs them.
  worker: { format: 'es' },
  server: {
    proxy: {
      '/api': 'http://127.0.0.1:4600',
      '/f': 'http://127.0.0.1:4600',
      '/forms': 'http://127.0.0.1:4600',
      '/in': 'http://127.0.0.1:4600',
    },
  },
});
