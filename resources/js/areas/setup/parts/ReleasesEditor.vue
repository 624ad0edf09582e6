<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import type { Api } from '@/api/client';
import { createBuild, createRelease, removeBuild, removeRelease, saveBuild } from '@/areas/setup/queries';
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
  <section aria-label="Releases and builds">
    <h2>Releases and builds</h2>
    <p class="soft small">What is being tested. A build that something was tested on stays.</p>
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
        <li v-for="b in r.builds" :key="b.id" class="row">
          <span class="mono">{{ b.name }}</span>
          <button
            v-if="setup.may_plan"
            type="button"
            class="link soft small"
            @click="run(() => removeBuild(b.id), 'Gone.')"
          >
            Take out
          </button>
          <select
            v-if="setup.may_plan && setup.releases.length > 0"
            class="field move"
            :aria-label="`Release of ${b.name}`"
            :value="b.release_id ?? ''"
            @change="
              run(
                () =>
                  saveBuild(b.id, {
                    name: b.name,
                    release_id: ($event.target as HTMLSelectElement).value || null,
                  }),
                'Moved.',
              )
            "
          >
            <option value="">no release</option>
            <option v-for="x in setup.releases" :key="x.id" :value="x.id">{{ x.name }}</option>
          </select>
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
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
  align-content: start;
}
.release {
  display: grid;
  gap: 4px;
}
ul {
  padding-left: 14px;
  display: grid;
  gap: 2px;
}
.new {
  width: 160px;
}
.move {
  width: auto;
  padding: 2px 6px;
  font-size: 0.87rem;
}
.release form {
  padding-left: 14px;
}
</style>
