import { defineConfig } from 'vite';

/** The server and its commands, bundled for Node; packages stay in node_modules. */
export default defineConfig({
  build: {
    ssr: true,
    outDir: 'dist/server',
    emptyOutDir: true,
    target: 'node20',
    rolldownOptions: {
      input: {
        main: 'server/main.ts',
        printWorker: 'server/print/printWorker.ts',
        calc: 'calc/commands/calc.ts',
        reproduce: 'calc/commands/reproduce.ts',
        vectors: 'calc/commands/vectors.ts',
        verify: 'calc/commands/verify.ts',
        measureCore: 'calc/commands/measureCore.ts',
        acceptBreak: 'server/commands/acceptBreak.ts',
        audit: 'server/commands/audit.ts',
        prepare: 'server/commands/prepare.ts',
        measureFold: 'server/commands/measureFold.ts',
        measureCertificate: 'server/commands/measureCertificate.ts',
        record: 'server/commands/record.ts',
        rebuild: 'server/commands/rebuild.ts',
        demo: 'demo/load.ts',
      },
    },
  },
});
