const CACHE = 'vine-measure';

/** By then the page that was asked for stands. */
const KEEP_AFTER_MS = 1_500;

/**
 * Makes the program open without the server: the service worker answers from this cache, and the list of the
 * build's files says what belongs into it. Fails quietly: online everything works without it.
 */
export async function keepProgram(): Promise<void> {
  if (!('serviceWorker' in navigator)) return;
  try {
    await navigator.serviceWorker.register('/service-worker.js');
    // The page that is wanted now comes first; the rest of the program is fetched after it.
    await new Promise((resolve) => setTimeout(resolve, KEEP_AFTER_MS));
    const answer = await fetch('/files.json', { cache: 'no-store' });
    const files = new Set((await answer.json()) as readonly string[]);
    const cache = await caches.open(CACHE);
    const kept = await cache.keys();
    const paths = new Set(kept.map((request) => new URL(request.url).pathname));
    await cache.addAll([...files].filter((path) => path === '/' || !paths.has(path)));
    for (const request of kept) {
      if (!files.has(new URL(request.url).pathname)) await cache.delete(request);
    }
  } catch (error) {
    console.warn('The program could not be kept for work without the server.', error);
  }
}
