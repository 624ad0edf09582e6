<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage } from '@/api/client';
import {
  listCases,
  listBinnedRoutines,
  listBinnedTables,
  restoreRoutine,
  restoreTable,
} from '@/areas/casebook/queries';
import { useWhole, type Column } from '@/kit/list';
import ListTable from '@/kit/ListTable.vue';
import ListView from '@/kit/ListView.vue';
import { toast } from '@/kit/notices';
import { useListState } from '@/kit/useListState';
import { useSelection } from '@/kit/useSelection';
import { ago, exact } from '@/kit/words';
import { useRead } from '@/offline/useRead';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { actOn, undoAct, useFrame } from '@/areas/casebook/frame';

/** What was binned, and the way back. */
interface Binned {
  id: string;
  kind: 'Case' | 'Routine' | 'Data table';
  key: string;
  name: string;
  at: string | null;
}
const EMPTY =
  'The bin is empty. A binned case leaves lists, suites and rules; its entries stay and say so, ' +
  'and it comes back with its key and its links.';
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame } = useFrame(project);
const { data, error, refetch } = useRead(
  'case',
  () => ['bin', project.value],
  async (): Promise<Binned[]> => {
    const [cases, routines, tables] = await Promise.all([
      listCases(project.value, { bin: 'yes', sort: '-changed' }),
      listBinnedRoutines(project.value),
      listBinnedTables(project.value),
    ]);
    const named = (kind: Binned['kind'], r: { id: string; name: string; binned_at: string | null }) => ({
      id: r.id,
      kind,
      key: '',
      name: r.name,
      at: r.binned_at,
    });
    return [
      ...cases.items.map((c) => ({
        id: c.id,
        kind: 'Case' as const,
        key: c.key,
        name: c.title,
        at: c.binned_at,
      })),
      ...routines.map((r) => named('Routine', r)),
      ...tables.map((t) => named('Data table', t)),
    ];
  },
);
const state = useListState();
const list = useWhole<Binned>(
  data,
  { words: computed(() => state.filter.value.q ?? ''), sort: state.sort },
  {
    words: (b) => `${b.key} ${b.name} ${b.kind}`,
    order: { name: (b) => b.name.toLowerCase(), kind: (b) => b.kind, at: (b) => b.at ?? '' },
  },
  { error, refetch },
);
const columns: Column<Binned>[] = [
  { name: 'name', word: 'What', width: 'minmax(240px, 1fr)', sorted: true },
  { name: 'kind', word: 'Kind', width: '110px', sorted: true, soft: true, text: (b) => b.kind },
  {
    name: 'at',
    word: 'Binned',
    width: '120px',
    sorted: true,
    soft: true,
    text: (b) => (b.at ? ago(b.at) : ''),
    tip: (b) => (b.at ? exact(b.at) : undefined),
  },
  { name: 'back', word: '', width: '80px' },
];
const { selected, select, clear } = useSelection(() => list.lines.value.map((b) => b.id));
const mayWrite = computed(() => frame.value?.may_write ?? false);
async function restore(what: Binned[]): Promise<void> {
  try {
    const cases = what.filter((b) => b.kind === 'Case');
    for (const b of what.filter((x) => x.kind !== 'Case'))
      if (b.kind === 'Routine') await restoreRoutine(b.id);
      else await restoreTable(b.id);
    if (cases.length > 0) {
      const done = await actOn(project.value, 'restore', { ids: cases.map((c) => c.id).join(',') });
      const act = done.act_id;
      toast(`${done.title}.`, act ? async () => undoAct(act) : undefined);
    } else toast(`${what.map((b) => `"${b.name}"`).join(', ')} ${what.length === 1 ? 'is' : 'are'} back.`);
  } catch (e) {
    toast(errorMessage(e));
  }
  clear();
  await refetch();
}
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><button
        v-if="mayWrite && selected.size > 0"
        type="button"
        class="link"
        @click="restore(list.lines.value.filter((b) => selected.has(b.id)))"
      >
        Restore the chosen
      </button></CasebookTabs
    >
    <ListView one="thing" many="things" :criteria="[]" :state="state" :list="list" :empty="EMPTY">
      <ListTable
        what="thing"
        label="What is in the bin"
        :rows="list.lines.value"
        :columns="columns"
        :sort="state.sort.value"
        :selected="mayWrite ? selected : null"
        :name-of="(b) => b.key || b.name"
        @sort="state.sortBy"
        @select="select"
        @all="(on) => (on ? (selected = new Set(list.lines.value.map((b) => b.id))) : clear())"
        @open="(b) => b.kind === 'Case' && router.push(`/${project}/casebook/${b.key}`)"
      >
        <template #name="{ row: b }"
          ><template v-if="b.kind === 'Case'"
            ><span class="mono soft">{{ b.key }}</span>
            <RouterLink class="plain" :to="`/${project}/casebook/${b.key}`">{{
              b.name
            }}</RouterLink></template
          ><template v-else>{{ b.name }}</template></template
        >
        <template #back="{ row: b }"
          ><button v-if="mayWrite" type="button" class="link" @click="restore([b])">Restore</button></template
        >
      </ListTable>
    </ListView>
  </div>
</template>
