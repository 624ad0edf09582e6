<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue';
import { vFocus } from '@/kit/focus';
import { exact, sizeWords, when } from '@/kit/words';
import { outbox } from '@/offline/outbox';
import type { Markup } from '@/areas/evidence/types';
import type { WalkEvidence } from '@/areas/walk/types';
import type { Walk } from '@/areas/walk/useWalk';

/** A piece of evidence with its state: shown the instant it is taken, drawn on, compared, moved, taken off. */
const props = defineProps<{
  item: WalkEvidence;
  walk?: Walk;
  locked: boolean;
  small?: boolean;
  /** Reference pictures of its step, to compare with. */
  references?: { sha256: string; name: string }[];
  project?: string;
}>();
const MarkUp = defineAsyncComponent(() => import('./MarkUp.vue'));
const Dialog = defineAsyncComponent(() => import('primevue/dialog'));
const ComparePanel = defineAsyncComponent(() => import('./ComparePanel.vue'));
const isPicture = computed(() => /^image\/(png|jpeg|webp)$/.test(props.item.media_type ?? ''));
const isVideo = computed(() => /^video\/(webm|mp4)/.test(props.item.media_type ?? ''));
const urls = ref<{ local: string | null; drawn: string | null }>({ local: null, drawn: null });
function free(): void {
  const { local, drawn } = urls.value;
  setTimeout(() => [local, drawn].forEach((u) => u && URL.revokeObjectURL(u)), 2000);
}
watch(
  () => [props.item.local, props.item.drawn],
  ([local, drawn]) => {
    free();
    urls.value = {
      local: local ? URL.createObjectURL(local) : null,
      drawn: drawn ? URL.createObjectURL(drawn) : null,
    };
  },
  { immediate: true },
);
onBeforeUnmount(free);
/** The picture without what was drawn on it. */
const plain = computed(() => urls.value.local ?? props.item.url);
const whole = computed(
  () => urls.value.drawn ?? (props.item.markup ? props.item.marked_url : null) ?? plain.value,
);
const source = computed(() =>
  urls.value.drawn || urls.value.local || props.item.markup ? whole.value : props.item.thumbnail_url,
);
const full = ref(false);
const drawing = ref(false);
const comparing = ref(false);
const editing = ref(false);
const caption = ref('');
const problem = ref('');
const state = computed(() => {
  if (props.item.refused) return 'Refused';
  if (props.item.gone) return 'Taken out';
  if (props.item.held) return 'Not sent yet';
  const own = outbox.waiting.value.some((a) => 'id' in a.command && a.command.id === props.item.id);
  if (props.item.local || own) return outbox.state.awaySince ? 'Waiting' : 'Sending';
  return 'Saved';
});

function edit(): void {
  caption.value = props.item.caption;
  editing.value = true;
}
async function save(): Promise<void> {
  if (!editing.value) return;
  editing.value = false;
  const now = caption.value.trim();
  if (now !== props.item.caption)
    await props.walk?.record({ kind: 'caption', id: props.item.id, caption: now });
}
async function remove(): Promise<void> {
  const own = outbox.commands.find((a) => a.command.kind === 'evidence' && a.command.id === props.item.id);
  if (own && (own.refused !== undefined || own.held)) await outbox.drop(own);
  else await props.walk?.record({ kind: 'remove', id: props.item.id });
}
async function move(event: Event): Promise<void> {
  const step = Number((event.target as HTMLSelectElement).value) || null;
  await props.walk?.record({
    kind: 'move',
    id: props.item.id,
    round: step === null ? null : (props.item.round ?? props.walk.roundAt.value),
    step,
  });
}
/** Keeps what was drawn. What was hidden replaces the picture before it is sent, or afterwards, with its trace. */
async function drawn(result: { markup: Markup; drawn: Blob | null; plain: Blob | null }): Promise<void> {
  drawing.value = false;
  problem.value = '';
  try {
    if (result.plain && !(await outbox.release(props.item.id, result.plain)))
      await props.walk?.record({ kind: 'redact', id: props.item.id, file: result.plain });
    else if (!result.plain && props.item.held) await outbox.release(props.item.id);
    if (result.drawn || props.item.markup)
      await props.walk?.record({
        kind: 'markup',
        id: props.item.id,
        markup: result.markup,
        file: result.drawn,
      });
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error);
  }
}
</script>

<template>
  <figure :class="{ small, refused: item.refused }">
    <p v-if="item.gone" class="file soft">{{ item.name }}: its content was taken out; the trace stays.</p>
    <button
      v-else-if="isPicture && source"
      type="button"
      class="picture"
      :title="`Look at ${item.name}`"
      @click="full = true"
    >
      <img :src="source" :alt="item.caption || item.name" loading="lazy" />
    </button>
    <video
      v-else-if="isVideo && plain"
      class="clip"
      :src="plain"
      controls
      preload="metadata"
      :aria-label="item.name"
    >
      <track kind="captions" />
    </video>
    <a v-else-if="item.link" class="file" :href="item.link" target="_blank" rel="noopener noreferrer">{{
      item.link
    }}</a>
    <a v-else-if="item.url" class="file" :href="item.url" :download="item.name"
      >{{ item.name }} <span class="soft small">{{ sizeWords(item.bytes) }}</span></a
    >
    <span v-else class="file">{{ item.name }}</span>
    <figcaption>
      <form v-if="editing" class="caption" @submit.prevent="save">
        <input
          v-model="caption"
          v-focus
          maxlength="500"
          :aria-label="`Caption of ${item.name}`"
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
      <span class="state" :class="{ bad: item.refused || item.held }"
        ><svg v-if="state === 'Saved'" width="10" height="10" viewBox="0 0 12 12" aria-hidden="true">
          <path d="M1.5 6.5 4.6 9.6 10.5 2.6" fill="none" stroke="currentColor" stroke-width="2" />
        </svg>
        {{ state }}</span
      >
    </figcaption>
    <p v-if="item.held && !small" class="small held">
      This step shows secret values. Look {{ isPicture ? 'the picture' : item.name }} over before it leaves
      this device.
      <button v-if="isPicture" type="button" class="link" @click="drawing = true">Hide parts of it</button>
      <button type="button" class="link" @click="outbox.release(item.id)">Nothing to hide, send it</button>
    </p>
    <p v-if="!small && (!locked || (references?.length ?? 0) > 0)" class="acts small">
      <button
        v-if="!locked && isPicture && !item.refused && !item.gone"
        type="button"
        class="link"
        @click="drawing = true"
      >
        Draw or hide
      </button>
      <button
        v-if="isPicture && (references?.length ?? 0) > 0 && state === 'Saved'"
        type="button"
        class="link"
        @click="comparing = true"
      >
        Compare
      </button>
      <span v-if="item.compared" class="soft"
        >{{ ((item.compared.share as number) * 100).toFixed(2) }} % differ</span
      >
      <label v-if="!locked && walk && !item.refused" class="move"
        ><span class="unseen">Step of {{ item.name }}</span
        ><select :value="item.step ?? ''" @change="move">
          <option value="">the attempt</option>
          <option v-for="s in walk.steps.value" :key="s.position" :value="s.position">
            step {{ s.position }}
          </option>
        </select></label
      >
      <button
        v-if="!locked"
        type="button"
        class="link remove"
        :aria-label="`Remove ${item.name}`"
        @click="remove"
      >
        Remove
      </button>
    </p>
    <p v-if="item.refused || problem" class="p-invalid-words" role="alert">{{ item.refused || problem }}</p>
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
    <Teleport v-if="drawing" to="body"
      ><MarkUp
        :source="plain"
        :name="item.name"
        :markup="(item.markup as Markup | null) ?? null"
        :still="item.local !== undefined"
        :looks-over="item.held === true"
        @save="drawn"
        @leave="drawing = false"
    /></Teleport>
    <Teleport v-if="comparing && project" to="body"
      ><ComparePanel
        :item="item"
        :references="references ?? []"
        :project="project"
        :locked="locked"
        @leave="comparing = false"
    /></Teleport>
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
  min-height: 24px;
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
.acts,
.held {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
.held {
  padding: 6px 8px;
  border: 1px solid var(--edge);
  border-radius: 6px;
  margin-top: 4px;
}
.acts .remove {
  margin-left: auto;
}
.move select {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 4px;
  min-height: 24px;
}
.clip {
  display: block;
  width: 100%;
  max-height: 240px;
  border: 1px solid var(--edge);
  border-radius: 6px;
  background: #000;
}
.small:not(.refused) .state {
  display: none;
}
.whole {
  max-width: 100%;
  display: block;
  margin: 0 auto;
}
</style>
