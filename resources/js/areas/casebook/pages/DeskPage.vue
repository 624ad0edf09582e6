<script setup lang="ts">
import { computed, reactive } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { differOnPurpose, readCare, readInbox } from '@/areas/casebook/queries';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import StateBox from '@/kit/StateBox.vue';
import { ago, plural } from '@/kit/words';
import CasebookTabs from '@/areas/casebook/parts/CasebookTabs.vue';
import { useFrame } from '@/areas/casebook/frame';
import MessageCard from '@/areas/casebook/parts/MessageCard.vue';

/** What waits for the authors of cases: questions, suggestions, reviews; cases that need a look. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const mine = computed(() => route.query.mine !== 'no');
const days = computed(() => Number(route.query.days ?? 90));
const { frame } = useFrame(project);
const { data, error, isPending, refetch } = useRead(
  'case',
  () => ['inbox', project.value, mine.value],
  () => readInbox(project.value, { mine: mine.value ? 'yes' : 'no' }),
);
const { data: care, refetch: again } = useRead(
  'case',
  () => ['care', project.value, days.value],
  () => readCare(project.value, { days: String(days.value) }),
);
async function differ(group: Api['SimilarCases']): Promise<void> {
  const cases = group.cases.map((c) => c.id);
  try {
    await differOnPurpose(project.value, { cases });
    toast(`${group.cases.map((c) => c.key).join(', ')} are not pointed out any more.`, async () => {
      await differOnPurpose(project.value, { cases, differ: false });
      await again();
      return 'They are pointed out again.';
    });
    await again();
  } catch (e) {
    toast(errorMessage(e));
  }
}
/** So many of a group are shown at once. */
const FEW = 4;
const whole = reactive(new Set<string>());
</script>

<template>
  <div class="page">
    <CasebookTabs :waiting="frame?.waiting"
      ><label class="soft"
        ><input
          type="checkbox"
          :checked="!mine"
          @change="router.replace({ query: { ...route.query, mine: mine ? 'no' : undefined } })"
        />
        of every owner</label
      ></CasebookTabs
    >
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <div v-else class="columns">
      <section aria-label="Questions and suggestions">
        <h2>Questions and suggestions</h2>
        <MessageCard
          v-for="m in data.messages"
          :key="m.id"
          :project="project"
          :message="m"
          :may-answer="frame?.may_write ?? false"
          named
          @changed="refetch()"
        />
        <p v-if="data.messages.length === 0" class="soft">
          {{ mine ? 'Nobody asks about your cases.' : 'Nobody asks.' }}
        </p>
        <h2>Returned to you</h2>
        <p v-for="c in data.returned" :key="c.id">
          <RouterLink :to="`/${project}/casebook/${c.key}`"
            ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
          >
        </p>
        <p v-if="data.returned.length === 0" class="soft">None.</p>
        <h2>In review</h2>
        <p v-for="c in data.in_review" :key="c.id">
          <RouterLink :to="`/${project}/casebook/${c.key}`"
            ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
          >
          <span class="soft small"> {{ c.owner?.name }}</span>
        </p>
        <p v-if="data.in_review.length === 0" class="soft">None.</p>
      </section>
      <section v-if="care" aria-label="Cases that need a look">
        <h2>Likely doubles</h2>
        <div v-for="d in care.doubles" :key="d.cases[0]!.id" class="double">
          <p v-for="c in d.cases.slice(0, whole.has(d.cases[0]!.id) ? undefined : FEW)" :key="c.id">
            <RouterLink :to="`/${project}/casebook/${c.key}`"
              ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
            >
          </p>
          <p class="small soft row">
            <button
              v-if="d.cases.length > FEW && !whole.has(d.cases[0]!.id)"
              type="button"
              class="link"
              @click="whole.add(d.cases[0]!.id)"
            >
              {{ plural(d.cases.length - FEW, 'more', 'more') }}
            </button>
            <span
              >{{ d.cases.length === 2 ? '' : `${d.cases.length} alike, ` }}{{ Math.round(d.score * 100) }} %
              of their words are the same</span
            >
            <button v-if="frame?.may_write" type="button" class="link soft" @click="differ(d)">
              These differ on purpose
            </button>
          </p>
        </div>
        <p v-if="care.doubles.length === 0" class="soft">None.</p>
        <h2>
          Not walked for
          <select
            class="field pick"
            :value="days"
            aria-label="Not walked for how long"
            @change="
              router.replace({
                query: { ...route.query, days: ($event.target as HTMLSelectElement).value },
              })
            "
          >
            <option v-for="d in [7, 30, 90, 180, 365]" :key="d" :value="d">{{ d }} days</option>
          </select>
        </h2>
        <p v-for="c in care.stale.slice(0, 40)" :key="c.id">
          <RouterLink :to="`/${project}/casebook/${c.key}`"
            ><span class="mono">{{ c.key }}</span> {{ c.title }}</RouterLink
          >
          <span class="soft small">
            {{ c.last_walked_at ? `walked ${ago(c.last_walked_at)}` : 'never walked' }}</span
          >
        </p>
        <p v-if="care.stale.length > 40">
          <RouterLink :to="`/${project}/casebook?walked=${days}`"
            >All {{ plural(care.stale.length, 'case') }}</RouterLink
          >
        </p>
        <p v-if="care.stale.length === 0" class="soft">None.</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 48px;
}
section {
  display: grid;
  gap: 8px;
  align-content: start;
}
h2 {
  margin-top: 14px;
}
h2:first-child {
  margin-top: 0;
}
.columns p > a {
  display: inline-block;
  line-height: 24px;
}
.double {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 8px;
}
.pick {
  width: auto;
  padding: 2px 6px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
