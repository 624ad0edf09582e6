<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, Problem, type Api } from '@/api/client';
import { binTable, createTable, readTable, restoreTable, saveTable } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import DocumentPage from '@/kit/DocumentPage.vue';
import { plural } from '@/kit/words';
import { useFrame } from '@/areas/casebook/frame';
import { cells } from '@/areas/casebook/paste';
import UseList from '@/areas/casebook/parts/UseList.vue';
import { useLocalForm } from '@/offline/useLocalForm';

interface Form {
  name: string;
  columns: { name: string; secret: boolean }[];
  /** A secret cell that was not typed anew is null. */
  rows: { id: string | null; cells: (string | null)[] }[];
}
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const id = computed(() => String(route.params.table));
const isNew = computed(() => id.value === 'new');
const { frame } = useFrame(project);
const { data, error, isPending, refetch, set } = useRead(
  'case',
  () => ['table', id.value],
  async () => (isNew.value ? null : await readTable(id.value)),
);
const problem = ref<Problem | null>(null);
const placeOf = (table: string): string => `draft:table:${project.value}:${table}`;
const place = computed(() => placeOf(id.value));
const {
  form,
  began,
  dirty,
  begin,
  arrived,
  discard,
  saved: settled,
} = useLocalForm<Form, { revision: number }>(place, JSON.stringify, { revision: 0 });
const secrets = computed(() => (form.value?.columns ?? []).some((c) => c.secret));
const serverForm = (d: Api['TableDetail'] | null | undefined): Form =>
  d
    ? {
        name: d.table.name,
        columns: d.table.columns.map((c) => ({ ...c })),
        rows: d.rows.map((r) => ({ id: r.id, cells: [...r.cells] })),
      }
    : { name: '', columns: [{ name: '', secret: false }], rows: [{ id: null, cells: [''] }] };
watch(
  [data, id],
  async () => {
    if (!isNew.value && data.value?.table.id !== id.value) return;
    await arrived(serverForm(data.value), { revision: data.value?.table.revision ?? 0 });
  },
  { immediate: true },
);
const mayWrite = computed(() => frame.value?.may_write ?? false);
const PAGE = 200;
const shown = ref(PAGE);

async function go(row: number, column: number): Promise<void> {
  await nextTick();
  document.querySelector<HTMLInputElement>(`#cell-${row}-${column}`)?.focus();
}
function onKey(event: KeyboardEvent, row: number, column: number): void {
  const f = form.value;
  if (!f) return;
  if (event.key === 'Enter' || (event.key === 'ArrowDown' && !event.altKey)) {
    event.preventDefault();
    if (row === f.rows.length - 1 && event.key === 'Enter')
      f.rows.push({ id: null, cells: f.columns.map(() => '') });
    void go(row + 1, event.key === 'Enter' && row === f.rows.length - 2 ? 0 : column);
  } else if (event.key === 'ArrowUp' && !event.altKey) {
    event.preventDefault();
    void go(row - 1, column);
  } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault();
    const to = row + (event.key === 'ArrowUp' ? -1 : 1);
    const moved = f.rows[row];
    if (!moved || to < 0 || to >= f.rows.length) return;
    f.rows.splice(row, 1);
    f.rows.splice(to, 0, moved);
    void go(to, column);
  }
}
function onPaste(event: ClipboardEvent, row: number, column: number): void {
  const f = form.value;
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (!f || (!text.includes('\t') && !text.trim().includes('\n'))) return;
  event.preventDefault();
  let pasted = cells(text);
  const before = JSON.parse(JSON.stringify(f)) as Form;
  // Into an empty table the first row names the columns.
  if (row === 0 && column === 0 && f.columns.every((c) => c.name === '') && pasted.length > 1) {
    f.columns = (pasted[0] ?? []).map((name) => ({ name: name.trim(), secret: false }));
    pasted = pasted.slice(1);
    f.rows = [];
  }
  const wide = Math.max(f.columns.length, ...pasted.map((r) => column + r.length));
  while (f.columns.length < wide) f.columns.push({ name: '', secret: false });
  pasted.forEach((line, i) => {
    const target = f.rows[row + i] ?? { id: null, cells: [] };
    if (!f.rows[row + i]) f.rows.push(target);
    line.forEach((cell, n) => (target.cells[column + n] = cell));
  });
  for (const r of f.rows) while (r.cells.length < wide) r.cells.push('');
  toast(`${plural(pasted.length, 'row')} pasted.`, async () => {
    form.value = before;
    return 'Taken back.';
  });
}
function addColumn(): void {
  const f = form.value;
  if (!f) return;
  f.columns.push({ name: '', secret: false });
  for (const r of f.rows) r.cells.push('');
  void nextTick(() => document.querySelector<HTMLInputElement>(`#column-${f.columns.length - 1}`)?.focus());
}
function removeColumn(at: number): void {
  const f = form.value;
  if (!f) return;
  const before = JSON.parse(JSON.stringify(f)) as Form;
  f.columns.splice(at, 1);
  for (const r of f.rows) r.cells.splice(at, 1);
  toast(`The column is out. It is gone for good only when you save.`, async () => {
    form.value = before;
    return 'The column is back.';
  });
}
function removeRow(at: number): void {
  const f = form.value;
  const gone = f?.rows.splice(at, 1)[0];
  if (f && gone)
    toast(`Row ${at + 1} is out.`, async () => {
      f.rows.splice(at, 0, gone);
      return 'The row is back.';
    });
}
async function fromFile(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (!file) return;
  problem.value = null;
  try {
    const made = await createTable(project.value, {
      name: form.value?.name || file.name.replace(/\.\w+$/, ''),
      text: await file.text(),
    });
    await discard();
    await router.replace(`/${project.value}/casebook/tables/${made.table.id}`);
  } catch (e) {
    if (e instanceof Problem) problem.value = e;
  }
}
async function save(): Promise<void> {
  const f = form.value;
  if (!f) return;
  problem.value = null;
  const rows = f.rows.filter((r) => r.cells.some((c) => c !== ''));
  const body = {
    name: f.name,
    columns: f.columns,
    rows,
    ...(isNew.value ? {} : { revision: began.value.revision }),
  };
  const sent = JSON.stringify(f);
  try {
    const saved = isNew.value ? await createTable(project.value, body) : await saveTable(id.value, body);
    const from = { revision: saved.table.revision };
    await settled(sent, from, placeOf(saved.table.id));
    toast(`"${saved.table.name}" is saved.`);
    if (isNew.value) await router.replace(`/${project.value}/casebook/tables/${saved.table.id}`);
    // Secret cells come back hidden, rows with the ids they have now.
    await set(saved);
    await begin(serverForm(saved), from);
  } catch (e) {
    if (e instanceof Problem) problem.value = e;
    else throw e;
  }
}
async function drop(): Promise<void> {
  await discard();
  await refetch();
  await begin(serverForm(data.value), { revision: data.value?.table.revision ?? 0 });
}
const name = computed({
  get: () => form.value?.name,
  set: (now) => form.value && (form.value.name = now ?? ''),
});
async function bin(): Promise<void> {
  try {
    await binTable(id.value);
    const gone = id.value;
    toast(`"${form.value?.name}" is in the bin.`, async () => {
      await restoreTable(gone);
    });
    await router.push(`/${project.value}/casebook/tables`);
  } catch (e) {
    toast(errorMessage(e));
  }
}
</script>

<template>
  <DocumentPage
    v-model:name="name"
    :crumb="{ to: `/${project}/casebook/tables`, word: 'Data tables' }"
    what="data table"
    :is-new="isNew"
    :dirty="dirty"
    :may-write="mayWrite"
    :problem="problem"
    :loading="isPending"
    :error="error"
    beside="Where it is used"
    @save="save"
    @bin="bin"
    @drop="drop"
    @again="refetch()"
  >
    <template #actions
      ><label v-if="isNew" class="link"
        >From a CSV file<input type="file" accept=".csv,.tsv,.txt" class="unseen" @change="fromFile" /></label
    ></template>
    <template v-if="form">
      <div class="scroll">
        <table>
          <thead>
            <tr>
              <th><span class="unseen">Row</span></th>
              <th v-for="(c, i) in form.columns" :key="i">
                <input
                  :id="`column-${i}`"
                  v-model="c.name"
                  class="field mono"
                  placeholder="column"
                  :aria-label="`Name of column ${i + 1}`"
                  :disabled="!mayWrite"
                />
                <span class="row small soft under">
                  <label><input v-model="c.secret" type="checkbox" :disabled="!mayWrite" /> secret</label>
                  <button v-if="mayWrite" type="button" class="link soft" @click="removeColumn(i)">
                    Take out<span class="unseen"> column {{ i + 1 }}</span>
                  </button>
                </span>
              </th>
              <th v-if="mayWrite">
                <button type="button" class="link" @click="addColumn">Add a column</button>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in form.rows.slice(0, shown)" :key="i">
              <th scope="row" class="mono soft">{{ i + 1 }}</th>
              <td v-for="(c, n) in form.columns" :key="n">
                <input
                  :id="`cell-${i}-${n}`"
                  class="field"
                  :value="r.cells[n] ?? ''"
                  :placeholder="r.cells[n] === null ? '•••• kept' : ''"
                  :aria-label="`${c.name || `column ${n + 1}`} of row ${i + 1}`"
                  :disabled="!mayWrite"
                  autocomplete="off"
                  @input="r.cells[n] = ($event.target as HTMLInputElement).value"
                  @keydown="onKey($event, i, n)"
                  @paste="onPaste($event, i, n)"
                />
              </td>
              <td v-if="mayWrite">
                <button type="button" class="link soft small" @click="removeRow(i)">
                  Take out<span class="unseen"> row {{ i + 1 }}</span>
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p class="row foot">
          <button v-if="form.rows.length > shown" type="button" class="link" @click="shown += PAGE * 5">
            Show more of {{ form.rows.length }} rows
          </button>
          <button
            v-if="mayWrite"
            type="button"
            class="link"
            @click="
              form.rows.push({ id: null, cells: form.columns.map(() => '') });
              go(form.rows.length - 1, 0);
            "
          >
            Add a row
          </button>
          <span v-if="mayWrite" class="soft small"
            >Rows can be pasted from a spreadsheet; into an empty table the first one names the columns.</span
          >
        </p>
        <p v-if="secrets" class="soft small">
          Secret values are kept encrypted. They are shown to whoever walks, masked everywhere else, never
          read back and left out of every export.
        </p>
      </div>
    </template>
    <template #beside><UseList :project="project" :uses="data?.used_in ?? []" /></template>
  </DocumentPage>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  padding: 2px 4px 2px 0;
  text-align: left;
  font-weight: 400;
  vertical-align: top;
}
th .field,
td .field {
  min-width: 110px;
  padding: 4px 8px;
}
td .field {
  border-color: var(--rule);
}
tbody th {
  padding: 8px 10px 0 0;
}
.under {
  gap: 2px 10px;
  padding: 2px 2px 6px;
}
.foot {
  margin: 8px 0;
}
</style>
