<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import { readLog, removeLogWords, signOff } from '@/areas/cycles/queries';
import CountBar from '@/kit/CountBar.vue';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import { mayLead, mayRemoveContent } from '@/areas/people/session';
import { usePlanningSetup } from '@/areas/setup/queries';
import PickOne from '@/kit/PickOne.vue';
import RemoveWords from '@/kit/RemoveWords.vue';
import StateBox from '@/kit/StateBox.vue';
import { ago, day, exact, plural, wordOf, type Shown } from '@/kit/words';
import CycleHead from '@/areas/cycles/parts/CycleHead.vue';
import { undoPlanAct, useCycles, usePlan } from '@/areas/cycles/usePlan';

/** What was done to a cycle, by whom and why; and its sign-off. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const key = computed(() => String(route.params.cycle));
const { data, error, isPending, refetch } = usePlan(key);
const { data: log, refetch: again } = useRead(
  'cycle',
  () => ['cycle-log', key.value],
  () => readLog(key.value),
);
const { data: cycles } = useCycles(project);
const { data: setup } = usePlanningSetup(project);
const builds = computed(() => setup.value?.builds);
const note = ref('');
const problem = ref('');
const left = computed(() => data.value?.left ?? 0);
const released = computed(() => !['draft', 'in_review'].includes(data.value?.cycle.cycle.state ?? 'draft'));
async function sign(): Promise<void> {
  problem.value = '';
  try {
    await signOff(key.value, { note: note.value });
    note.value = '';
    toast('Signed off.');
    void refetch();
    void again();
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
/** What the server puts where words were taken out. */
const REMOVED = '(removed)';
const mayRemove = computed(() => mayRemoveContent(project.value));
async function remove(line: number, reason: string): Promise<void> {
  await removeLogWords(key.value, line, reason);
  void refetch();
  void again();
}
const names: Record<string, string> = { build: 'Build', starts_on: 'Starts', ends_on: 'Ends' };
const shown = (c: Api['ChangeOfField'], value: string): string =>
  value === '' ? 'none' : c.field === 'build' ? value : day(value);
const changed = (c: Api['ChangeOfField']): string =>
  `${names[c.field] ?? c.field}: ${shown(c, c.from)} → ${shown(c, c.to)}`;
async function undo(id: string): Promise<void> {
  try {
    toast(await undoPlanAct(id));
  } catch (e) {
    toast(errorMessage(e));
  }
  void refetch();
  void again();
}
</script>

<template>
  <div class="page">
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <CycleHead
        :project="project"
        :cycle="data.cycle.cycle"
        :next="data.cycle.next"
        @moved="
          refetch();
          again();
        "
      />
      <div class="columns">
        <section aria-label="What was done">
          <h2>What was done</h2>
          <ol v-if="log">
            <li v-for="l in log" :key="l.id">
              <span class="soft small when" :title="exact(l.at)">{{ ago(l.at) }}</span>
              <span class="long"
                >{{ l.text }}<span class="soft">, {{ l.by?.name ?? 'by itself' }}</span
                ><span v-if="l.changes.length > 0" class="soft small changes">{{
                  l.changes.map(changed).join('; ')
                }}</span
                ><span v-if="l.reason" class="why">“{{ l.reason }}”</span>
                <RemoveWords
                  v-if="mayRemove && l.reason && l.reason !== REMOVED"
                  :of="l.text"
                  :remove="(why) => remove(l.id, why)"
              /></span>
              <button
                v-if="l.act_id && mayLead(project)"
                type="button"
                class="link soft small"
                @click="undo(l.act_id)"
              >
                Undo
              </button>
            </li>
          </ol>
          <p v-if="log && log.length === 0" class="soft">Nothing yet.</p>
        </section>
        <aside>
          <section aria-label="Sign-off" class="sheet sign">
            <h2>Sign-off</h2>
            <template v-if="data.cycle.signed_off">
              <p>
                {{ data.cycle.signed_off.by.name }},
                <span :title="exact(data.cycle.signed_off.at)">{{ ago(data.cycle.signed_off.at) }}</span><span
                  v-if="data.cycle.signed_off.note"
                  class="why"
                  >“{{ data.cycle.signed_off.note }}”</span
                >
              </p>
              <CountBar
                :counts="data.cycle.signed_off.counts"
                :total="Object.values(data.cycle.signed_off.counts).reduce((a, b) => a + b, 0)"
              />
              <p v-if="data.cycle.signed_off.unwalked.length === 0" class="soft small">
                Nothing was left unwalked.
              </p>
              <details v-else>
                <summary>
                  {{ plural(data.cycle.signed_off.unwalked.length, 'entry', 'entries') }} knowingly left
                  unwalked
                </summary>
                <ul class="small">
                  <li v-for="e in data.cycle.signed_off.unwalked" :key="e.id" class="one">
                    <span class="long"
                      ><span class="mono soft">{{ e.key }}</span> {{ e.title }}</span
                    >
                    <span class="soft"
                      >{{ e.configuration }}, {{ wordOf(e.display_state as Shown).toLowerCase() }}</span
                    >
                  </li>
                </ul>
              </details>
            </template>
            <p v-else class="soft small">
              A sign-off keeps who accepted the state of this cycle, when, and what was knowingly left
              unwalked.
            </p>
            <form v-if="mayLead(project) && released" class="form" @submit.prevent="sign">
              <p v-if="left > 0" class="small">{{ plural(left, 'entry is', 'entries are') }} unwalked now.</p>
              <label
                ><span class="label">{{ left > 0 ? 'Why that is all right' : 'A word, if you like' }}</span
                ><textarea v-model="note" class="field" rows="2" maxlength="2000" />
              </label>
              <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
              <Button
                type="submit"
                outlined
                severity="secondary"
                :label="data.cycle.signed_off ? 'Sign off again' : 'Sign off'"
              />
            </form>
          </section>
          <section aria-label="Compare" class="form">
            <h2>Compare</h2>
            <PickOne
              :model-value="null"
              label="This cycle with another"
              none="Choose one"
              :options="
                (cycles ?? [])
                  .filter((x) => x.key !== key)
                  .map((c) => ({
                    value: c.key,
                    label: c.build ? `${c.name}, build ${c.build.name}` : c.name,
                  }))
              "
              @update:model-value="(c) => router.push(`/${project}/cycles/${key}/compare?with=${c}`)"
            />
            <PickOne
              v-if="data.cycle.cycle.build"
              :model-value="null"
              :label="`All of build ${data.cycle.cycle.build.name} with another`"
              none="Choose a build"
              :options="
                (builds ?? [])
                  .filter((b) => b.id !== data?.cycle.cycle.build?.id)
                  .map((b) => ({ value: b.id, label: b.name }))
              "
              @update:model-value="
                (b) => router.push(`/${project}/compare?build=${data?.cycle.cycle.build?.id}&with=${b}`)
              "
            />
          </section>
        </aside>
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: 40px;
  align-items: start;
}
ol > li {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  gap: 12px;
  padding: 7px 0;
  border-bottom: 1px solid var(--rule);
  align-items: baseline;
}
.changes {
  display: block;
}
.why {
  display: block;
  font-style: italic;
}
aside,
.form {
  display: grid;
  gap: 12px;
}
.form {
  justify-items: start;
}
.form > label {
  width: 100%;
}
.sign {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}
.one {
  display: grid;
  padding: 3px 0;
}
summary {
  cursor: pointer;
  min-height: 24px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
