import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import type { Plugin } from 'vite';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { dropOlderAssets, listedFiles } from './scripts/lib/buildBefore.mjs';

const WEB = fileURLToPath(new URL('dist/web', import.meta.url));

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

/** Leaves the assets of the build before beside those of the new one. */
function keepBuildBefore(): Plugin {
  let before: readonly string[] = [];
  return {
    name: 'keep-build-before',
    apply: 'build',
    buildStart() {
      before = listedFiles(WEB);
    },
    closeBundle() {
      dropOlderAssets(WEB, before);
    },
  };
}

export default defineConfig({
  root: 'web',
  plugins: [
    react(),
    tailwindcss(),
    listOfFiles(),
    keepBuildBefore(),
    // What is served a thousand times is compressed once.
    compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(js|css|html|json|svg)$/ }),
  ],
  build: { outDir: WEB, emptyOutDir: false },
});
