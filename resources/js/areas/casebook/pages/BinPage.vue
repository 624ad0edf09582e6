<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api, errorMessage, unwrap, type Api } from '@/api/client';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { actOn, undoAct, useFrame } from '@/areas/casebook/frame';

/** What was binned, and the way back. */
const EMPTY =
  'The bin is empty. A binned case leaves lists, suites and rules; its entries stay and say so, ' +
  'and it comes back with its key and its links.';
const route = useRoute();
const project = computed(() => String(route.params.project));
const { frame } = useFrame(project);
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['bin', project.value],
  async () => {
    const path = { project: project.value };
    const [cases, routines, tables] = await Promise.all([
      api.GET('/projects/{project}/cases', {
        params: { path, query: { bin: 'yes', sort: '-changed' } },
      }),
      api.GET('/projects/{project}/routines', { params: { path, query: { bin: 'yes' } } }),
      api.GET('/projects/{project}/data-tables', { params: { path, query: { bin: 'yes' } } }),
    ]);
    return { cases: unwrap(cases), routines: unwrap(routines), tables: unwrap(tables) };
  },
);
async function restore(cases: Api['CaseLine'][]): Promise<void> {
  try {
    const done = await actOn(project.value, 'restore', { ids: cases.map((c) => c.id).join(',') });
    const act = done.act_id;
    toast(`${done.title}.`, act ? async () => undoAct(act) : undefined);
    await refetch();
  } catch (e) {
    toast(errorMessage(e));
  }
}
async function bringBack(kind: 'routine' | 'table', id: string, name: string): Promise<void> {
  try {
    if (kind === 'routine')
      await api.POST('/routines/{routine}/restorations', { params: { path: { routine: id } }, body: {} });
    else await api.POST('/data-tables/{table}/restorations', { params: { path: { table: id } }, body: {} });
    toast(`"${name}" is back.`);
    await refetch();
  } catch (e) {
    toast(errorMessage(e));
  }
}
const nothing = computed(
  () =>
    data.value && data.value.cases.items.length + data.value.routines.length + data.value.tables.length === 0,
);
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><button
        v-if="frame?.may_write && (data?.cases.items.length ?? 0) > 1"
        type="button"
        class="link"
        @click="data && restore(data.cases.items)"
      >
        Restore all that are shown
      </button></CasebookTabs
    >
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox v-else-if="nothing" :empty="EMPTY" />
    <template v-else>
      <p class="soft">
        What is here has left lists, suites and rules. It comes back with its key, its links and its folder.
      </p>
      <div class="scroll">
        <table class="lines">
          <thead>
            <tr>
              <th>What</th>
              <th>Binned</th>
              <th><span class="unseen">Restore</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="c in data.cases.items" :key="c.id">
              <td>
                <span class="mono soft">{{ c.key }}</span>
                <RouterLink class="plain long" :to="`/${project}/casebook/${c.key}`">
                  {{ c.title }}</RouterLink
                >
              </td>
              <td class="soft" :title="c.binned_at ? exact(c.binned_at) : undefined">
                {{ c.binned_at ? ago(c.binned_at) : '' }}
              </td>
              <td>
                <button v-if="frame?.may_write" type="button" class="link" @click="restore([c])">
                  Restore
                </button>
              </td>
            </tr>
            <tr v-for="r in data.routines" :key="r.id">
              <td><span class="soft">Routine</span> {{ r.name }}</td>
              <td class="soft">{{ r.binned_at ? ago(r.binned_at) : '' }}</td>
              <td>
                <button
                  v-if="frame?.may_write"
                  type="button"
                  class="link"
                  @click="bringBack('routine', r.id, r.name)"
                >
                  Restore
                </button>
              </td>
            </tr>
            <tr v-for="t in data.tables" :key="t.id">
              <td><span class="soft">Data table</span> {{ t.name }}</td>
              <td class="soft">{{ t.binned_at ? ago(t.binned_at) : '' }}</td>
              <td>
                <button
                  v-if="frame?.may_write"
                  type="button"
                  class="link"
                  @click="bringBack('table', t.id, t.name)"
                >
                  Restore
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>
