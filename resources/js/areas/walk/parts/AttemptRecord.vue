<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { vFocus } from '@/kit/focus';
import { mayRemoveContent } from '@/areas/people/session';
import { exact, plainWords, plural } from '@/kit/words';
import { readRecord, removeText } from '@/areas/walk/queries';
import { removeFile } from '@/areas/evidence/queries';

/** The events of an attempt one after another, the bundle to check them outside, and what was taken out. */
const props = defineProps<{ attempt: string; project: string; detail: Api['AttemptDetail'] }>();
const emit = defineEmits<{ changed: [] }>();
const shown = ref(false);
const { data, refetch } = useQuery({
  queryKey: computed(() => ['record', props.attempt]),
  enabled: shown,
  queryFn: () => readRecord(props.attempt),
});
const mayRemove = computed(() => mayRemoveContent(props.project));
const removing = ref<{ kind: 'file'; id: string; name: string } | { kind: 'text'; sequence: number } | null>(
  null,
);
const reason = ref('');
const problem = ref('');
const files = computed(() => props.detail.evidence.filter((e) => e.sha256 !== null && !e.gone));
const payload = (e: Api['RecordEvent']): string =>
  Object.entries(e.payload as Record<string, unknown>)
    .filter(([, v]) => v !== null && v !== '')
    .map(([k, v]) => `${k.replaceAll('_', ' ')}: ${typeof v === 'object' ? JSON.stringify(v) : String(v)}`)
    .join(' · ');
async function remove(): Promise<void> {
  const what = removing.value;
  if (!what) return;
  problem.value = '';
  try {
    if (what.kind === 'file') await removeFile(what.id, reason.value);
    else await removeText(props.attempt, what.sequence, reason.value);
    removing.value = null;
    reason.value = '';
    await refetch();
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <section class="record" aria-label="The record">
    <p class="row">
      <a :href="`/api/v1/attempts/${attempt}/bundle`" download>Bundle to check outside</a>
      <button type="button" class="link" :aria-expanded="shown" @click="shown = !shown">
        {{ shown ? 'Hide the events' : 'Every event' }}
      </button>
      <span class="soft small"
        >The bundle holds its own checker: unpack it and run <code>php check.php</code>.</span
      >
    </p>
    <ul v-if="detail.removals.length > 0" class="small">
      <li v-for="(r, i) in detail.removals" :key="i">
        <strong>Taken out:</strong> {{ r.kind === 'file' ? 'a file' : `the text of event ${r.subject}` }}, by
        {{ r.by?.name ?? 'the application' }}, <span :title="exact(r.at)">{{ exact(r.at) }}</span>.
        {{ r.reason }}
      </li>
    </ul>
    <p v-if="mayRemove && shown && files.length > 0" class="small row">
      Take a file out:
      <button
        v-for="f in files"
        :key="f.id"
        type="button"
        class="link"
        @click="removing = { kind: 'file', id: f.id, name: f.name }"
      >
        {{ f.caption || f.name }}
      </button>
    </p>
    <form v-if="removing" class="row" @submit.prevent="remove">
      <label class="grow"
        ><span class="label"
          >Why must
          {{ removing.kind === 'file' ? removing.name : `the text of event ${removing.sequence}` }} not be
          here? Its content goes for good, with every copy; the trace stays.</span
        >
        <InputText v-model="reason" v-focus fluid maxlength="2000" :invalid="problem !== ''" />
      </label>
      <Button type="submit" severity="danger" label="Take it out" />
      <Button type="button" text severity="secondary" label="Leave it" @click="removing = null" />
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    </form>
    <template v-if="shown && data">
      <p class="small soft">
        {{ plural(data.events.length, 'event') }}, {{ data.sealed ? 'sealed' : 'open' }}. Head of the attempt
        <span class="mono long">{{ data.head }}</span>; of the cycle, with
        {{ plural(data.cycle_events, 'event') }},
        <span class="mono long">{{ data.cycle_head || 'none yet' }}</span>
      </p>
      <!-- It scrolls sideways on a phone: keys must reach it. -->
      <div class="scroll" tabindex="0" role="region" aria-label="The events">
        <table class="lines small">
          <thead>
            <tr>
              <th>#</th>
              <th>What</th>
              <th>Who</th>
              <th>When</th>
              <th>Hash</th>
              <th v-if="mayRemove"><span class="unseen">Take out</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="e in data.events" :key="e.sequence">
              <td class="mono">{{ e.sequence }}</td>
              <td class="long">
                <strong>{{ plainWords(e.kind) }}</strong>{{ ' '
                }}<span class="soft">{{ e.removed ? 'its text was taken out' : payload(e) }}</span>
              </td>
              <td>{{ e.actor?.name }}</td>
              <td class="nowrap" :title="e.device_time ? `By the device: ${exact(e.device_time)}` : ''">
                {{ exact(e.server_time) }}
              </td>
              <td class="mono soft" :title="e.hash">{{ e.hash.slice(0, 10) }}…</td>
              <td v-if="mayRemove">
                <button
                  v-if="e.has_text"
                  type="button"
                  class="link"
                  :aria-label="`Take the text of event ${e.sequence} out`"
                  @click="removing = { kind: 'text', sequence: e.sequence }"
                >
                  Take the text out
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </section>
</template>

<style scoped>
.record {
  border-top: 1px solid var(--rule);
  padding: 12px 18px 16px;
  display: grid;
  gap: 10px;
}
.grow {
  flex: 1;
}
.scroll {
  overflow-x: auto;
}
.nowrap {
  white-space: nowrap;
}
</style>
