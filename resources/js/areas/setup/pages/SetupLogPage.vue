<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';
import { mayRemoveContent } from '@/areas/people/session';
import { removeSetupWords, undoSetupAct, useSetupLog } from '@/areas/setup/queries';
import RemoveWords from '@/kit/RemoveWords.vue';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { ago, day, exact } from '@/kit/words';
import { typedTime } from '@/kit/zone';

/** What was changed in the setup, in policies and in milestones: by day, who and what. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { lines, there, loading, error, further, more, refetch } = useSetupLog(project);
const mayRemove = computed(() => mayRemoveContent(project.value));
async function remove(act: number, reason: string): Promise<void> {
  await removeSetupWords(project.value, act, reason);
  refetch();
}
const problem = ref<{ act: number; words: string } | null>(null);
async function undo(act: number): Promise<void> {
  problem.value = null;
  try {
    await undoSetupAct(project.value, act);
    toast('It is as it was before.');
  } catch (e) {
    problem.value = { act, words: errorMessage(e) };
  }
  refetch();
}
const days = computed(() => {
  const by: Record<string, Api['SetupAct'][]> = {};
  for (const act of lines.value) (by[typedTime(act.at).slice(0, 10)] ??= []).push(act);
  return Object.entries(by);
});
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!there" :loading="loading" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="lines.length === 0" class="soft">Nothing was changed yet.</p>
      <section v-for="[on, acts] in days" :key="on" :aria-label="day(on)">
        <h2>{{ day(on) }}</h2>
        <ol>
          <li v-for="a in acts" :key="a.id">
            <span class="soft" :title="exact(a.at)">{{ typedTime(a.at).slice(11, 16) }}</span>
            <span>{{ a.by?.name ?? 'Lucid Step' }}</span>
            <ul class="long">
              <li v-for="l in a.lines" :key="l">{{ l }}</li>
              <li v-if="a.removed" class="soft small">
                {{ a.removed.by?.name ?? 'Lucid Step' }} took words out,
                <span :title="exact(a.removed.at)">{{ ago(a.removed.at) }}</span>: {{ a.removed.reason }}
              </li>
              <li v-if="a.may_undo">
                <button type="button" class="link" :aria-label="`Undo: ${a.lines[0]}`" @click="undo(a.id)">
                  Undo
                </button>
              </li>
              <li v-if="problem?.act === a.id" class="p-invalid-words" role="alert">{{ problem.words }}</li>
              <li v-if="mayRemove && a.has_words">
                <RemoveWords :of="a.lines[0] ?? ''" :remove="(why) => remove(a.id, why)" />
              </li>
            </ul>
          </li>
        </ol>
      </section>
      <p v-if="further"><button type="button" class="link" @click="more()">Earlier changes</button></p>
    </template>
  </div>
</template>

<style scoped>
section {
  display: grid;
  grid-template-columns: minmax(7rem, 12rem) minmax(0, 1fr);
  gap: 4px 32px;
  padding: 20px 0;
  border-top: 1px solid var(--rule);
}
ol > li {
  display: grid;
  grid-template-columns: 4rem 10rem minmax(0, 1fr);
  gap: 2px 16px;
  padding: 4px 0;
  align-items: baseline;
}
ul {
  display: grid;
  gap: 3px;
}
@media (max-width: 860px) {
  section {
    grid-template-columns: minmax(0, 1fr);
  }
  ol > li {
    grid-template-columns: 4rem minmax(0, 1fr);
  }
  ul {
    grid-column: 2;
  }
}
</style>
