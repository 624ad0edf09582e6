<script setup lang="ts">
import Button from 'primevue/button';
import { ref, watch } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import DiffText from '@/areas/casebook/parts/DiffText.vue';
import { toast } from '@/kit/notices';
import { plural, plainWords } from '@/kit/words';
import { readNewVersion, takeNewVersion } from '@/areas/walk/queries';

/** What became of an entry's case since it was planned, and what taking it would keep. */
const props = defineProps<{ entry: string; mayTake: boolean; mayWalk?: boolean }>();
const emit = defineEmits<{ taken: [now: Api['EntryDetail']]; walk: []; close: [] }>();
const drift = ref<Api['NewVersionPreview'] | null>(null);
const problem = ref('');
watch(
  () => props.entry,
  async (entry) => {
    drift.value = null;
    problem.value = '';
    try {
      drift.value = await readNewVersion(entry);
    } catch (e) {
      problem.value = errorMessage(e);
    }
  },
  { immediate: true },
);
async function takeIt(walk = false): Promise<void> {
  try {
    const now = await takeNewVersion(props.entry);
    toast(`Version ${drift.value?.to_version} taken.`);
    emit('taken', now);
    if (walk) emit('walk');
    emit('close');
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
</script>

<template>
  <section class="sheet panel" aria-label="What changed in the case">
    <div class="row">
      <h2>
        What changed in the case<template v-if="drift"
          >: version {{ drift.from_version }} to {{ drift.to_version }}</template
        >
      </h2>
      <button type="button" class="link soft" @click="emit('close')">Close</button>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <template v-if="drift">
      <p v-if="drift.open">
        It is being walked: {{ plural(drift.carried, 'verdict') }} of unchanged steps
        {{ drift.carried === 1 ? 'is' : 'are' }} carried<template v-if="drift.lost > 0"
          >, {{ drift.lost }} must be given anew</template
        >.
      </p>
      <p v-else class="soft">The next attempt walks the new version; finished ones keep theirs.</p>
      <dl>
        <template
          v-for="f in drift.comparison.fields.filter((x) => x.parts.some((p) => p.kind !== 'same'))"
          :key="f.field"
        >
          <dt class="label">{{ plainWords(f.field) }}</dt>
          <dd><DiffText :parts="f.parts" /></dd>
        </template>
        <template v-for="(s, i) in drift.comparison.steps.filter((x) => x.is !== 'same')" :key="i">
          <dt class="label">Step {{ s.to ?? s.from }}, {{ s.is }}</dt>
          <dd class="step">
            <DiffText v-for="f in s.fields" :key="f.field" :parts="f.parts" />
          </dd>
        </template>
      </dl>
      <p v-if="mayTake" class="acts">
        <Button
          v-if="mayWalk && !drift.open"
          label="Take it, and walk it in a new attempt"
          @click="takeIt(true)"
        />
        <Button
          :outlined="mayWalk && !drift.open"
          :severity="mayWalk && !drift.open ? 'secondary' : undefined"
          label="Take the new version"
          @click="takeIt()"
        />
      </p>
    </template>
  </section>
</template>

<style scoped>
.panel {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.row {
  width: 100%;
  justify-content: space-between;
}
.acts {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.step {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 12px;
}
dl {
  display: grid;
  gap: 2px;
  width: 100%;
}
</style>
