<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { compareVersions, readCase, readHistory, restoreVersion } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plainWords, upperFirst } from '@/kit/words';
import DiffText from '@/areas/casebook/parts/DiffText.vue';

/** All that happened to a case; any two versions beside each other. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.case));
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['history', key.value],
  () => readHistory(key.value),
);
const { data: detail } = useRead(
  'case',
  () => ['case', key.value],
  () => readCase(key.value),
);
const from = ref(0);
const to = ref(0);
watch(
  data,
  (now) => {
    const newest = now?.versions[0]?.number ?? 0;
    if (to.value === 0 && newest > 0) {
      to.value = newest;
      from.value = Math.max(1, newest - 1);
    }
  },
  { immediate: true },
);
const { data: comparison } = useRead(
  'case',
  () => ['comparison', key.value, from.value, to.value],
  async () =>
    from.value && to.value && from.value !== to.value
      ? await compareVersions(key.value, { from: String(from.value), to: String(to.value) })
      : null,
);
const KINDS: Record<string, string> = {
  made: 'made it',
  imported: 'brought it in',
  copied: 'copied it',
  edited: 'changed it',
  moved: 'moved it',
  brought_back: 'brought an old version back',
  review_asked: 'asked for approval',
  approved: 'approved it',
  returned: 'returned it',
  binned: 'put it in the bin',
  restored: 'restored it',
};
const FIELD: Record<string, string> = {
  folder_id: 'Folder',
  owner_id: 'Owner',
  estimate_seconds: 'Estimate (seconds)',
  is_template: 'Template',
  custom: 'Fields',
};
function show(version: number): void {
  to.value = version;
  from.value = Math.max(1, version - 1);
}
async function bringBack(version: Api['VersionLine']): Promise<void> {
  const newest = data.value?.versions[0]?.number ?? 0;
  const back = async (number: number): Promise<void> => {
    await restoreVersion(key.value, { version: number });
    to.value = 0;
    await refetch();
  };
  try {
    await back(version.number);
    toast(`Version ${version.number} is back, as the newest.`, async () => {
      await back(newest);
      return `Version ${newest} is back.`;
    });
  } catch (e) {
    toast(errorMessage(e));
  }
}
const changedFields = computed(() =>
  (comparison.value?.fields ?? []).filter((f) => f.parts.some((p) => p.kind !== 'same')),
);
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <div class="title-line">
        <RouterLink class="mono" :to="`/${project}/casebook/${key}`">{{ key }}</RouterLink>
        <h1 class="long">{{ detail?.case.title ?? key }}</h1>
        <span class="soft">History</span>
      </div>
      <div class="columns">
        <section aria-label="Comparison">
          <p class="row">
            <label
              >From version
              <select v-model="from" class="field pick">
                <option v-for="v in data.versions" :key="v.number" :value="v.number">{{ v.number }}</option>
              </select></label
            >
            <label
              >to
              <select v-model="to" class="field pick">
                <option v-for="v in data.versions" :key="v.number" :value="v.number">{{ v.number }}</option>
              </select></label
            >
            <span v-if="comparison" class="soft small"
              >{{ comparison.to_by }}, {{ ago(comparison.to_at) }}</span
            >
          </p>
          <p v-if="data.versions.length < 2" class="soft">There is one version; nothing to compare yet.</p>
          <p v-else-if="from === to" class="soft">Choose two different versions.</p>
          <template v-if="comparison">
            <p
              v-if="changedFields.length === 0 && comparison.steps.every((s) => s.is === 'same')"
              class="soft"
            >
              The texts are the same.
            </p>
            <div v-for="f in changedFields" :key="f.field" class="field-diff">
              <span class="label">{{ plainWords(f.field) }}</span>
              <DiffText :parts="f.parts" />
            </div>
            <div class="scroll">
              <table class="lines">
                <thead>
                  <tr>
                    <th>Was</th>
                    <th>Is</th>
                    <th>Action</th>
                    <th>Data</th>
                    <th>Expected</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="(s, i) in comparison.steps" :key="i" :class="s.is">
                    <td class="mono soft">{{ s.from ?? '' }}</td>
                    <td class="mono soft">{{ s.to ?? '' }}</td>
                    <template v-if="s.routine">
                      <td colspan="3">
                        <span class="word">{{ s.is === 'same' ? '' : upperFirst(s.is) }}</span> Routine
                        {{ s.routine }}
                        <DiffText v-for="f in s.fields" :key="f.field" :parts="f.parts" />
                      </td>
                    </template>
                    <template v-else>
                      <td v-for="(f, n) in s.fields" :key="f.field">
                        <span v-if="n === 0 && s.is !== 'same'" class="word">{{ upperFirst(s.is) }}</span>
                        <DiffText :parts="f.parts" />
                        <span v-if="n === 2 && s.files_changed" class="soft small">pictures changed</span>
                      </td>
                    </template>
                  </tr>
                </tbody>
              </table>
            </div>
          </template>
        </section>
        <aside aria-label="What happened">
          <h2>Versions</h2>
          <ul>
            <li v-for="v in data.versions" :key="v.number" class="row">
              <button type="button" class="link" @click="show(v.number)">Version {{ v.number }}</button>
              <span class="soft small" :title="exact(v.at)"
                >{{ v.by }}, {{ ago(v.at) }}{{ v.approved ? ', approved' : '' }}</span
              >
              <button
                v-if="!v.current && detail?.may_write"
                type="button"
                class="link soft small"
                @click="bringBack(v)"
              >
                Bring back
              </button>
            </li>
          </ul>
          <h2>What happened</h2>
          <ol class="log">
            <li v-for="l in data.log" :key="l.id">
              <p>
                {{ l.by.name }} {{ KINDS[l.kind] ?? l.kind }}
                <span class="soft small" :title="exact(l.at)">{{ ago(l.at) }}</span>
              </p>
              <p v-if="l.comment" class="small long">“{{ l.comment }}”</p>
              <p v-for="c in l.changes" :key="c.field" class="small soft long">
                {{ FIELD[c.field] ?? plainWords(c.field) }}: {{ c.from || '–' }} → {{ c.to || '–' }}
              </p>
            </li>
            <li v-if="data.log.length === 0" class="soft">Nothing since it came in.</li>
          </ol>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 36px;
}
.pick {
  width: auto;
}
section {
  display: grid;
  gap: 14px;
  align-content: start;
}
.same td {
  color: var(--ink-soft);
}
.word {
  display: block;
  font-size: 0.8rem;
  font-weight: 700;
}
aside,
.log,
aside ul {
  display: grid;
  gap: 10px;
  align-content: start;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
