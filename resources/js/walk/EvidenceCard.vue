<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { computed, onBeforeUnmount, ref } from 'vue';
import { exact, when } from '@/kit/words';
import { outbox } from './outbox';
import type { WalkEvidence } from './acts';
import type { Walk } from './useWalk';

const props = defineProps<{ item: WalkEvidence; walk?: Walk; locked: boolean; small?: boolean }>();
const isPicture = computed(() => props.item.media_type.startsWith('image/'));
const localUrl = props.item.local && isPicture.value ? URL.createObjectURL(props.item.local) : null;
const source = computed(() => localUrl ?? props.item.thumbnail_url);
const whole = computed(() => localUrl ?? props.item.url);
const full = ref(false);
const editing = ref(false);
const caption = ref('');
const state = computed(() =>
  props.item.refused
    ? 'Refused'
    : props.item.local
      ? outbox.state.awaySince
        ? 'Waiting'
        : 'Sending'
      : 'Saved',
);
onBeforeUnmount(() => {
  if (localUrl) setTimeout(() => URL.revokeObjectURL(localUrl), 2000);
});

function edit(): void {
  caption.value = props.item.caption;
  editing.value = true;
}
async function save(): Promise<void> {
  if (!editing.value) return;
  editing.value = false;
  const now = caption.value.trim();
  if (now !== props.item.caption) await props.walk?.act({ kind: 'caption', id: props.item.id, caption: now });
}
async function remove(): Promise<void> {
  const own = outbox.acts.find((a) => a.deed.kind === 'evidence' && a.deed.id === props.item.id);
  if (own?.refused !== undefined) await outbox.drop(own);
  else await props.walk?.act({ kind: 'remove', id: props.item.id });
}
</script>

<template>
  <figure :class="{ small, refused: item.refused }">
    <button
      v-if="isPicture && source"
      type="button"
      class="picture"
      :title="`Look at ${item.name}`"
      @click="full = true"
    >
      <img :src="source" :alt="item.caption || item.name" loading="lazy" />
    </button>
    <a v-else-if="item.url" class="file" :href="item.url" :download="item.name">{{ item.name }}</a>
    <span v-else class="file">{{ item.name }}</span>
    <figcaption>
      <form v-if="editing" class="caption" @submit.prevent="save">
        <input
          v-model="caption"
          maxlength="500"
          :aria-label="`Caption of ${item.name}`"
          autofocus
          @blur="save"
          @keydown.esc.stop="editing = false"
        />
      </form>
      <button
        v-else-if="!locked && !item.refused"
        type="button"
        class="words"
        title="Change the caption"
        @click="edit"
      >
        {{ item.caption || item.name }}<span class="soft">, {{ when(item.created_at) }}</span>
      </button>
      <span v-else class="words" :title="exact(item.created_at)"
        >{{ item.caption || item.name }}<span class="soft">, {{ when(item.created_at) }}</span></span
      >
      <span class="state" :class="{ bad: item.refused }"
        ><svg v-if="state === 'Saved'" width="10" height="10" viewBox="0 0 12 12" aria-hidden="true">
          <path d="M1.5 6.5 4.6 9.6 10.5 2.6" fill="none" stroke="currentColor" stroke-width="2" />
        </svg>
        {{ state }}</span
      >
      <button
        v-if="!locked"
        type="button"
        class="remove"
        :aria-label="`Remove ${item.name}`"
        title="Remove"
        @click="remove"
      >
        Remove
      </button>
    </figcaption>
    <p v-if="item.refused" class="p-invalid-words" role="alert">{{ item.refused }}</p>
    <Dialog
      v-if="full"
      visible
      modal
      dismissable-mask
      :header="item.caption || item.name"
      :style="{ width: '92vw', maxWidth: '1400px' }"
      @update:visible="full = false"
      ><img class="whole" :src="whole" :alt="item.caption || item.name"
    /></Dialog>
  </figure>
</template>

<style scoped>
figure {
  min-width: 0;
}
.picture {
  display: block;
  width: 100%;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 6px;
  overflow: hidden;
  background: var(--well);
  cursor: zoom-in;
}
.picture img {
  display: block;
  width: 100%;
  max-height: 220px;
  object-fit: cover;
  object-position: top left;
}
.small .picture img {
  height: 84px;
}
.file {
  display: block;
  border: 1px solid var(--edge);
  border-radius: 6px;
  padding: 8px 10px;
  font-family: var(--mono);
  font-size: 0.87rem;
  overflow-wrap: anywhere;
}
figcaption {
  display: flex;
  gap: 10px;
  align-items: baseline;
  font-size: 0.87rem;
  margin-top: 3px;
}
.words {
  flex: 1;
  min-width: 0;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  padding: 0;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
button.words {
  cursor: text;
}
.caption {
  flex: 1;
}
.caption input {
  width: 100%;
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 1px 6px;
}
.state {
  color: var(--ink-soft);
  white-space: nowrap;
}
.state.bad {
  color: var(--ink);
  font-weight: 700;
}
.remove {
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  padding: 0;
  cursor: pointer;
  text-decoration: underline;
}
.small:not(.refused) .state,
.small:not(.refused) .remove {
  display: none;
}
.whole {
  max-width: 100%;
  display: block;
  margin: 0 auto;
}
</style>
