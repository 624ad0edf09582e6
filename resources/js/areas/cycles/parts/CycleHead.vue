<script setup lang="ts">
import Button from 'primevue/button';
import { computed, nextTick, ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { moveCycle } from '@/areas/cycles/queries';
import { toast } from '@/kit/notices';
import PageTabs from '@/kit/PageTabs.vue';
import { may, mayLead } from '@/areas/people/session';
import { day, due, plainWords } from '@/kit/words';

/** The title of a cycle's pages: where it stands, where else one can look, and where it may go. */
const props = defineProps<{ project: string; cycle: Api['CycleSummary']; next?: Api['StateChoice'][] }>();
const emit = defineEmits<{ moved: [] }>();
const base = computed(() => `/${props.project}/cycles/${props.cycle.key}`);
const tabs = computed(() => [
  { path: '', word: 'Board' },
  ...(mayLead(props.project) ? [{ path: '/plan', word: 'Plan' }] : []),
  { path: '/paths', word: 'Paths' },
  ...(may(props.project, 'see_evidence') ? [{ path: '/log', word: 'Log' }] : []),
]);
const asked = ref<Api['StateChoice'] | null>(null);
const reason = ref('');
const problem = ref('');
/** Where a cycle is on its way to; everything else goes back or ends it. */
const FORWARD = ['in_review', 'released'];
const VERBS: Record<string, string> = {
  draft: props.cycle.state === 'in_review' ? 'Return to draft' : 'Back to draft',
  in_review: 'Ask for a review',
  released: 'Release',
  closed: 'Close',
  abandoned: 'Abandon',
};
const verb = (to: string): string =>
  to === 'released' && ['closed', 'abandoned'].includes(props.cycle.state)
    ? 'Reopen'
    : to === 'draft' && props.cycle.state === 'in_review'
      ? 'Return to draft'
      : (VERBS[to] ?? to);
async function go(choice: Api['StateChoice']): Promise<void> {
  problem.value = '';
  if ((choice.needs_reason || choice.to === 'closed') && asked.value?.to !== choice.to) {
    asked.value = choice;
    await nextTick();
    document.getElementById('cycle-reason')?.focus();
    return;
  }
  try {
    await moveCycle(props.cycle.key, { to: choice.to, reason: reason.value });
    toast(`${props.cycle.name}: ${plainWords(choice.to).toLowerCase()}.`);
    asked.value = null;
    reason.value = '';
    emit('moved');
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    problem.value = error.errors.reason?.[0] ?? error.message;
  }
}
</script>

<template>
  <div class="title-line">
    <span class="mono soft">{{ cycle.key }}</span>
    <h1 class="long">{{ cycle.name }}</h1>
    <PageTabs label="This cycle" :base="base" :tabs="tabs" />
    <div class="actions">
      <slot />
      <template v-if="mayLead(project)">
        <Button
          v-for="(c, i) in (next ?? []).filter((n) => n.to !== 'abandoned')"
          :key="c.to"
          :outlined="i > 0 || !FORWARD.includes(c.to)"
          :severity="i > 0 || !FORWARD.includes(c.to) ? 'secondary' : undefined"
          :label="verb(c.to)"
          @click="go(c)"
        />
        <button
          v-for="c in (next ?? []).filter((n) => n.to === 'abandoned')"
          :key="c.to"
          type="button"
          class="link soft"
          @click="go(c)"
        >
          Abandon
        </button>
      </template>
    </div>
  </div>
  <p class="soft facts">
    <strong class="state">{{ plainWords(cycle.state) }}</strong> · build {{ cycle.build?.name ?? '–' }} ·
    {{ day(cycle.starts_on) }} to {{ day(cycle.ends_on)
    }}<template v-if="cycle.state === 'released'">, {{ due(cycle.ends_on) }}</template
    ><template v-if="cycle.phase"> · {{ plainWords(cycle.phase).toLowerCase() }}</template>
  </p>
  <form v-if="asked" class="ask sheet" @submit.prevent="go(asked)">
    <label for="cycle-reason">{{
      asked.to === 'closed' ? 'A closed cycle is locked, and its watchers are told. A word for them?' : 'Why?'
    }}</label>
    <input id="cycle-reason" v-model="reason" class="field" maxlength="2000" @keydown.esc="asked = null" />
    <Button type="submit" :label="verb(asked.to)" />
    <button type="button" class="link soft" @click="asked = null">Leave it</button>
  </form>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
</template>

<style scoped>
.title-line {
  margin-bottom: 4px;
}
.facts {
  margin-bottom: 14px;
}
.state {
  color: var(--ink);
}
.ask {
  display: grid;
  grid-template-columns: auto minmax(160px, 1fr) auto auto;
  gap: 12px;
  align-items: center;
  padding: 12px 16px;
  margin-bottom: 14px;
}
@media (max-width: 760px) {
  .ask {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
