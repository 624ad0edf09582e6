<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import Button from 'primevue/button';
import { computed, reactive, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { seenNow } from '@/kit/useSeen';
import StateBox from '@/kit/StateBox.vue';
import { sizeWords } from '@/kit/words';
import { AFTERS, POLICIES } from '@/areas/setup/policies';
import ListEditor from '@/areas/setup/parts/ListEditor.vue';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';
import { savePolicies, saveStorage, useWalkSetup } from '@/areas/setup/queries';

/** How a project walks: each policy with a sentence on what it does, reasons behind verdicts, and how long evidence stays. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch, set: setSetup } = useWalkSetup(() => project.value);
const problem = ref('');
async function set(change: Partial<Api['PolicySet']>): Promise<void> {
  problem.value = '';
  try {
    const now = await savePolicies(project.value, change);
    setSetup(now);
    toast('Saved. It counts from now on; what is finished stays as it is.');
  } catch (e) {
    problem.value = e instanceof Problem ? e.message : String(e);
  }
}
const storage = reactive({ limit: '', days: '', seen: '' });
const storageProblems = ref<Record<string, string[]>>({});
watch(
  () => data.value?.storage,
  (now) => {
    storage.limit = now?.limit_mb == null ? '' : String(now.limit_mb);
    storage.days = now?.retention_days == null ? '' : String(now.retention_days);
    storage.seen = data.value?.seen.storage ?? '';
  },
  { immediate: true },
);
async function keepStorage(): Promise<void> {
  storageProblems.value = {};
  // What is no number goes as it was typed: the server says what is wrong with it.
  const number = (text: string): number | string | null =>
    text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text;
  try {
    const now = await saveStorage(project.value, {
      limit_mb: number(storage.limit),
      retention_days: number(storage.days),
      seen: storage.seen,
    } as Api['StorageRequest']);
    setSetup(now);
    toast('Saved.');
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    storage.seen = seenNow(e) ?? storage.seen;
    storageProblems.value = Object.keys(e.errors).length > 0 ? e.errors : { limit_mb: [e.message] };
  }
}
const lists = [
  { list: 'reasons-pass', title: 'Reasons behind a pass', from: 'reasons_pass' },
  { list: 'reasons-fail', title: 'Reasons behind a fail', from: 'reasons_fail' },
  { list: 'reasons-blocked', title: 'Reasons behind a block', from: 'reasons_blocked' },
  {
    list: 'reasons-not-applicable',
    title: 'Reasons behind not applicable',
    from: 'reasons_not_applicable',
  },
] as const;
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="!data.may_lead" class="soft">Leads and admins change these.</p>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <SetupSection v-for="g in POLICIES" :key="g.title" :title="g.title">
        <div v-for="f in g.flags" :key="f.name" class="policy">
          <input
            :id="f.name"
            type="checkbox"
            :checked="data.policies[f.name]"
            :disabled="!data.may_lead"
            :aria-describedby="`${f.name}-does`"
            @change="set({ [f.name]: ($event.target as HTMLInputElement).checked })"
          />
          <label :for="f.name">{{ f.word }}</label>
          <p :id="`${f.name}-does`" class="soft small">{{ f.does }}</p>
        </div>
      </SetupSection>
      <SetupSection title="After finishing" what="Where the walk goes then.">
        <div v-for="a in AFTERS" :key="a.value" class="policy">
          <input
            :id="`after-${a.value}`"
            type="radio"
            name="after"
            :checked="data.policies.after_finishing === a.value"
            :disabled="!data.may_lead"
            @change="set({ after_finishing: a.value })"
          />
          <label :for="`after-${a.value}`">{{ a.word }}</label>
          <p class="soft small">{{ a.does }}</p>
        </div>
      </SetupSection>
      <SetupSection title="Evidence" what="How much of it is kept, and for how long.">
        <p>{{ sizeWords(data.storage.bytes) }} in {{ data.storage.files }} files.</p>
        <form class="storage" @submit.prevent="keepStorage">
          <label class="label" for="limit">At most, in MB</label>
          <input
            id="limit"
            v-model="storage.limit"
            class="field"
            inputmode="numeric"
            :disabled="!data.may_admin"
            placeholder="no limit"
          />
          <p v-if="storageProblems.limit_mb" class="p-invalid-words" role="alert">
            {{ storageProblems.limit_mb[0] }}
          </p>
          <p class="soft small">When it is full, new files wait on the tester’s device and say so.</p>
          <label class="label" for="days">Kept for days after the attempt ended</label>
          <input
            id="days"
            v-model="storage.days"
            class="field"
            inputmode="numeric"
            :disabled="!data.may_admin"
            placeholder="for ever"
          />
          <p v-if="storageProblems.retention_days" class="p-invalid-words" role="alert">
            {{ storageProblems.retention_days[0] }}
          </p>
          <p class="soft small">Then the content is taken out by itself; the record keeps the trace.</p>
          <Button v-if="data.may_admin" type="submit" outlined label="Save" />
          <p v-else class="soft small">Admins change these.</p>
        </form>
      </SetupSection>
      <ListEditor
        v-for="l in lists"
        :key="l.list"
        :title="l.title"
        what="Offered as one click beside the verdict."
        :list="l.list"
        :project="project"
        :items="data[l.from]"
        :seen="data.seen[l.list] ?? ''"
        :may-write="data.may_lead"
        @saved="setSetup($event as Api['WalkSetup'])"
      />
    </template>
  </div>
</template>

<style scoped>
.policy {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 2px 8px;
  align-items: start;
  padding: 7px 0;
}
.policy label {
  font-weight: 600;
}
.policy p {
  grid-column: 2;
}
.policy input {
  accent-color: var(--dusk);
  width: 16px;
  height: 16px;
  margin: 3px 0 0;
}
.storage .field {
  width: 10rem;
}
.storage {
  display: grid;
  gap: 4px;
  justify-items: start;
  margin-top: 8px;
}
</style>
