// Opens the program when the server is away. What is kept is decided by web/offline/keepProgram.ts.
const CACHE = 'vine-measure';
const PATIENCE_MS = 4_000;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));

self.addEventListener('fetch', (event) => {
  const { pathname, origin } = new URL(event.request.url);
  if (origin !== self.location.origin || event.request.method !== 'GET') return;
  if (pathname.startsWith('/api/')) return;
  if (event.request.mode === 'navigate') event.respondWith(page(event.request));
  else if (pathname.startsWith('/assets/')) event.respondWith(file(event.request));
});

/** The page as the server has it; as it was kept when the server is away or does not answer. */
async function page(request) {
  const kept = async () => (await caches.open(CACHE)).match('/');
  try {
    return await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) });
  } catch {
    return (await kept()) ?? Response.error();
  }
}

/** A file of the build never changes under its name. */
async function file(request) {
  const kept = await (await caches.open(CACHE)).match(request);
  return kept ?? fetch(request);
}
