<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, shallowRef } from 'vue';
import { forwardKeys } from './keys';

/**
 * A small window over the application under test: always on top where the browser can do that, else a small window of its
 * own. It is drawn by the same page, so it is never out of step with it.
 */
defineProps<{ of: string; title: string }>();
interface PictureInPicture {
  requestWindow(options: { width: number; height: number }): Promise<Window>;
}
const home = shallowRef<HTMLElement | null>(null);
const onTop = ref(false);
const problem = ref('');
let small: Window | null = null;
let release: (() => void) | null = null;

/** Must be called by a click or a key: browsers open windows for nothing else. */
async function open(): Promise<void> {
  problem.value = '';
  if (small && !small.closed) return small.focus();
  const pip = (window as { documentPictureInPicture?: PictureInPicture }).documentPictureInPicture;
  const size = { width: 420, height: 620 };
  try {
    if (pip) {
      small = await pip.requestWindow(size);
      onTop.value = true;
    } else {
      small = window.open('', 'lucid-step-companion', `popup,width=${size.width},height=${size.height}`);
      onTop.value = false;
    }
  } catch {
    small = window.open('', 'lucid-step-companion', `popup,width=${size.width},height=${size.height}`);
    onTop.value = false;
  }
  if (!small) {
    problem.value = 'The browser did not open the small window. Allow windows for this page and try again.';
    return;
  }
  const { document: inside } = small;
  inside.title = 'Lucid Step, companion';
  inside.documentElement.lang = 'en';
  Object.assign(inside.documentElement.dataset, document.documentElement.dataset);
  for (const sheet of document.querySelectorAll('style, link[rel=stylesheet]'))
    inside.head.append(sheet.cloneNode(true));
  inside.body.replaceChildren();
  const main = inside.createElement('main');
  inside.body.append(main);
  home.value = main;
  release = forwardKeys(small);
  small.addEventListener('pagehide', gone);
  await nextTick();
  small.focus();
}
function gone(): void {
  release?.();
  release = null;
  home.value = null;
  small = null;
}
function close(): void {
  small?.close();
  gone();
}
onBeforeUnmount(() => {
  if (small) close();
});
defineExpose({ open, close, isOpen: computed(() => home.value !== null), problem });
</script>

<template>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  <Teleport v-if="home" :to="home">
    <div class="small-window">
      <div class="row top">
        <span class="mono soft">{{ of }}</span>
        <h1 class="long">{{ title }}</h1>
      </div>
      <slot />
      <p v-if="!onTop" class="small soft">
        This browser cannot keep the window on top; put it beside the application.
      </p>
    </div>
  </Teleport>
</template>

<style scoped>
.small-window {
  padding: 10px 14px 14px;
  display: grid;
  gap: 6px;
}
h1 {
  font: inherit;
  font-weight: 700;
}
.top {
  align-items: baseline;
  flex-wrap: nowrap;
}
</style>
