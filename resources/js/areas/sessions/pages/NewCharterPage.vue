<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, Problem } from '@/api/client';
import { mayLead, session as me } from '@/areas/people/session';
import { beginSession } from '@/areas/sessions/begin';
import { writeCharter } from '@/areas/sessions/queries';
import { readCasebook } from '@/areas/casebook/queries';
import { listMilestones } from '@/areas/cycles/queries';
import { useDefectChoices } from '@/areas/defects/choices';
import { vFocus } from '@/kit/focus';
import SelectField from '@/kit/SelectField.vue';
import { plainWords } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { useRead } from '@/offline/useRead';

/** A charter: by a tester for themselves, begun at once, or by a lead for later and for others. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { choices } = useDefectChoices(project);
const { data: casebook } = useRead(
  'case',
  () => ['frame', project.value],
  () => readCasebook(project.value),
);
/** Folders by their whole path. */
const folders = computed(() => {
  const all = casebook.value?.folders ?? [];
  const path = (id: string): string => {
    const f = all.find((x) => x.id === id);
    return f ? `${f.parent_id ? `${path(f.parent_id)} / ` : ''}${f.name}` : '';
  };
  return all.map((f) => ({ id: f.id, name: path(f.id) }));
});
const asked = (name: string): string => String(route.query[name] ?? '');
const requirements = computed(() =>
  (casebook.value?.requirements ?? []).map((r) => ({ id: r.id, name: `${r.key} ${r.title}` })),
);
const { data: milestones } = useRead(
  'cycle',
  () => ['milestones', project.value],
  () => listMilestones(project.value),
);
const lead = computed(() => mayLead(project.value));
const { draft, clear } = useLocalDraft(
  // One that was proposed has a draft of its own.
  computed(
    () => `charter-new:${project.value}:${['title', 'folder', 'label', 'requirement'].map(asked).join(':')}`,
  ),
  () => ({
    title: asked('title'),
    with_what: '',
    to_find: '',
    folder_id: asked('folder') || null,
    requirement_id: asked('requirement') || null,
    milestone_id: null as string | null,
    label: asked('label'),
    risk: '',
    priority: 'medium' as 'critical' | 'high' | 'medium' | 'low',
    box_minutes: '60',
    build_id: null as string | null,
    configuration_id: null as string | null,
    assignee_id: null as string | null,
    not_before: '',
  }),
);
const wrong = ref<Record<string, string[]>>({});
const problem = ref('');
const busy = ref(false);
const options = (
  of: { id: string; name: string }[],
  none: string,
): { value: string | null; label: string }[] => [
  { value: null, label: none },
  ...of.map((o) => ({ value: o.id, label: o.name })),
];
async function save(start: boolean): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  wrong.value = {};
  problem.value = '';
  const d = draft.value;
  try {
    const { charter } = await writeCharter(project.value, {
      title: d.title,
      with_what: d.with_what,
      to_find: d.to_find,
      folder_id: d.folder_id,
      label: d.folder_id || d.requirement_id ? '' : d.label,
      requirement_id: d.folder_id ? null : d.requirement_id,
      milestone_id: d.milestone_id,
      risk: d.risk,
      priority: d.priority,
      box_minutes: Number(d.box_minutes),
      build_id: d.build_id,
      configuration_id: d.configuration_id,
      assignee_id: start ? (me.value?.user.id ?? null) : d.assignee_id,
      ...(d.not_before ? { not_before: d.not_before } : {}),
    });
    await clear();
    if (start) await beginSession(charter);
    await router.push(`/${project.value}/sessions/${charter.key}`);
  } catch (error) {
    if (error instanceof Problem && Object.keys(error.errors).length > 0) wrong.value = error.errors;
    else problem.value = `${errorMessage(error)} What you wrote is kept on this device.`;
  }
  busy.value = false;
}
const said = (field: string): string => wrong.value[field]?.[0] ?? '';
</script>

<template>
  <div class="page narrow">
    <p class="soft small"><RouterLink :to="`/${project}/sessions`">Sessions</RouterLink></p>
    <h1>New session</h1>
    <form
      class="sheet"
      aria-label="New session"
      @submit.prevent="save(true)"
      @keydown.ctrl.enter.prevent="save(true)"
    >
      <div>
        <label for="charter-title">Explore</label>
        <InputText
          id="charter-title"
          v-model="draft.title"
          v-focus
          fluid
          maxlength="500"
          :invalid="said('title') !== ''"
        />
        <p v-if="said('title')" class="p-invalid-words" role="alert">{{ said('title') }}</p>
      </div>
      <div>
        <label for="charter-with">with</label>
        <InputText
          id="charter-with"
          v-model="draft.with_what"
          fluid
          placeholder="odd clocks and moved sailings"
        />
      </div>
      <div>
        <label for="charter-find">to find</label>
        <InputText id="charter-find" v-model="draft.to_find" fluid placeholder="amounts that drift" />
      </div>
      <div class="grid">
        <div>
          <label for="charter-box">Time box in minutes</label>
          <InputText id="charter-box" v-model="draft.box_minutes" inputmode="numeric" fluid />
          <p v-if="said('box_minutes')" class="p-invalid-words" role="alert">{{ said('box_minutes') }}</p>
        </div>
        <SelectField
          v-model="draft.priority"
          label="Priority"
          form
          :options="
            (['critical', 'high', 'medium', 'low'] as const).map((value) => ({
              value,
              label: plainWords(value),
            }))
          "
        />
        <SelectField v-model="draft.build_id" label="Build" form :options="options(choices.builds, 'None')" />
        <SelectField
          v-model="draft.configuration_id"
          label="Configuration"
          form
          :options="options(choices.configurations, 'None')"
        />
        <SelectField
          v-model="draft.folder_id"
          label="Area, a folder"
          form
          :options="options(folders, 'None')"
        />
        <SelectField
          v-if="!draft.folder_id && requirements.length > 0"
          v-model="draft.requirement_id"
          label="or a requirement"
          form
          :options="options(requirements, 'None')"
        />
        <div v-if="!draft.folder_id && !draft.requirement_id">
          <label for="charter-label">or a label</label>
          <InputText id="charter-label" v-model="draft.label" fluid />
        </div>
        <div>
          <label for="charter-risk">Risk</label>
          <InputText id="charter-risk" v-model="draft.risk" fluid />
        </div>
        <SelectField
          v-if="(milestones ?? []).length > 0"
          v-model="draft.milestone_id"
          label="Milestone"
          form
          :options="options(milestones ?? [], 'None')"
        />
        <SelectField
          v-if="lead"
          v-model="draft.assignee_id"
          label="For"
          form
          :options="options(choices.people, 'Whoever takes it')"
        />
        <div v-if="lead">
          <label for="charter-day">Not before</label>
          <InputText id="charter-day" v-model="draft.not_before" type="date" fluid />
        </div>
      </div>
      <p v-if="said('assignee_id')" class="p-invalid-words" role="alert">{{ said('assignee_id') }}</p>
      <div class="row">
        <Button type="submit" :disabled="busy">Start now <kbd>Ctrl Enter</kbd></Button>
        <Button
          type="button"
          outlined
          severity="secondary"
          :disabled="busy"
          label="For later"
          @click="save(false)"
        />
        <span class="soft small">The draft is kept on this device.</span>
      </div>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    </form>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 860px;
}
h1 {
  margin-bottom: 14px;
}
form {
  padding: 18px 20px;
  display: grid;
  gap: 14px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(13rem, 1fr));
  gap: 14px 20px;
}
label {
  display: block;
  font-size: 0.8rem;
  color: var(--ink-soft);
  margin-bottom: 4px;
}
</style>
