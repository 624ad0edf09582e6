// Keeps the application itself on the device, so that it opens while the server is away. Data is not its job.
const SHELL = 'lucid-step-shell';

async function keep() {
  const cache = await caches.open(SHELL);
  const manifest = await (await fetch('/build/manifest.json', { cache: 'no-store' })).json();
  const wanted = new Set(['/mark.svg']);
  for (const entry of Object.values(manifest)) {
    for (const file of [entry.file, ...(entry.css ?? []), ...(entry.assets ?? [])])
      wanted.add(`/build/${file}`);
  }
  const missing = [];
  for (const path of wanted) if (!(await cache.match(path))) missing.push(path);
  // Several at once: whoever goes offline a moment after the first page has all of it.
  const take = async () => {
    for (let path = missing.shift(); path; path = missing.shift()) {
      const answer = await fetch(path, { cache: 'no-store' });
      if (!answer.ok) throw new Error(`${path} answered ${answer.status}`);
      await cache.put(path, answer);
    }
  };
  await Promise.all(Array.from({ length: 8 }, take));
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
self.addEventListener('message', (event) => {
  if (event.data === 'keep') event.waitUntil(keep().catch(() => undefined));
});
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
  if (event.request.mode === 'navigate') {
    if (!/^\/(api|up)(\/|$)/.test(url.pathname)) event.respondWith(page(event.request));
  } else if (url.pathname.startsWith('/build/') || url.pathname === '/mark.svg') {
    event.respondWith(caches.match(event.request).then((kept) => kept ?? fetch(event.request)));
  }
});
