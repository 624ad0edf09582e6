// Keeps the application itself on the device, so that it opens while the server is away. Data is not its job.
const SHELL = 'lucid-step-shell';

async function keep() {
  const cache = await caches.open(SHELL);
  const manifest = await (await fetch('/build/manifest.json', { cache: 'no-store' })).json();
  const wanted = new Set(['/mark.svg']);
  for (const entry of Object.values(manifest)) {
    for (const file of [entry.file, ...(entry.css ?? []), ...(entry.assets ?? [])]) wanted.add(`/build/${file}`);
  }
  for (const path of wanted) {
    if (await cache.match(path)) continue;
    const answer = await fetch(path, { cache: 'no-store' });
    if (!answer.ok) throw new Error(`${path} answered ${answer.status}`);
    await cache.put(path, answer);
  }
  // The page comes last: it names what was just kept. Cut off before, the old one stays, with all that it names.
  const shell = await fetch('/', { cache: 'no-store' });
  if (!shell.ok) throw new Error(`The page answered ${shell.status}`);
  await cache.put('/', shell);
  wanted.add('/');
  for (const request of await cache.keys()) {
    if (!wanted.has(new URL(request.url).pathname)) await cache.delete(request);
  }
}

self.addEventListener('install', (event) => event.waitUntil(keep().then(() => self.skipWaiting())));
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()));
// What the simulated handset's network is like; it is told anew every few seconds while a handset is open.
let network = { kind: 'full', at: 0 };
self.addEventListener('message', (event) => {
  if (event.data === 'keep') event.waitUntil(keep().catch(() => undefined));
  if (event.data?.kind === 'network') network = { kind: event.data.network, at: Date.now() };
});
async function throughHandset(request) {
  if (network.kind === 'none') return Response.error();
  await new Promise((done) => setTimeout(done, request.mode === 'navigate' ? 1500 : 800));
  return fetch(request);
}
/** Whether the handset's frame asks: it opens a page, or a page that it shows needs something. */
async function isHandset(event) {
  if (event.request.destination === 'iframe') return true;
  const client = event.clientId ? await self.clients.get(event.clientId) : undefined;
  return client?.frameType === 'nested';
}

async function page(request) {
  try {
    const answer = await fetch(request);
    if (answer.status < 500) return answer;
  } catch {
    // The server is away: the kept page takes over.
  }
  return (await caches.match('/')) ?? Response.error();
}

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (network.kind !== 'full' && Date.now() - network.at < 15_000 && /^\/practice(\/|$)/.test(url.pathname)) {
    event.respondWith(
      isHandset(event).then((inside) => (inside ? throughHandset(event.request) : fetch(event.request))),
    );
    return;
  }
  if (event.request.mode === 'navigate') {
    if (!/^\/(practice|api|up)(\/|$)/.test(url.pathname)) event.respondWith(page(event.request));
  } else if (url.pathname.startsWith('/build/') || url.pathname === '/mark.svg') {
    event.respondWith(caches.match(event.request).then((kept) => kept ?? fetch(event.request)));
  }
});
