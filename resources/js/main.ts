import { QueryCache, QueryClient, VueQueryPlugin } from '@tanstack/vue-query';
import '@/areas/sessions/commands';
import '@/areas/walk/commands';
import PrimeVue from 'primevue/config';
import { createApp } from 'vue';
import App from './App.vue';
import { Problem } from '@/api/client';
import { refreshSession } from '@/areas/people/session';
import { showKeptLook } from '@/kit/preferences';
import { theme } from '@/kit/theme';
import { router } from './router';

showKeptLook();
const queries = new QueryClient({
  queryCache: new QueryCache({
    // A project asks for a second factor since a moment ago: it says so as a whole.
    onError: (e) => void (e instanceof Problem && e.kind === 'second-factor-missing' && refreshSession()),
  }),
  defaultOptions: {
    queries: {
      staleTime: 5000,
      networkMode: 'always',
      retry: (count, error) => count < 2 && !(error instanceof Problem),
      refetchOnWindowFocus: true,
    },
    mutations: { networkMode: 'always' },
  },
});

createApp(App)
  .use(router)
  .use(VueQueryPlugin, { queryClient: queries })
  .use(PrimeVue, { theme: { preset: theme, options: { darkModeSelector: 'system', cssLayer: false } } })
  .mount('#app');

// A page that was opened before an update asks for parts that are gone. The new page takes over, at the same place and with
// all that was typed; not where the server is away, and not again and again.
const RENEWED = 'lucid-step-renewed';
window.addEventListener('vite:preloadError', () => {
  if (Date.now() - Number(sessionStorage.getItem(RENEWED) ?? 0) < 60_000) return;
  sessionStorage.setItem(RENEWED, String(Date.now()));
  fetch('/build/manifest.json', { cache: 'no-store' }).then(
    (answer) => answer.ok && location.reload(),
    () => undefined,
  );
});

if ('serviceWorker' in navigator) {
  void navigator.serviceWorker
    .register('/sw.js')
    .then(() => navigator.serviceWorker.ready)
    .then((ready) => ready.active?.postMessage('keep'))
    .catch(() => undefined);
}
