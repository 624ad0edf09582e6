<script setup lang="ts">
import Button from 'primevue/button';
import { computed, reactive, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, errorMessage, Problem, unwrap, type Api } from '@/api/client';
import CountBar from '@/kit/CountBar.vue';
import { useKeys } from '@/kit/keys';
import { toast } from '@/kit/notices';
import { useRead } from '@/offline/useRead';
import { mayLead } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';
import { useSelection } from '@/kit/useSelection';
import { day, due, plainWords, plural } from '@/kit/words';
import ClonePanel from '@/areas/cycles/parts/ClonePanel.vue';
import { leftOut, undoPlanAct, useCycles, useMilestones } from '@/areas/cycles/usePlan';
import { usePlanningSetup } from '@/areas/setup/queries';

/** The cycles of a project under their milestones, or by folder. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const path = computed(() => ({ params: { path: { project: project.value } } }));
const { data, error, isPending, refetch } = useCycles(project);
const { data: milestones, refetch: refetchMilestones } = useMilestones(project);
const { data: setup } = usePlanningSetup(project);
const { data: queue } = useRead(
  'entry',
  () => ['queue', project.value],
  async () =>
    mayLead(project.value)
      ? unwrap(await api.GET('/projects/{project}/queue', path.value))
      : ({ items: [], counts: {} } as Api['LeadQueue']),
);
const byFolder = computed(() => route.query.by === 'folder');
const shown = computed(() =>
  (data.value ?? []).filter((c) => route.query.old === 'yes' || c.state !== 'abandoned'),
);
const groups = computed(() => {
  if (byFolder.value) {
    const names = [...new Set(shown.value.map((c) => c.folder))].sort();
    return names.map((name) => ({
      id: name,
      title: name || 'In no folder',
      milestone: null as Api['MilestoneLine'] | null,
      cycles: shown.value.filter((c) => c.folder === name),
    }));
  }
  const all = [...(milestones.value ?? [])].reverse().map((m) => ({
    id: m.id,
    title: m.name,
    milestone: m as Api['MilestoneLine'] | null,
    cycles: shown.value.filter((c) => c.milestone_id === m.id),
  }));
  const rest = shown.value.filter((c) => !c.milestone_id);
  return rest.length > 0
    ? [...all, { id: '', title: all.length > 0 ? 'Without a milestone' : '', milestone: null, cycles: rest }]
    : all;
});

// Milestones are made and changed in place.
const editing = ref<string | null>(null);
const again = ref<string | null>(null);
const form = reactive({ name: '', type: '' as string, description: '', due_on: '' });
const errors = ref<Record<string, string[]>>({});
const problem = ref('');
function edit(m: Api['MilestoneLine'] | null): void {
  editing.value = m?.id ?? 'new';
  errors.value = {};
  problem.value = '';
  Object.assign(
    form,
    m
      ? { name: m.name, type: m.type, description: m.description, due_on: m.due_on }
      : { name: '', type: setup.value?.milestone_types[0]?.value ?? '', description: '', due_on: '' },
  );
}
async function save(): Promise<void> {
  errors.value = {};
  problem.value = '';
  try {
    if (editing.value === 'new')
      await api.POST('/projects/{project}/milestones', { ...path.value, body: { ...form } });
    else
      await api.PATCH('/milestones/{milestone}', {
        params: { path: { milestone: editing.value! } },
        body: { ...form },
      });
    editing.value = null;
    void refetchMilestones();
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    errors.value = e.errors;
    if (Object.keys(e.errors).length === 0) problem.value = e.message;
  }
}
async function remove(m: Api['MilestoneLine']): Promise<void> {
  try {
    await api.DELETE('/milestones/{milestone}', { params: { path: { milestone: m.id } } });
    toast(`“${m.name}” is gone.`);
    editing.value = null;
    void refetchMilestones();
  } catch (e) {
    toast(errorMessage(e));
  }
}

// Several cycles at once.
const { selected, select, clear, chosen } = useSelection(() => shown.value.map((c) => c.id));
const days = ref('7');
const build = ref('');
async function bulk(body: { days?: number; build_id?: string }): Promise<void> {
  try {
    const done = unwrap(
      await api.POST('/projects/{project}/cycle-acts', {
        ...path.value,
        body: { ids: chosen.value, ...body },
      }),
    );
    const id = done.act_id;
    toast(
      `${done.title}.${leftOut(done.refused)}`,
      id
        ? async () => {
            const said = await undoPlanAct(id);
            void refetch();
            return said;
          }
        : undefined,
    );
    void refetch();
  } catch (e) {
    toast(errorMessage(e));
  }
}
const lead = computed(() => mayLead(project.value));
useKeys('Cycles', () => [
  {
    keys: ['n'],
    label: 'New cycle',
    run: () => lead.value && void router.push(`/${project.value}/cycles/new`),
  },
  {
    keys: ['w'],
    label: 'What waits for a lead',
    run: () => lead.value && void router.push(`/${project.value}/queue`),
  },
]);
</script>

<template>
  <div class="page">
    <div class="title-line">
      <h1>Cycles</h1>
      <span v-if="data" class="soft">{{ shown.length }}</span>
      <button
        type="button"
        class="link soft"
        @click="router.replace({ query: { ...route.query, by: byFolder ? undefined : 'folder' } })"
      >
        {{ byFolder ? 'By milestone' : 'By folder' }}
      </button>
      <div v-if="lead" class="actions">
        <RouterLink :to="`/${project}/queue`" title="What waits for a lead (w)"
          >Waits for a lead: {{ queue?.items.length ?? 0 }}</RouterLink
        >
        <Button outlined severity="secondary" label="New milestone" @click="edit(null)" />
        <Button label="New cycle" title="New cycle (n)" @click="router.push(`/${project}/cycles/new`)" />
      </div>
    </div>
    <form v-if="editing" class="sheet form" aria-label="Milestone" @submit.prevent="save">
      <label
        ><span class="label">Milestone</span><input v-model="form.name" class="field" maxlength="200" />
        <span v-if="errors.name" class="p-invalid-words" role="alert">{{ errors.name[0] }}</span></label
      >
      <label
        ><span class="label">Type</span
        ><select v-model="form.type" class="field">
          <option value="">None</option>
          <option v-for="t in setup?.milestone_types ?? []" :key="t.value" :value="t.value">
            {{ t.name }}
          </option>
        </select></label
      >
      <label
        ><span class="label">Date</span><input v-model="form.due_on" class="field" type="date" />
        <span v-if="errors.due_on" class="p-invalid-words" role="alert">{{ errors.due_on[0] }}</span></label
      >
      <label class="wide"
        ><span class="label">What it is</span
        ><input v-model="form.description" class="field" maxlength="20000"
      /></label>
      <p v-if="problem" class="p-invalid-words wide" role="alert">{{ problem }}</p>
      <p class="row wide">
        <Button type="submit" label="Save the milestone" />
        <button type="button" class="link soft" @click="editing = null">Leave it</button>
        <button
          v-if="editing !== 'new'"
          type="button"
          class="link soft"
          @click="remove(milestones!.find((m) => m.id === editing)!)"
        >
          Take it out
        </button>
      </p>
    </form>
    <section v-if="selected.size > 0" class="sheet bulk row" aria-label="With the chosen cycles">
      <strong>{{ plural(selected.size, 'cycle') }} chosen</strong>
      <form class="row" @submit.prevent="bulk({ days: Number(days) })">
        <label
          >Extend by <input v-model="days" class="field days" type="number" aria-label="Days" /> days</label
        >
        <button type="submit" class="link">Extend</button>
      </form>
      <form class="row" @submit.prevent="build && bulk({ build_id: build })">
        <select v-model="build" class="field" aria-label="Build">
          <option value="">Build …</option>
          <option v-for="b in setup?.builds ?? []" :key="b.id" :value="b.id">{{ b.name }}</option>
        </select>
        <button type="submit" class="link">Change the build</button>
      </form>
      <button type="button" class="link soft" @click="clear()">Clear</button>
    </section>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <StateBox
      v-else-if="groups.length === 0"
      empty="A cycle is a dated set of entries to be walked for a build. There is none in this project yet."
    />
    <section v-for="g in groups" v-else :key="g.id" :aria-label="g.title || 'Cycles'" class="group">
      <div v-if="g.title" class="row head">
        <h2>{{ g.title }}</h2>
        <span v-if="g.milestone" class="soft"
          ><template v-if="g.milestone.type"
            >{{
              setup?.milestone_types.find((t) => t.value === g.milestone?.type)?.name ?? g.milestone.type
            }}, </template
          >{{ due(g.milestone.due_on) }}</span
        >
        <span v-if="g.milestone?.description" class="soft small long">{{ g.milestone.description }}</span>
        <span class="gap" />
        <template v-if="g.milestone && lead">
          <button type="button" class="link soft" @click="edit(g.milestone)">Edit</button>
          <button type="button" class="link soft" @click="again = again === g.id ? null : g.id">Again</button>
        </template>
      </div>
      <ClonePanel
        v-if="again === g.id && g.milestone && setup"
        :project="project"
        :setup="setup"
        :milestone="g.milestone"
        @made="
          refetch();
          refetchMilestones();
        "
        @close="again = null"
      />
      <p v-if="g.cycles.length === 0" class="soft small">No cycle yet.</p>
      <ul>
        <li v-for="c in g.cycles" :key="c.id">
          <input
            v-if="lead"
            type="checkbox"
            :checked="selected.has(c.id)"
            :aria-label="`Choose ${c.name}`"
            @click="select(c.id, $event.shiftKey)"
          />
          <div class="names">
            <RouterLink class="plain name long" :to="`/${project}/cycles/${c.key}`">{{ c.name }}</RouterLink>
            <span class="soft small"
              ><span class="mono">{{ c.key }}</span> · {{ plainWords(c.state) }} · build
              {{ c.build?.name ?? '–' }} · {{ day(c.starts_on) }} to {{ day(c.ends_on)
              }}<template v-if="c.state === 'released'">, {{ due(c.ends_on) }}</template
              ><template v-if="c.phase"> · {{ plainWords(c.phase).toLowerCase() }}</template></span
            >
          </div>
          <CountBar :counts="c.counts" :total="c.total" />
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr;
  gap: 12px 16px;
  padding: 14px 18px;
  margin-bottom: 16px;
}
.wide {
  grid-column: 1 / -1;
}
.bulk {
  padding: 8px 16px;
  margin-bottom: 12px;
  gap: 20px;
}
.days {
  width: 76px;
}
.bulk select {
  width: auto;
}
.group {
  margin-bottom: 26px;
}
.head {
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding-bottom: 6px;
}
.gap {
  flex: 1;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 16px;
  padding: 12px 0;
  border-bottom: 1px solid var(--rule);
  align-items: center;
}
li > .names:first-child {
  grid-column: 1 / 3;
}
.names {
  display: grid;
  gap: 2px;
}
.name {
  font-weight: 700;
}
@media (max-width: 760px) {
  .form {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    grid-template-columns: auto minmax(0, 1fr);
    gap: 8px 12px;
  }
  li > :last-child {
    grid-column: 1 / -1;
  }
}
</style>
