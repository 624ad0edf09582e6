// Takes part in the simulated handset (docs/handset.md). The frame that shows this page and the page say small messages to each
// other: the page is told which network it has, and says which keys were pressed that are the handset's.
const above = window.top;

function isTyping(target) {
  return target instanceof Element && target.closest('input, textarea, select, [contenteditable]') !== null;
}

if (above !== window) {
  const worker = navigator.serviceWorker?.register('sw.js').then(() => navigator.serviceWorker.ready);
  // Told before the frame has asked, the page knows nobody to answer: it says that it is there, and nothing else.
  above.postMessage({ handset: 'ready' }, '*');
  let origin = null;
  window.addEventListener('message', async (event) => {
    if (event.source !== above || event.data?.handset !== 'network') return;
    origin = event.origin;
    const network = event.data.network;
    const ready = await Promise.resolve(worker).catch(() => undefined);
    if (!ready?.active) return;
    ready.active.postMessage({ network });
    above.postMessage({ handset: 'network', network }, origin);
  });
  window.addEventListener('keydown', (event) => {
    if (origin === null || isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'h' || event.key === 'o') above.postMessage({ handset: 'key', key: event.key }, origin);
  });
}
