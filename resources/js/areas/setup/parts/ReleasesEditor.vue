<script setup lang="ts">
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { computed, reactive, ref } from 'vue';
import type { Api } from '@/api/client';
import { createBuild, createRelease, removeBuild, removeRelease, saveBuild } from '@/areas/setup/queries';
import SelectField from '@/kit/SelectField.vue';
import { useSaving } from '@/areas/setup/useSaving';

/** Releases with their builds, as a tree. */
const props = defineProps<{ project: string; setup: Api['PlanningSetup'] }>();
const emit = defineEmits<{ saved: [now: Api['PlanningSetup'] | undefined] }>();
const { problem, run } = useSaving<Api['PlanningSetup']>((now) => emit('saved', now));
const release = ref('');
const fresh = reactive<Record<string, string>>({});
const tree = computed(() => [
  ...props.setup.releases.map((r) => ({
    ...r,
    builds: props.setup.builds.filter((b) => b.release_id === r.id),
  })),
  { id: '', name: 'Without a release', builds: props.setup.builds.filter((b) => !b.release_id) },
]);
async function addRelease(): Promise<void> {
  if (await run(() => createRelease(props.project, { name: release.value }), 'Release added.'))
    release.value = '';
}
async function addBuild(id: string): Promise<void> {
  const body = { name: fresh[id] ?? '', release_id: id || null };
  if (await run(() => createBuild(props.project, body), 'Build added.')) fresh[id] = '';
}
</script>

<template>
  <SetupSection
    title="Releases and builds"
    what="What is being tested. A build that something was tested on stays."
  >
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <div v-for="r in tree" :key="r.id" class="release">
      <p class="row">
        <strong>{{ r.id ? `Release ${r.name}` : r.name }}</strong>
        <button
          v-if="r.id && setup.may_plan"
          type="button"
          class="link soft small"
          @click="run(() => removeRelease(r.id), 'Gone.')"
        >
          Take out
        </button>
      </p>
      <ul>
        <li v-for="b in r.builds" :key="b.id">
          <span class="mono long">{{ b.name }}</span>
          <template v-if="setup.may_plan">
            <SelectField
              v-if="setup.releases.length > 0"
              hide-label
              small
              :label="`Release of ${b.name}`"
              none="No release"
              :model-value="b.release_id"
              :options="setup.releases.map((x) => ({ value: x.id, label: `Release ${x.name}` }))"
              @update:model-value="
                run(() => saveBuild(b.id, { name: b.name, release_id: $event ?? null }), 'Moved.')
              "
            />
            <button type="button" class="link soft" @click="run(() => removeBuild(b.id), 'Gone.')">
              Take out
            </button>
          </template>
        </li>
      </ul>
      <form v-if="setup.may_plan" class="row" @submit.prevent="addBuild(r.id)">
        <input
          v-model="fresh[r.id]"
          class="field new"
          :aria-label="`New build, ${r.name}`"
          placeholder="New build"
          maxlength="120"
        />
        <button type="submit" class="link">Add</button>
      </form>
    </div>
    <form v-if="setup.may_plan" class="row" @submit.prevent="addRelease">
      <input
        v-model="release"
        class="field new"
        aria-label="New release"
        placeholder="New release"
        maxlength="200"
      />
      <button type="submit" class="link">Add the release</button>
    </form>
  </SetupSection>
</template>

<style scoped>
.release {
  display: grid;
  gap: 4px;
  padding-bottom: 14px;
}
ul {
  display: grid;
}
li {
  display: grid;
  grid-template-columns: minmax(7rem, 14rem) 11rem auto;
  gap: 12px;
  align-items: center;
  justify-content: start;
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}
.new {
  width: 160px;
}
</style>
