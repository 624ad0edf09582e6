// Makes the network of the page slow, or takes it away, while a simulated handset shows it. It is told anew every few seconds.
let network = { kind: 'full', at: 0 };

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
self.addEventListener('message', (event) => {
  network = { kind: event.data?.network ?? 'full', at: Date.now() };
});

const AWAY =
  '<!doctype html><html lang="en"><meta charset="utf-8"><title>No network</title><link rel="stylesheet" href="practice.css">' +
  '<main><h1>No network</h1><p>The handset has none: choose another above it.</p></main><script type="module" src="handset.js"></script>';

async function throughHandset(request) {
  if (network.kind === 'none') {
    // The page in place of the one asked for still hears when there is a network again.
    const headers = {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy': "default-src 'self'",
    };
    return request.mode === 'navigate' ? new Response(AWAY, { status: 503, headers }) : Response.error();
  }
  await new Promise((done) => setTimeout(done, request.mode === 'navigate' ? 1500 : 800));
  return fetch(request);
}

/** Whether a frame asks: it opens a page, or a page that it shows needs something. A window of its own has its own network. */
async function isFramed(event) {
  if (event.request.destination === 'iframe') return true;
  const client = event.clientId ? await self.clients.get(event.clientId) : undefined;
  return client?.frameType === 'nested';
}

self.addEventListener('fetch', (event) => {
  if (/\/(handset\.js|practice\.css)$/.test(new URL(event.request.url).pathname)) return;
  if (event.request.method !== 'GET' || network.kind === 'full' || Date.now() - network.at > 15_000) return;
  event.respondWith(
    isFramed(event).then((framed) => (framed ? throughHandset(event.request) : fetch(event.request))),
  );
});
