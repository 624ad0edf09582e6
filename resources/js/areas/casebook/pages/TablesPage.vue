<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plural } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { useFrame } from '@/areas/casebook/frame';

const EMPTY =
  'A case bound to a data table is walked once for each row, with the row’s values filled in. ' +
  'Type one, or paste it from a spreadsheet.';
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame } = useFrame(project);
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><Button
        v-if="frame?.may_write"
        label="New data table"
        @click="router.push(`/${project}/casebook/tables/new`)"
    /></CasebookTabs>
    <StateBox v-if="!frame" :error="frameError" loading @again="refetchFrame()" />
    <StateBox v-else-if="frame.tables.length === 0" :empty="EMPTY" />
    <div v-else class="scroll">
      <table class="lines">
        <thead>
          <tr>
            <th>Data table</th>
            <th>Columns</th>
            <th class="number">Rows</th>
            <th class="number">Used in</th>
            <th>Changed</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="t in frame.tables" :key="t.id">
            <td>
              <RouterLink class="plain" :to="`/${project}/casebook/tables/${t.id}`"
                ><strong>{{ t.name }}</strong></RouterLink
              >
            </td>
            <td>
              <span v-for="c in t.columns.slice(0, 10)" :key="c.name" class="chip"
                >{{ c.name }}<span v-if="c.secret" class="soft"> secret</span></span
              ><span v-if="t.columns.length > 10" class="soft"> and {{ t.columns.length - 10 }} more</span>
            </td>
            <td class="number">{{ t.rows }}</td>
            <td class="number">
              <RouterLink v-if="t.uses" :to="`/${project}/casebook?table=${t.id}`">{{
                plural(t.uses, 'case')
              }}</RouterLink><span v-else class="soft">no case</span>
            </td>
            <td class="soft" :title="exact(t.updated_at)">{{ ago(t.updated_at) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.chip {
  margin-right: 6px;
}
</style>
