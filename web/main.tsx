import { earlyReads } from './early';
import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-next/700.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/600.css';
import './app/app.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './app/App';
import { showLastLook } from './app/look';
import { router } from './app/router';
import { createQueryClient } from './app/queryClient';
import { keepProgram } from './offline/keepProgram';
import { keepReads } from './offline/keepReads';
import { renewWithNextPage } from './offline/renewal';

const root = document.getElementById('root');
if (!root) throw new Error('index.html has no #root');
showLastLook();
const client = createQueryClient();
// The name of the script changes with every build.
const build = import.meta.url;
await keepReads(client, build, earlyReads).catch((error: unknown) => {
  console.warn('What was read could not be kept on this device.', error);
});
void keepProgram();
renewWithNextPage(router, new URL(build).pathname, () => {
  window.location.reload();
});
createRoot(root).render(
  <StrictMode>
    <App client={client} />
  </StrictMode>,
);
