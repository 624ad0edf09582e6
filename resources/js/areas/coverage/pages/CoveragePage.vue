<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import CoverageGrid from '@/areas/coverage/parts/CoverageGrid.vue';
import CoverageTree from '@/areas/coverage/parts/CoverageTree.vue';
import CoverageTrend from '@/areas/coverage/parts/CoverageTrend.vue';
import LensBar from '@/areas/coverage/parts/LensBar.vue';
import NewRequirement from '@/areas/coverage/parts/NewRequirement.vue';
import { readCoverage } from '@/areas/coverage/queries';
import { answer, isGap, lensOf, VIEWS, type Row } from '@/areas/coverage/tree';
import { may } from '@/areas/people/session';
import KeyCap from '@/kit/KeyCap.vue';
import SegmentedWords from '@/kit/SegmentedWords.vue';
import StateBox from '@/kit/StateBox.vue';
import { useKeys } from '@/kit/keys';
import { useListState } from '@/kit/useListState';
import { day, exact } from '@/kit/words';
import { useRead } from '@/offline/useRead';

/** What must hold, and what is proven of it: as a tree, by build or configuration, and day by day; through a lens that the address has. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { filter, set } = useListState();
const lens = computed(() => lensOf(filter.value));
const view = computed(() => VIEWS.find((v) => v.value === filter.value.view)?.value ?? 'tree');
const gaps = computed(() => filter.value.gaps !== undefined);
const { data, error, isPending, refetch } = useRead(
  // What is walked meanwhile is seen too.
  ['requirement', 'entry'],
  () => [project.value, 'coverage', lens.value],
  () => readCoverage(project.value, lens.value),
  () => `coverage:${project.value}:${JSON.stringify(lens.value)}`,
);
/** What can be asked of stays in sight while an answer is waited for, or is refused. */
const lenses = ref<Api['CoverageLenses']>();
watch(data, (now) => (lenses.value = now?.lenses ?? lenses.value), { immediate: true });
// What is past is looked at alone.
const mayWrite = computed(() => may(project.value, 'write_cases') && lens.value.as_of === undefined);
const turned = ref(new Set<string>());
const lit = ref('');
function turn(id: string): void {
  const next = new Set(turned.value);
  if (!next.delete(id)) next.add(id);
  turned.value = next;
}
const isWanting = computed(() => !gaps.value || (data.value?.rows.some(isGap) ?? false));

const writing = ref(false);
/** The one that was lit when writing began. */
const below = ref<Row>();
const form = ref<InstanceType<typeof NewRequirement> | null>(null);
function begin(): void {
  if (!mayWrite.value) return;
  if (!writing.value) below.value = data.value?.rows.find((r) => r.id === lit.value);
  writing.value = true;
  form.value?.focus();
}
watch(project, () => (lit.value = ''));
const look = (to: string): void => set('view', to === 'tree' ? undefined : to);
useKeys('Coverage', () => [
  ...(view.value === 'trend'
    ? []
    : [
        {
          keys: ['w'],
          label: 'Only what is wanting',
          run: () => set('gaps', gaps.value ? undefined : 'yes'),
        },
      ]),
  {
    keys: ['v'],
    label: 'Tree, by build, by configuration, day by day',
    run: () => look(VIEWS[(VIEWS.findIndex((v) => v.value === view.value) + 1) % VIEWS.length]!.value),
  },
  ...(mayWrite.value ? [{ keys: ['n'], label: 'New requirement, below the lit one', run: begin }] : []),
]);
</script>

<template>
  <div class="page coverage">
    <div class="title-line">
      <h1>Coverage</h1>
      <span v-if="data" class="soft" :title="`As of ${exact(data.as_of)}`">{{ answer(data.counts) }}</span>
      <div class="actions row">
        <RouterLink v-if="mayWrite" :to="`/${project}/coverage/import`">Bring in</RouterLink>
        <a
          v-for="f in ['CSV', 'XLSX', 'ReqIF', 'JSON']"
          :key="f"
          class="soft small"
          :href="`/api/v1/projects/${project}/requirement-export?format=${f.toLowerCase()}`"
          :aria-label="`Take out as ${f}`"
          >{{ f }}</a
        >
        <Button v-if="mayWrite" outlined severity="secondary" @click="begin"
          >New requirement <KeyCap of="n"
        /></Button>
      </div>
    </div>
    <div class="row tools">
      <LensBar
        :lenses="lenses"
        :lens="lens"
        @set="(name, value) => set(name, value === '' ? undefined : value)"
      />
      <span class="row end">
        <button
          v-if="view !== 'trend'"
          type="button"
          class="link gaps"
          :aria-pressed="gaps"
          @click="set('gaps', gaps ? undefined : 'yes')"
        >
          {{ gaps ? 'All requirements' : 'What is wanting' }} <KeyCap of="w" />
        </button>
        <SegmentedWords label="Looked at" :options="VIEWS" :chosen="view" @choose="look" />
      </span>
    </div>
    <p v-if="lens.as_of" class="past small" role="note">
      As it stood at the end of {{ day(lens.as_of) }}: requirements, links, verdicts and builds of that day.
      <button type="button" class="link" @click="set('as_of', undefined)">Back to now</button>
    </p>
    <NewRequirement
      v-if="writing && mayWrite"
      ref="form"
      :project="project"
      :below="below"
      @made="refetch()"
      @leave="writing = false"
    />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="data.rows.length === 0"
      :empty="
        lens.as_of
          ? 'Nothing was required by then.'
          : 'Nothing is required yet. Write what must hold, or bring it in; cases linked to it show what is proven.'
      "
    >
      <Button v-if="mayWrite" @click="begin">Write the first</Button>
    </StateBox>
    <CoverageTrend
      v-else-if="view === 'trend'"
      :project="project"
      :lens="lens"
      :days="Number(filter.days ?? 30)"
      @days="(d) => set('days', d === 30 ? undefined : String(d))"
    />
    <CoverageGrid
      v-else-if="view !== 'tree'"
      v-model="lit"
      :project="project"
      :by="view"
      :lens="lens"
      :gaps="gaps"
      :turned="turned"
      @turn="turn"
    />
    <StateBox
      v-else-if="!isWanting"
      empty="Nothing is wanting here: every requirement is proven through this lens."
    />
    <CoverageTree
      v-else
      v-model="lit"
      :project="project"
      :data="data"
      :lens="lens"
      :gaps="gaps"
      :turned="turned"
      :may-write="mayWrite"
      :renew="refetch"
      @turn="turn"
    />
  </div>
</template>

<style scoped>
.coverage {
  display: flex;
  flex-direction: column;
  height: calc(100dvh - 49px);
  padding-bottom: 8px;
}
.tools {
  justify-content: space-between;
  gap: 8px 14px;
  margin: 4px 0 10px;
}
.end {
  gap: 14px;
  margin-left: auto;
}
.past {
  background: var(--well);
  border-left: 3px solid var(--lantern);
  padding: 6px 12px;
  margin-bottom: 10px;
}
@media (max-width: 900px) {
  .coverage {
    height: auto;
  }
  .end {
    margin-left: 0;
  }
}
</style>
