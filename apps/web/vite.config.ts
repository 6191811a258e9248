import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react-swc';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [
    react({
      plugins: [['@lingui/swc-plugin', { useLinguiV5IdGeneration: true, descriptorFields: 'message' }]],
    }),
    tailwindcss(),
  ],
  resolve: {
    alias: [
      {
        find: /^@goodword\/core\/(.*)$/,
        replacement: fileURLToPath(new URL('../../packages/core/src/$1/index.ts', import.meta.url)),
      },
    ],
  },
  build: { outDir: 'dist/app', target: 'es2022', chunkSizeWarningLimit: 700 },
  worker: { format: 'es' },
});
