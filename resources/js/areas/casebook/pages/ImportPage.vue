<script setup lang="ts">
import Button from 'primevue/button';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import {
  cancelImport,
  mapImport,
  readImport,
  startImport,
  undoImport,
  uploadImport,
} from '@/areas/casebook/queries';
import { may } from '@/areas/people/session';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { plainWords, plural } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import ImportWords from '@/areas/casebook/parts/ImportWords.vue';

/** A file of cases: what is in it, what would become of it, and then all of it at once. One page, nothing to step through. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const id = computed(() => (route.query.file ? String(route.query.file) : ''));
const state = ref<Api['ImportState'] | null>(null);
const problem = ref('');
const busy = ref(false);
const field = ref<HTMLInputElement | null>(null);
const over = ref(false);
const only = ref<'' | Api['ImportRow']['is']>('');
let timer: ReturnType<typeof setTimeout> | undefined;

function follow(): void {
  clearTimeout(timer);
  if (state.value && ['reading', 'running'].includes(state.value.state))
    timer = setTimeout(() => void look(), 700);
}
async function look(): Promise<void> {
  try {
    state.value = await readImport(id.value);
  } catch (error) {
    problem.value = errorMessage(error);
  }
  follow();
}
watch(
  id,
  (now) => {
    if (now && state.value?.id !== now) void look();
    if (!now) state.value = null;
  },
  { immediate: true },
);
onBeforeUnmount(() => clearTimeout(timer));
async function upload(files: FileList | null | undefined): Promise<void> {
  const file = files?.[0];
  over.value = false;
  if (!file) return;
  problem.value = '';
  busy.value = true;
  try {
    state.value = await uploadImport(project.value, file);
    await router.replace({ query: { file: state.value.id } });
    follow();
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
async function act(what: 'start' | 'cancel' | 'undo'): Promise<void> {
  if (!state.value) return;
  problem.value = '';
  busy.value = true;
  try {
    state.value =
      what === 'start'
        ? await startImport(state.value.id)
        : what === 'cancel'
          ? await cancelImport(state.value.id)
          : await undoImport(state.value.id);
    if (what === 'undo') toast('What came in was taken out again, as one act.');
    follow();
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
async function map(
  mapping: (string | null)[],
  layout: 'step' | 'case',
  words: Api['MappingRequest']['words'] = [],
): Promise<void> {
  if (!state.value) return;
  problem.value = '';
  try {
    state.value = await mapImport(state.value.id, { mapping, layout, words });
    follow();
  } catch (error) {
    problem.value = errorMessage(error);
    state.value = { ...state.value, mapping: [...mapping], layout };
  }
}
function setColumn(at: number, target: string): void {
  if (!state.value) return;
  // One target once: choosing it here takes it from where it was.
  const mapping = state.value.mapping.map((m, i) => (i === at ? target || null : m === target ? null : m));
  void map(mapping, state.value.layout);
}
const SAID = { create: 'new', change: 'changes', same: 'stays the same', refuse: 'left out' } as const;
const rows = computed(() => (state.value?.report ?? []).filter((r) => !only.value || r.is === only.value));
const doing = computed(() => {
  const s = state.value;
  if (!s) return '';
  const parts = [
    s.creates > 0 ? `make ${plural(s.creates, 'case')}` : '',
    s.changes > 0 ? `change ${s.changes}` : '',
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(', ').replace(/^./, (c) => c.toUpperCase()) : 'Nothing to do';
});
const SEPARATORS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
</script>

<template>
  <div class="page">
    <CasebookTabs
      ><a :href="`/api/v1/projects/${project}/case-template`">Template, a row for each step</a
      ><a :href="`/api/v1/projects/${project}/case-template?layout=case`"
        >a row for each case</a
      ></CasebookTabs
    >
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <StateBox
      v-if="!may(project, 'write_cases')"
      empty="Cases are not yours to write in this project: ask a lead, or an admin who says who may."
    />
    <div
      v-else-if="!state"
      class="drop"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="upload($event.dataTransfer?.files)"
    >
      <h2>Bring cases in from a file</h2>
      <p class="soft">
        CSV, XLSX, or a casebook as JSON. The file is read and shown first; nothing is written until you say
        so, and it can be taken back as one act.
      </p>
      <Button label="Choose a file" outlined @click="field?.click()" />
      <input
        ref="field"
        type="file"
        class="unseen"
        tabindex="-1"
        accept=".csv,.tsv,.txt,.xlsx,.json"
        aria-label="A file of cases"
        @change="upload(($event.target as HTMLInputElement).files)"
      />
      <p class="soft small">{{ busy ? 'Reading …' : 'Or drop it here. At most 20 MB.' }}</p>
    </div>
    <template v-else>
      <p v-if="state.standstill" class="p-invalid-words" role="alert">{{ state.standstill }}</p>
      <div class="row top">
        <h2 class="long">{{ state.name }}</h2>
        <span v-if="state.charset && state.separator" class="soft small"
          >{{ state.charset }}, cells between {{ SEPARATORS[state.separator] }}</span
        >
        <span class="gap" />
        <template v-if="state.state === 'reading'">
          <span role="status">Reading the file …</span>
          <button type="button" class="link" @click="act('cancel')">Stop</button>
        </template>
        <template v-else-if="state.state === 'running'">
          <progress :value="state.done" :max="state.total" aria-label="How far it is" />
          <span role="status">{{ state.done }} of {{ state.total }}</span>
          <button type="button" class="link" @click="act('cancel')">Stop</button>
        </template>
        <template v-else-if="state.state === 'ready'">
          <button type="button" class="link soft" @click="act('cancel')">Leave it</button>
          <Button
            :label="doing"
            :disabled="busy || state.creates + state.changes === 0"
            @click="act('start')"
          />
        </template>
        <template v-else-if="state.state === 'done'">
          <strong role="status">It is all in the casebook.</strong>
          <RouterLink :to="`/${project}/casebook?changed=1`">See the cases</RouterLink>
          <button v-if="state.undoable" type="button" class="link" :disabled="busy" @click="act('undo')">
            Undo all of it
          </button>
        </template>
        <strong v-else role="status">{{
          { cancelled: 'Stopped. Nothing was written.', failed: '', undone: 'Taken out again.' }[
            state.state as 'cancelled'
          ]
        }}</strong>
        <RouterLink v-if="!['reading', 'running'].includes(state.state)" :to="{ query: {} }" class="another"
          >Another file</RouterLink
        >
      </div>
      <p v-if="state.problem" class="p-invalid-words" role="alert">{{ state.problem }}</p>
      <p v-for="one in state.left_out" :key="one" class="p-invalid-words">{{ one }}</p>
      <section
        v-if="state.header.length > 0 && (state.state === 'ready' || state.state === 'failed')"
        aria-label="Columns"
        class="columns"
      >
        <fieldset class="row">
          <legend class="label">The file has</legend>
          <label
            ><input
              type="radio"
              name="layout"
              :checked="state.layout === 'step'"
              @change="map(state.mapping, 'step')"
            />
            one row for each step</label
          >
          <label
            ><input
              type="radio"
              name="layout"
              :checked="state.layout === 'case'"
              @change="map(state.mapping, 'case')"
            />
            one row for each case, its steps as numbered lines</label
          >
        </fieldset>
        <div class="scroll">
          <table class="lines">
            <thead>
              <tr>
                <th>Column of the file</th>
                <th>Becomes</th>
                <th>For example</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(h, i) in state.header" :key="i">
                <td class="long">
                  <strong>{{ h || `Column ${i + 1}` }}</strong>
                </td>
                <td>
                  <select
                    class="field"
                    :aria-label="`What the column ${h} becomes`"
                    :value="state.mapping[i] ?? ''"
                    @change="setColumn(i, ($event.target as HTMLSelectElement).value)"
                  >
                    <option value="">(left out)</option>
                    <option v-for="t in state.targets" :key="t" :value="t">
                      {{ plainWords(t.replace('field: ', '')) }}
                    </option>
                  </select>
                </td>
                <td class="soft small long">{{ (state.samples[i] ?? []).join(' · ') }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <ImportWords
        v-if="state.words.length > 0 && (state.state === 'ready' || state.state === 'failed')"
        :project="project"
        :words="state.words"
        @mean="(words) => state && map(state.mapping, state.layout, words)"
      />
      <section v-if="state.rows > 0" aria-label="What becomes of it">
        <p class="row counts">
          <button type="button" class="link" :aria-pressed="only === ''" @click="only = ''">
            {{ plural(state.rows, 'case') }}
          </button>
          <template
            v-for="[kind, n] in [
              ['create', state.creates],
              ['change', state.changes],
              ['same', state.same],
              ['refuse', state.refuses],
            ] as const"
            :key="kind"
          >
            <button
              v-if="n > 0"
              type="button"
              class="link"
              :aria-pressed="only === kind"
              @click="only = only === kind ? '' : kind"
            >
              {{ n }} {{ SAID[kind] }}
            </button>
          </template>
          <span v-if="state.new_types.length > 0" class="soft"
            >New types: {{ state.new_types.join(', ') }}</span
          >
        </p>
        <div class="scroll">
          <table class="lines">
            <thead>
              <tr>
                <th class="number">Row</th>
                <th>What becomes of it</th>
                <th>Case</th>
                <th class="number">Steps</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="r in rows.slice(0, 500)" :key="r.row">
                <td class="number mono soft">{{ r.row }}</td>
                <td>{{ SAID[r.is] }}</td>
                <td class="long">
                  <span v-if="r.key" class="mono soft">{{ r.key }} </span>{{ r.title || '(no title)' }}
                  <p v-for="why in r.reasons" :key="why" class="p-invalid-words">{{ why }}</p>
                </td>
                <td class="number">{{ r.steps }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="state.rows > rows.length && only === ''" class="soft small">
          {{ rows.length }} of {{ state.rows }} are listed, those that are left out first.
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.drop {
  border: 2px dashed var(--edge);
  border-radius: 8px;
  padding: 56px 24px;
  display: grid;
  gap: 14px;
  justify-items: center;
  text-align: center;
}
.drop p {
  max-width: 62ch;
}
.drop.over {
  border-color: var(--dusk);
  background: var(--well);
}
.top {
  margin-bottom: 10px;
}
.gap {
  flex: 1;
}
.columns {
  margin-bottom: 24px;
}
fieldset {
  border: 0;
  margin: 0 0 8px;
  padding: 0;
}
.scroll {
  overflow-x: auto;
}
td .field {
  min-width: 170px;
  padding: 3px 8px;
}
.counts [aria-pressed='true'] {
  font-weight: 700;
  text-decoration: none;
}
</style>
