import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import type { Plugin } from 'vite';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

/** Lists the files of the build, for the browser to keep. */
function listOfFiles(): Plugin {
  return {
    name: 'list-of-files',
    generateBundle(_options, bundle) {
      const files = ['/', '/mark.svg', ...Object.keys(bundle).map((file) => `/${file}`)];
      const source = JSON.stringify(files.filter((file) => file !== '/index.html'));
      this.emitFile({ type: 'asset', fileName: 'files.json', source });
    },
  };
}

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    tailwindcss(),
    listOfFiles(),
    // What is served a thousand times is compressed once.
    compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(js|css|html|json|svg)$/ }),
  ],
  build: { outDir: '../dist/web', emptyOutDir: true },
});
