<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plural } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { useFrame } from '@/areas/casebook/frame';

const EMPTY =
  'A routine is a run of steps that many cases use, written once and changed in one place. ' +
  'Write one, or choose steps in a case and make a routine of them.';
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { frame, frameError, refetchFrame } = useFrame(project);
const words = ref('');
const found = computed(() =>
  (frame.value?.routines ?? []).filter((r) =>
    `${r.name} ${r.description}`.toLowerCase().includes(words.value.toLowerCase()),
  ),
);
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><Button
        v-if="frame?.may_write"
        label="New routine"
        @click="router.push(`/${project}/casebook/routines/new`)"
    /></CasebookTabs>
    <StateBox v-if="!frame" :error="frameError" loading @again="refetchFrame()" />
    <StateBox v-else-if="frame.routines.length === 0" :empty="EMPTY" />
    <template v-else>
      <input
        v-if="frame.routines.length > 8"
        v-model="words"
        class="field find"
        placeholder="Words"
        aria-label="Find routines by words"
      />
      <div class="scroll">
        <table class="lines">
          <thead>
            <tr>
              <th>Routine</th>
              <th>Parameters</th>
              <th class="number">Steps</th>
              <th class="number">Used in</th>
              <th>Changed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="r in found" :key="r.id">
              <td>
                <RouterLink class="plain" :to="`/${project}/casebook/routines/${r.id}`"
                  ><strong>{{ r.name }}</strong></RouterLink
                ><span class="soft small second long">{{ r.description }}</span>
              </td>
              <td>
                <span v-for="p in r.parameters" :key="p.name" class="chip" :title="p.default || undefined">{{
                  p.name
                }}</span>
              </td>
              <td class="number">{{ r.steps }}</td>
              <td class="number">
                <RouterLink v-if="r.uses" :to="`/${project}/casebook?routine=${r.id}`">{{
                  plural(r.uses, 'case')
                }}</RouterLink><span v-else class="soft">no case</span>
              </td>
              <td class="soft" :title="exact(r.updated_at)">{{ ago(r.updated_at) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>

<style scoped>
.second {
  display: block;
}
.find {
  width: min(300px, 100%);
  margin-bottom: 8px;
}
.chip {
  margin-right: 6px;
}
</style>
