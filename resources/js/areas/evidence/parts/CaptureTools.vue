<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref } from 'vue';
import { clock } from '@/kit/words';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import KeyCap from '@/kit/KeyCap.vue';

/** Every way to bring evidence to a step or a session, one row of words; the rarer ones open below. */
const props = defineProps<{
  tools: EvidenceTools;
  project: string;
  /** The keys that do the same, where they are not those of the walk. */
  keys?: { capture: string; part: string; record: string; camera: string };
}>();
const emit = defineEmits<{ choose: [] }>();
const FilmStrip = defineAsyncComponent(() => import('./FilmStrip.vue'));
const HandsetFrame = defineAsyncComponent(() => import('./HandsetFrame.vue'));
const opened = ref<'' | 'film' | 'log' | 'link' | 'handset'>('');
const text = ref('');
const address = ref('');
const since = computed(() => props.tools.capture.recordingSince.value);
const narrow = window.innerWidth <= 640;
const turn = (what: 'film' | 'log' | 'link' | 'handset'): void => {
  opened.value = opened.value === what ? '' : what;
};
async function sendLog(): Promise<void> {
  if (text.value.trim() === '') return;
  await props.tools.log(text.value);
  if (props.tools.fault.value) return;
  text.value = '';
  opened.value = '';
}
async function sendLink(): Promise<void> {
  await props.tools.link(address.value.trim());
  if (props.tools.fault.value) return;
  address.value = '';
  opened.value = '';
}
</script>

<template>
  <div class="tools">
    <div class="row">
      <template v-if="!narrow">
        <Button
          size="small"
          outlined
          severity="secondary"
          title="The whole screen, window or tab"
          @click="tools.screen()"
          >Capture <KeyCap v-if="!keys" of="c" /><kbd v-else>{{ keys.capture }}</kbd></Button
        >
        <Button size="small" outlined severity="secondary" title="A part of it, dragged" @click="tools.part()"
          >A part <KeyCap v-if="!keys" of="C" /><kbd v-else>{{ keys.part }}</kbd></Button
        >
        <Button
          size="small"
          outlined
          :severity="tools.capture.recording.value ? 'danger' : 'secondary'"
          title="At most two minutes"
          @click="tools.record()"
          ><template v-if="!tools.capture.recording.value"
            >Record <KeyCap v-if="!keys" of="r" /><kbd v-else>{{ keys.record }}</kbd></template
          ><template v-else-if="since === null">Starting …</template
          ><template v-else
            ><span class="mono" role="timer">{{ clock(tools.capture.recordedMs.value) }} of 2:00</span> Stop
            <KeyCap v-if="!keys" of="r" /><kbd v-else>{{ keys.record }}</kbd></template
          ></Button
        >
      </template>
      <Button v-if="narrow" size="small" outlined severity="secondary" @click="emit('choose')"
        >Camera or file</Button
      >
      <slot name="beside" />
    </div>
    <div class="row small more">
      <button
        v-if="!narrow"
        type="button"
        class="link"
        :aria-expanded="opened === 'film'"
        @click="turn('film')"
      >
        Filmstrip
      </button>
      <button
        v-if="!narrow"
        type="button"
        class="link"
        :aria-expanded="opened === 'handset'"
        @click="turn('handset')"
      >
        Handset
      </button>
      <button v-if="!narrow" type="button" class="link" @click="tools.film()">
        Camera <KeyCap v-if="!keys" of="i" /><kbd v-else>{{ keys.camera }}</kbd>
      </button>
      <button type="button" class="link" :aria-expanded="opened === 'log'" @click="turn('log')">
        Log text
      </button>
      <button type="button" class="link" :aria-expanded="opened === 'link'" @click="turn('link')">
        Link
      </button>
      <slot />
      <button v-if="tools.capture.stream.value" type="button" class="link end" @click="tools.capture.stop()">
        Stop sharing
      </button>
    </div>
    <FilmStrip v-if="opened === 'film'" :tools="tools" />
    <HandsetFrame v-if="opened === 'handset'" :tools="tools" :project="project" @close="opened = ''" />
    <form v-if="opened === 'log'" class="grid" @submit.prevent="sendLog">
      <label class="label" for="log-text">Log text, kept as a file</label>
      <textarea id="log-text" v-model="text" rows="4" class="mono" maxlength="2000000"></textarea>
      <Button type="submit" size="small" :label="`Keep it on ${tools.target.word}`" />
    </form>
    <form v-if="opened === 'link'" class="grid" @submit.prevent="sendLink">
      <label class="label" for="link-address">Address</label>
      <input id="link-address" v-model="address" type="url" placeholder="https://" maxlength="2000" />
      <Button type="submit" size="small" :label="`Put it on ${tools.target.word}`" />
    </form>
  </div>
</template>

<style scoped>
.tools {
  display: grid;
  gap: 8px;
}
.row {
  gap: 8px;
}
.more {
  gap: 16px;
}
.end {
  margin-left: auto;
}
.grid {
  display: grid;
  gap: 6px;
  justify-items: start;
}
textarea,
input {
  width: 100%;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 6px 8px;
}
textarea {
  font-family: var(--mono);
  font-size: 0.87rem;
}
</style>
