import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue';

export type Network = 'full' | 'slow' | 'none';

/** What a framed page says: docs/handset.md. */
type Said = { handset: 'ready' } | { handset: 'network'; network: Network } | { handset: 'key'; key: string };

/**
 * Speaks with a page under test in the handset's frame, where it takes part: it is told which network it has, says that it
 * heard, and hands on the handset's own keys.
 *
 * @param page the window of the page, once it is there
 * @param origin where it lies; what comes from anywhere else is not listened to
 * @param pressed takes a key that was pressed in the page
 */
export function useFramedPage(
  page: () => Window | null | undefined,
  origin: () => string,
  pressed: (key: string) => void,
): {
  network: Ref<Network>;
  /** Whether the page said that its network is simulated. */
  takesPart: Ref<boolean>;
  /** Tells the page its network; resolves when it heard, or after a second. */
  tell: () => Promise<void>;
} {
  const network = ref<Network>('full');
  const takesPart = ref(false);
  let heard: (() => void) | undefined;
  const send = (what: Network): void => {
    // A page of another origin is not told: the browser drops the message.
    if (origin()) page()?.postMessage({ handset: 'network', network: what }, origin());
  };
  function tell(): Promise<void> {
    return new Promise((done) => {
      const patience = setTimeout(done, 1000);
      heard = () => {
        clearTimeout(patience);
        done();
      };
      send(network.value);
    });
  }
  function listen(event: MessageEvent<Said | undefined>): void {
    if (event.origin !== origin() || event.source !== page() || !event.data) return;
    if (event.data.handset === 'ready') send(network.value);
    else if (event.data.handset === 'key') pressed(event.data.key);
    else if (event.data.handset === 'network') {
      takesPart.value = true;
      if (event.data.network === network.value) heard?.();
    }
  }
  const heartbeat = setInterval(() => send(network.value), 4000);
  onMounted(() => window.addEventListener('message', listen));
  onBeforeUnmount(() => {
    clearInterval(heartbeat);
    window.removeEventListener('message', listen);
    send('full');
  });
  return { network, takesPart, tell };
}
