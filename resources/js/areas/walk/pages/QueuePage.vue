<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { useRead } from '@/offline/useRead';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plural } from '@/kit/words';
import { changeEntries } from '@/areas/cycles/queries';
import { acceptTime, askRetest, judgeLate, markLooked, readQueue } from '@/areas/walk/queries';
import type { Term } from '@/kit/terms';
import TermWord from '@/kit/TermWord.vue';

/** Everything that waits for a lead; what is decided leaves it by itself. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch } = useRead(
  'entry',
  () => ['queue', project.value],
  () => readQueue(project.value),
);
const KINDS: Record<string, string> = {
  review: 'Cycles to review',
  look: 'Handed over for a look',
  retest: 'Retests to decide',
  condition: 'Conditions that cannot be met',
  late: 'Arrived too late',
  time: 'Corrected times',
  case_review: 'Cases to approve',
  suite: 'Suites that changed',
};
/** Which of them are words of one meaning. */
const TERMS_OF: Record<string, Term> = { look: 'handover', retest: 'retest', late: 'late' };
const groups = computed(() =>
  Object.entries(KINDS)
    .map(([kind, word]) => ({ kind, word, items: (data.value?.items ?? []).filter((i) => i.kind === kind) }))
    .filter((g) => g.items.length > 0),
);
const asking = ref('');
const reason = ref('');
async function run(work: () => Promise<unknown>, words: string): Promise<void> {
  try {
    await work();
    toast(words);
  } catch (e) {
    toast(errorMessage(e));
  }
  void refetch();
}
const of = (i: Api['QueueItem']): string => i.subject_id.split(' ')[0]!;
const looked = (i: Api['QueueItem']): Promise<void> => run(() => markLooked(of(i)), `${i.title}: looked at.`);
const seen = (i: Api['QueueItem']): Promise<void> =>
  run(() => acceptTime(of(i)), 'The corrected time stands.');
/** So many of the acts that arrived together are shown at once. */
const FEW = 6;
const shown = reactive(new Set<string>());
/** Everything of the same person for the same attempt, in the order of their device. What the rules refuse is said. */
async function judge(i: Api['QueueItem'], accept: boolean): Promise<void> {
  let refused: Api['RefusedCommand'][] = [];
  await run(
    async () => {
      refused = (await judgeLate(of(i), accept)).refused;
    },
    accept ? 'Accepted, and applied as it was recorded.' : 'Set aside. It stays readable.',
  );
  if (refused.length > 0)
    toast(`Set aside, since it cannot be applied: ${refused.map((r) => `${r.command}. ${r.why}`).join(' ')}`);
}
async function retest(i: Api['QueueItem']): Promise<void> {
  await run(() => askRetest(of(i), reason.value), `${i.title}: retest asked.`);
  asking.value = '';
}
const drop = (i: Api['QueueItem']): Promise<void> => {
  const [entry, needs] = i.subject_id.split(' ');
  const cycle = i.link.split('/cycles/')[1]?.split('/')[0] ?? '';
  return run(
    () => changeEntries(cycle, { act: 'no_condition', ids: [entry!], changes: { needs_id: needs } }),
    'The condition is dropped.',
  );
};
</script>

<template>
  <div class="page">
    <p class="soft small crumb"><RouterLink :to="`/${project}/cycles`">Cycles</RouterLink></p>
    <div class="title-line">
      <h1>Waits for a lead</h1>
      <span v-if="data" class="soft">{{ plural(data.items.length, 'thing') }}</span>
    </div>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="data.items.length === 0"
      empty="Nothing waits for you. Reviews, hand-overs, retests to decide, late arrivals and corrected times come here."
    />
    <section v-for="g in groups" :key="g.kind" :aria-label="g.word">
      <h2>
        <TermWord v-if="TERMS_OF[g.kind]" :of="TERMS_OF[g.kind]!">{{ g.word }}</TermWord>
        <template v-else>{{ g.word }}</template> <span class="soft">{{ g.items.length }}</span>
      </h2>
      <ul>
        <li v-for="i in g.items" :key="i.id">
          <div class="what">
            <RouterLink class="plain name long" :to="i.link">{{ i.title }}</RouterLink>
            <span class="long">{{ i.text }}</span>
            <ol v-if="i.lines.length > 0" class="small lines">
              <li
                v-for="(line, n) in i.lines.slice(0, shown.has(i.id) ? undefined : FEW)"
                :key="n"
                class="long"
              >
                {{ line }}
              </li>
            </ol>
            <button
              v-if="i.lines.length > FEW && !shown.has(i.id)"
              type="button"
              class="link small"
              @click="shown.add(i.id)"
            >
              {{ plural(i.lines.length - FEW, 'more', 'more') }}
            </button>
            <span class="soft small"
              ><template v-if="i.by">{{ i.by.name }}, </template
              ><span v-if="i.at" :title="exact(i.at)">{{ ago(i.at) }}</span
              ><template v-if="i.cycle && i.cycle !== i.title"> · {{ i.cycle }}</template></span
            >
          </div>
          <div class="row acts">
            <RouterLink v-if="['review', 'case_review', 'suite'].includes(i.kind)" :to="i.link"
              >Look at it</RouterLink
            >
            <button v-if="i.kind === 'look'" type="button" class="link" @click="looked(i)">Looked at</button>
            <button v-if="i.kind === 'time'" type="button" class="link" @click="seen(i)">It stands</button>
            <button v-if="i.kind === 'condition'" type="button" class="link" @click="drop(i)">
              Drop the condition
            </button>
            <template v-if="i.kind === 'late'">
              <button type="button" class="link" @click="judge(i, true)">
                {{ i.lines.length > 1 ? `Accept all ${i.lines.length}` : 'Accept it' }}
              </button>
              <button type="button" class="link soft" @click="judge(i, false)">
                {{ i.lines.length > 1 ? 'Set all aside' : 'Set aside' }}
              </button>
            </template>
            <template v-if="i.kind === 'retest'">
              <form v-if="asking === i.id" class="row" @submit.prevent="retest(i)">
                <input v-model="reason" class="field" aria-label="What to look at again" maxlength="2000" />
                <button type="submit" class="link">Ask</button>
                <button type="button" class="link soft" @click="asking = ''">Leave it</button>
              </form>
              <button
                v-else
                type="button"
                class="link"
                @click="
                  asking = i.id;
                  reason = i.text.split(':')[0] ?? '';
                "
              >
                Ask for a retest
              </button>
            </template>
          </div>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 980px;
  margin-bottom: 24px;
}
ul > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 24px;
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
  align-items: center;
}
.what {
  display: grid;
}
.name {
  font-weight: 700;
}
.lines {
  margin: 4px 0 4px 0;
  padding-left: 18px;
}
.what .link {
  justify-self: start;
}
.acts .field {
  width: 260px;
}
@media (max-width: 760px) {
  ul > li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
