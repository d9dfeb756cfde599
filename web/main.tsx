import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-next/700.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/600.css';
import './app/app.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App';
import { createQueryClient } from './app/queryClient';
import { keepProgram } from './offline/keepProgram';
import { keepReads } from './offline/keepReads';

/** By then the page that was asked for stands. */
const KEEP_AFTER_MS = 1_500;

const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
const client = createQueryClient();
// The name of the script changes with every build.
const build = import.meta.url;
await keepReads(client, build).catch((error: unknown) => {
  console.warn('What was read could not be kept on this device.', error);
});
// The page that is wanted now comes first; the rest of the program is kept after it.
setTimeout(() => void keepProgram(), KEEP_AFTER_MS);
createRoot(root).render(
  <StrictMode>
    <App client={client} />
  </StrictMode>,
);
