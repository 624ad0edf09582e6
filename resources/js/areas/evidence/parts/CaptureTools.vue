<script setup lang="ts">
import Button from 'primevue/button';
import { computed, defineAsyncComponent, ref } from 'vue';
import { clock } from '@/kit/words';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from '@/areas/walk/useWalk';
import KeyCap from '@/kit/KeyCap.vue';

/** Every way to bring evidence onto the step, one row of words; the rarer ones open below. */
const props = defineProps<{ walk: Walk; tools: EvidenceTools; project: string }>();
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
          >Capture <KeyCap of="c"
        /></Button>
        <Button size="small" outlined severity="secondary" title="A part of it, dragged" @click="tools.part()"
          >A part <KeyCap of="C"
        /></Button>
        <Button
          size="small"
          outlined
          :severity="tools.capture.recording.value ? 'danger' : 'secondary'"
          title="At most two minutes"
          @click="tools.record()"
          ><template v-if="!tools.capture.recording.value">Record <KeyCap of="r" /></template
          ><template v-else-if="since === null">Starting … <KeyCap of="r" /></template
          ><template v-else
            ><span class="mono" role="timer">{{ clock(tools.capture.recordedMs.value) }} of 2:00</span> Stop
            <KeyCap of="r" /></template
        ></Button>
      </template>
      <Button v-if="narrow" size="small" outlined severity="secondary" @click="emit('choose')"
        >Camera or file</Button
      >
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
        Camera <KeyCap of="i" />
      </button>
      <button type="button" class="link" :aria-expanded="opened === 'log'" @click="turn('log')">
        Log text
      </button>
      <button type="button" class="link" :aria-expanded="opened === 'link'" @click="turn('link')">
        Link
      </button>
      <button v-if="tools.capture.stream.value" type="button" class="link end" @click="tools.capture.stop()">
        Stop sharing
      </button>
    </div>
    <FilmStrip v-if="opened === 'film'" :walk="walk" :tools="tools" />
    <HandsetFrame
      v-if="opened === 'handset'"
      :walk="walk"
      :tools="tools"
      :project="project"
      @close="opened = ''"
    />
    <form v-if="opened === 'log'" class="grid" @submit.prevent="sendLog">
      <label class="label" for="log-text">Log text, kept as a file</label>
      <textarea id="log-text" v-model="text" rows="4" class="mono" maxlength="2000000"></textarea>
      <Button type="submit" size="small" label="Keep it on the step" />
    </form>
    <form v-if="opened === 'link'" class="grid" @submit.prevent="sendLink">
      <label class="label" for="link-address">Address</label>
      <input id="link-address" v-model="address" type="url" placeholder="https://" maxlength="2000" />
      <Button type="submit" size="small" label="Put it on the step" />
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
