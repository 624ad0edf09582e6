<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { onBeforeUnmount, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { choose } from '@/areas/people/session';
import { canChange, exchanged, keyCap, keyHelp, keysOff } from '@/kit/keys';
import { preferences } from '@/kit/preferences';

/** The keys in force. One chooses a key and presses another: the two change places, for this person, on every device. */
const emit = defineEmits<{ close: [] }>();
const groups = keyHelp();
/** The key that is about to change, as pages name it. */
const changing = ref('');
/** What became of the last change, at the key that changed; '' for all keys. */
const said = ref<{ at: string; words: string } | null>(null);
const problem = ref<{ at: string; words: string } | null>(null);

/** Of two keys in a row the second changes. */
const lastOf = (keys: string): string => keys.split(' ').at(-1) ?? keys;
const capsOf = (keys: string): string[] => keyCap(keys).split(' ');

async function save(at: string, change: Api['PreferencesRequest'], words = ''): Promise<void> {
  said.value = problem.value = null;
  try {
    await choose(change);
    said.value = { at, words };
  } catch (e) {
    problem.value = { at, words: errorMessage(e) };
  }
}
function onKey(event: KeyboardEvent): void {
  if (changing.value === '' || ['Shift', 'AltGraph', 'Alt', 'Control', 'Meta'].includes(event.key)) return;
  event.preventDefault();
  event.stopPropagation();
  const named = changing.value;
  changing.value = '';
  if (event.key === 'Escape' || event.key === 'Tab' || event.key === keyCap(named)) return;
  if (canChange(event.key)) {
    const words = `${event.key} and ${keyCap(named)} have changed places, in every tip too.`;
    void save(named, { keys: exchanged(named, event.key) }, words);
  } else {
    const words = 'Only a key that writes one letter, digit or sign can be taken, and not "?".';
    problem.value = { at: named, words };
  }
}
const isOf = (keys: string[], at: string | undefined): boolean =>
  at !== undefined && at !== '' && keys.some((k) => lastOf(k) === at);
const CAPS: Record<string, string> = { ArrowDown: '↓', ArrowUp: '↑', ArrowLeft: '←', ArrowRight: '→' };
// Before the dialog, which Escape would close.
window.addEventListener('keydown', onKey, true);
onBeforeUnmount(() => window.removeEventListener('keydown', onKey, true));
</script>

<template>
  <Dialog
    visible
    modal
    dismissable-mask
    header="Keys"
    :style="{ width: '36rem' }"
    @update:visible="emit('close')"
  >
    <p class="soft small first">A key that does not suit your hand: choose it, then press another.</p>
    <section v-for="g in groups" :key="g.title">
      <h2>{{ g.title }}</h2>
      <dl>
        <template v-for="b in g.bindings" :key="b.label">
          <dt>
            <template v-for="k in b.keys.slice(0, 2)" :key="k">
              <button
                v-if="canChange(lastOf(k))"
                type="button"
                class="key"
                :aria-pressed="changing === lastOf(k)"
                @click="changing = changing === lastOf(k) ? '' : lastOf(k)"
              >
                <span class="unseen">{{ b.label }}: </span
                ><kbd v-for="cap in capsOf(k)" :key="cap">{{ cap }}</kbd
                ><span class="unseen">. Choose another key</span>
              </button>
              <kbd v-else>{{
                CAPS[k] ?? k.replace(/^Alt\+(Shift\+)?/, (alt) => alt.replaceAll('+', ' '))
              }}</kbd>
            </template>
          </dt>
          <dd>
            {{ b.label }}
            <span v-if="isOf(b.keys, changing)" class="asks"
              >Press the key you want, <kbd>Esc</kbd> leaves it</span
            >
            <span v-if="isOf(b.keys, problem?.at)" class="asks p-invalid-words" role="alert">{{
              problem?.words
            }}</span>
            <span v-else-if="isOf(b.keys, said?.at)" class="asks" role="status">{{ said?.words }}</span>
          </dd>
        </template>
      </dl>
    </section>
    <p v-if="preferences.keys.length > 0" class="row">
      <button type="button" class="link" @click="save('', { keys: [] })">All keys as they come</button>
    </p>
    <label class="off"
      ><input type="checkbox" :checked="!keysOff" @change="save('', { single_keys: keysOff })" /> Single keys
      act</label
    >
    <p v-if="problem?.at === ''" class="p-invalid-words" role="alert">{{ problem.words }}</p>
    <p class="row">
      <RouterLink to="/account#work">How you work</RouterLink>
      <RouterLink to="/words">Words used here</RouterLink>
      <RouterLink to="/docs">Documentation</RouterLink>
    </p>
  </Dialog>
</template>

<style scoped>
.first {
  margin-bottom: 14px;
}
section {
  margin-bottom: 18px;
}
h2 {
  margin-bottom: 6px;
}
dl {
  display: grid;
  grid-template-columns: 7rem 1fr;
  row-gap: 3px;
  align-items: center;
}
dt {
  display: flex;
  gap: 5px;
  align-items: center;
}
.key {
  display: flex;
  gap: 5px;
  align-items: center;
  min-width: 24px;
  min-height: 24px;
  padding: 0;
  background: none;
  border: 0;
  cursor: pointer;
}
.key:hover kbd,
.key[aria-pressed='true'] kbd {
  color: var(--ink);
  border-color: var(--ink);
}
.key[aria-pressed='true'] kbd {
  background: color-mix(in srgb, var(--lantern) 30%, var(--sheet));
}
.asks {
  display: block;
  font-size: 0.87rem;
}
.off {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 12px;
}
</style>
