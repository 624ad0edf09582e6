<script setup lang="ts">
import Button from 'primevue/button';
import { useQuery } from '@tanstack/vue-query';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { importRequirements, readImports, undoImport } from '@/areas/coverage/queries';
import { useGivenFiles } from '@/kit/useGivenFiles';
import { exact, plural, when } from '@/kit/words';

/** Requirements from a file or pasted: looked at row by row, then taken in, and taken back as one. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const file = ref<File | null>(null);
const text = ref('');
const meanings = ref<Record<string, string>>({});
const plan = ref<Api['RequirementImportResult'] | null>(null);
const busy = ref(false);
const problem = ref('');
const said = ref('');
const { data: imports, refetch } = useQuery({
  queryKey: computed(() => ['requirement-imports', project.value]),
  queryFn: () => readImports(project.value),
});
const { over, ...given } = useGivenFiles(([first]) => {
  file.value = first ?? null;
  meanings.value = {};
  void look();
});
const MEANINGS: { value: Api['RequirementColumn']['meaning']; word: string }[] = [
  { value: 'title', word: 'What must hold' },
  { value: 'text', word: 'In full' },
  { value: 'external_id', word: 'Identifier' },
  { value: 'key', word: 'Key here' },
  { value: 'parent', word: 'Stands below' },
  { value: 'level', word: 'Level' },
  { value: 'detail', word: 'A detail' },
  { value: 'none', word: 'Leave it out' },
];
const WORDS = { new: 'New', changed: 'Changes', same: 'As it is', refused: 'Left out' } as const;
const FIELDS: Record<string, string> = {
  title: 'title',
  text: 'text',
  external_id: 'identifier',
  details: 'details',
  parent: 'its place',
  dropped: 'taken up again',
};
const count = (outcome: Api['RequirementImportRow']['outcome']): number =>
  plan.value?.rows.filter((r) => r.outcome === outcome).length ?? 0;
const needsTitle = computed(
  () =>
    plan.value !== null &&
    plan.value.columns.length > 0 &&
    plan.value.rows.length === 0 &&
    !plan.value.columns.some((c) => c.meaning === 'title'),
);
const takes = computed(() => count('new') + count('changed'));
/** What matters first: what is left out, then what changes. */
const ORDER = { refused: 0, changed: 1, new: 2, same: 3 } as const;
const MOST = 500;
const rows = computed(() =>
  [...(plan.value?.rows ?? [])].sort((a, b) => ORDER[a.outcome] - ORDER[b.outcome] || a.row - b.row),
);
async function look(apply = false): Promise<void> {
  if (!file.value && text.value.trim() === '') return;
  busy.value = true;
  problem.value = said.value = '';
  try {
    const result = await importRequirements(
      project.value,
      { file: file.value, text: text.value },
      meanings.value,
      apply,
    );
    plan.value = apply ? null : result;
    if (result.import) {
      said.value = `${plural(result.import.made, 'requirement')} made, ${result.import.changed} changed.`;
      file.value = null;
      text.value = '';
      await refetch();
    }
  } catch (e) {
    plan.value = apply ? plan.value : null;
    problem.value = errorMessage(e);
  } finally {
    busy.value = false;
  }
}
function mean(name: string, meaning: string): void {
  meanings.value = { ...meanings.value, [name]: meaning };
  void look();
}
async function undo(id: string): Promise<void> {
  problem.value = said.value = '';
  try {
    const done = await undoImport(id);
    said.value =
      done.stay.length > 0
        ? `Taken back, but for ${done.stay.join(', ')}: somebody changed them since, and they stay.`
        : 'Taken back.';
    await refetch();
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
let timer: ReturnType<typeof setTimeout> | undefined;
watch(text, (now) => {
  clearTimeout(timer);
  if (now.trim() === '') return;
  file.value = null;
  timer = setTimeout(() => void look(), 400);
});
</script>

<template>
  <div class="page">
    <p class="soft small"><RouterLink :to="`/${project}/coverage`">Coverage</RouterLink></p>
    <div class="title-line"><h1>Bring requirements in</h1></div>
    <div class="from">
      <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
      <div
        class="sheet drop"
        :class="{ over }"
        @dragover="given.onDragover"
        @dragleave="given.onDragleave"
        @drop="given.onDrop"
      >
        <p>A file: CSV, XLSX, JSON or ReqIF 1.2.</p>
        <label class="link"
          ><input type="file" class="unseen" aria-label="Choose a file" @change="given.onChoose" />{{
            file ? file.name : 'Choose one, or drop it here'
          }}</label
        >
        <p class="soft small">
          What has the key or the identifier of one that is here changes that one; the rest is new.
        </p>
      </div>
      <label class="paste"
        ><span class="label">Or pasted: rows of a sheet, or lines; what stands further in stands below</span
        ><textarea
          v-model="text"
          class="field mono"
          rows="6"
          maxlength="2000000"
          placeholder="Fares&#10;    By age&#10;    By group"
        ></textarea>
      </label>
    </div>
    <p v-if="problem" class="p-invalid-words pre" role="alert">{{ problem }}</p>
    <p v-if="said" role="status">{{ said }}</p>
    <section v-if="plan" aria-label="What would happen">
      <div v-if="plan.columns.length > 0" class="row columns">
        <label v-for="c in plan.columns" :key="c.name" class="small"
          ><span class="long">{{ c.name || '(no name)' }}</span>
          <select
            class="field inline"
            :value="c.meaning"
            :aria-label="`What ${c.name} means`"
            @change="mean(c.name, ($event.target as HTMLSelectElement).value)"
          >
            <option v-for="m in MEANINGS" :key="m.value" :value="m.value">{{ m.word }}</option>
          </select></label
        >
      </div>
      <p v-if="needsTitle" class="p-invalid-words" role="alert">
        No column is what must hold. Say which one it is.
      </p>
      <div v-else class="title-line">
        <h2>
          {{ count('new') }} new, {{ count('changed') }} changed, {{ count('same') }} as they are{{
            count('refused') > 0 ? `, ${count('refused')} left out` : ''
          }}
        </h2>
        <div class="actions">
          <Button
            :disabled="busy || plan.rows.length === count('refused')"
            :label="`Take ${takes} in`"
            @click="look(true)"
          />
        </div>
      </div>
      <div v-if="!needsTitle" class="scroll" tabindex="0" role="region" aria-label="Rows">
        <table>
          <thead>
            <tr>
              <th scope="col">Row</th>
              <th scope="col">What</th>
              <th scope="col">Requirement</th>
              <th scope="col">Below row</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in rows.slice(0, MOST)" :key="r.row" :class="r.outcome">
              <td class="mono soft">{{ r.row }}</td>
              <td>
                {{ WORDS[r.outcome] }}
                <span v-if="r.key" class="mono soft">{{ r.key }}</span>
                <span v-if="r.changes.length > 0" class="soft small">{{
                  r.changes.map((c) => FIELDS[c] ?? c).join(', ')
                }}</span>
              </td>
              <td class="long">
                {{ r.title || '(no title)' }}
                <span v-if="r.why" class="p-invalid-words small">{{ r.why }}</span>
              </td>
              <td class="mono soft">{{ r.parent_row ?? '' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="rows.length > MOST" class="soft small">{{ rows.length - MOST }} more are not shown here.</p>
      </div>
    </section>
    <section v-if="imports && imports.length > 0" aria-label="Brought in before">
      <h2>Brought in before</h2>
      <ul>
        <li v-for="i in imports" :key="i.id">
          <span class="long">{{ i.name }}</span>
          <span class="soft small" :title="exact(i.at)"
            >{{ when(i.at) }}: {{ i.made }} made, {{ i.changed }} changed{{
              i.undone ? ', taken back' : ''
            }}</span
          >
          <button v-if="!i.undone" type="button" class="link" @click="undo(i.id)">Take it back</button>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.from {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  margin-bottom: 16px;
}
.drop {
  padding: 16px 20px;
  display: grid;
  gap: 8px;
  align-content: start;
}
.over {
  outline: 2px dashed var(--ink-soft);
}
.link {
  cursor: pointer;
}
.paste .field {
  width: 100%;
}
.pre {
  white-space: pre-line;
}
.columns {
  gap: 8px 20px;
  margin-bottom: 10px;
}
.columns label {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.scroll {
  overflow: auto;
  max-height: 50vh;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: 6px 10px;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
thead th {
  font-size: 0.8rem;
  color: var(--ink-soft);
  font-weight: 400;
}
tr.same {
  color: var(--ink-soft);
}
tr.new td:nth-child(2),
tr.changed td:nth-child(2) {
  font-weight: 600;
}
section {
  margin-top: 20px;
}
li {
  display: flex;
  gap: 16px;
  flex-wrap: wrap;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
li .link {
  margin-left: auto;
}
@media (max-width: 760px) {
  .from {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
