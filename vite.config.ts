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
    // After the files that only name others have been dropped.
    enforce: 'post',
    generateBundle(_options, bundle) {
      const files = ['/', '/mark.svg', ...Object.keys(bundle).map((file) => `/${file}`)];
      const source = JSON.stringify(files.filter((file) => file !== '/index.html'));
      this.emitFile({ type: 'asset', fileName: 'files.json', source });
    },
  };
}

/** Has a browser fetch what every page shares beside the frame, and not after it. */
function fetchParts(): Plugin {
  return {
    name: 'fetch-parts',
    transformIndexHtml: {
      order: 'post',
      handler: (_html, { bundle = {} }) => {
        const files = Object.values(bundle).flatMap((output) =>
          output.type === 'chunk' && output.name === 'parts'
            ? [output.fileName, ...output.imports]
            : [],
        );
        return files.map((file) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
          injectTo: 'head',
        }));
      },
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
    fetchParts(),
    listOfFiles(),
    keepBuildBefore(),
    // What is served a thousand times is compressed once.
    compression({ algorithms: ['brotliCompress', 'gzip'], include: /\.(js|css|html|json|svg)$/ }),
  ],
  build: {
    outDir: WEB,
    emptyOutDir: false,
    // A browser waits for each file by itself: the frame of every page is one, and small parts that pages share lie together.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'frame', tags: ['$initial'] },
            // What brings fields with parts of their own stays apart from it.
            {
              name: 'parts',
              test: /\/web\/(ui|app)\/(?!.*(Date|Choice)Field|choices)/,
              minShareCount: 2,
              includeDependenciesRecursively: false,
            },
          ],
        },
      },
    },
  },
});
