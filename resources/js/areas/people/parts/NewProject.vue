<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { Problem } from '@/api/client';
import { makeProject } from '@/areas/people/queries';
import { refreshSession, session } from '@/areas/people/session';
import { vFocus } from '@/kit/focus';
import { useLocalDraft } from '@/offline/useLocalDraft';
import PickOne from '@/kit/PickOne.vue';
import SelectField from '@/kit/SelectField.vue';

/** A new project, of which one is the first admin. Its code comes from its name until one writes another. */
const props = defineProps<{ taken: string[] }>();
const emit = defineEmits<{ leave: [] }>();
const router = useRouter();
const { draft: form, clear } = useLocalDraft(
  computed(() => 'new-project'),
  () => ({
    name: '',
    code: '',
    time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone as string | null,
    like: null as string | null,
  }),
);
const problem = ref<Problem | null>(null);
const busy = ref(false);
const zones = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== 'UTC')].map((z) => ({
  value: z,
  label: z,
}));
const others = computed(() =>
  (session.value?.projects ?? [])
    .filter((p) => p.role === 'admin' || p.role === 'lead')
    .map((p) => ({ value: p.id, label: p.name })),
);
const wrong = (field: string): string | undefined => problem.value?.errors[field]?.[0];
/** Checked as one types, so that nobody fills in a form for nothing. */
const codeSays = computed(() => {
  if (form.value.code === '') return '';
  if (!/^[A-Z][A-Z0-9]{1,9}$/.test(form.value.code))
    return 'A code is two to ten capital letters and digits, and begins with a letter.';
  return props.taken.includes(form.value.code) ? `${form.value.code} is taken.` : '';
});
/** Three letters that tell it apart, such as BAK for "The bakery". */
function suggest(name: string): string {
  const words = name
    .normalize('NFD')
    .replace(/[^A-Za-z0-9 ]/g, '')
    .toUpperCase()
    .split(' ')
    .filter((w) => w !== '' && !['THE', 'A', 'AN'].includes(w));
  const from = words.length > 2 ? words.map((w) => w.charAt(0)).join('') : (words[0] ?? '');
  const code = from.replace(/^[0-9]+/, '').slice(0, 3);
  if (code.length < 2) return '';
  let free = code;
  for (let n = 2; props.taken.includes(free); n++) free = `${code}${n}`;
  return free;
}
watch(
  () => form.value.name,
  (name, before) => {
    // What one wrote oneself, or has kept from before, stays.
    if (form.value.code === suggest(before)) form.value.code = suggest(name);
  },
);

async function make(): Promise<void> {
  problem.value = null;
  busy.value = true;
  try {
    const made = await makeProject({ ...form.value, time_zone: form.value.time_zone ?? '' });
    await clear();
    await refreshSession();
    await router.push(`/${made.code}/setup/people`);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    problem.value = error;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form aria-label="New project" @submit.prevent="make">
    <div>
      <label class="label" for="project-name">Name</label>
      <input
        id="project-name"
        v-model="form.name"
        v-focus
        class="field"
        maxlength="200"
        placeholder="The bakery"
      />
      <p v-if="wrong('name')" class="p-invalid-words" role="alert">{{ wrong('name') }}</p>
    </div>
    <div>
      <label class="label" for="project-code">Code: every key begins with it, and it stays</label>
      <input
        id="project-code"
        v-model="form.code"
        class="field mono code"
        maxlength="10"
        placeholder="BAK"
        @input="form.code = form.code.toUpperCase()"
      />
      <span v-if="form.code && !codeSays" class="soft small">
        cases are {{ form.code }}-C1, {{ form.code }}-C2 …</span
      >
      <p v-if="codeSays || wrong('code')" class="p-invalid-words" role="alert">
        {{ codeSays || wrong('code') }}
      </p>
    </div>
    <div>
      <PickOne
        v-model="form.time_zone"
        label="Time zone: its days begin there, and times are typed in it"
        :options="zones"
        none="choose"
      />
      <p v-if="wrong('time_zone')" class="p-invalid-words" role="alert">{{ wrong('time_zone') }}</p>
    </div>
    <SelectField
      v-if="others.length > 0"
      v-model="form.like"
      form
      label="Lists, policies, axes and fields"
      :options="others"
      none="as they come"
    />
    <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
      {{ problem.message }}
    </p>
    <div class="row">
      <Button type="submit" label="Make the project" :disabled="busy || codeSays !== ''" />
      <button type="button" class="link" @click="emit('leave')">Not now</button>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  max-width: 30rem;
}
.code {
  width: 9rem;
  text-transform: uppercase;
}
</style>
