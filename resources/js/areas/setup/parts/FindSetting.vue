<script setup lang="ts">
import { ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { Problem } from '@/api/client';
import { findPlaces, foundAt, type Found } from '@/areas/setup/places';
import { findSettings } from '@/areas/setup/queries';
import SearchField from '@/kit/SearchField.vue';

/** Finds whatever is set, on every page of the setup, by its words, and goes there. */
const props = defineProps<{ project: string }>();
const router = useRouter();
const chosen = ref<string | null>(null);

async function find(words: string): Promise<{ value: string; label: string }[]> {
  let things: Found[] = [];
  try {
    things = words === '' ? [] : (await findSettings(props.project, words)).map(foundAt);
  } catch (e) {
    // While the server is away the parts themselves are found.
    if (!(e instanceof Problem)) throw e;
  }
  return [...findPlaces(words), ...things].map((f) => ({
    value: f.path,
    label: f.of === '' ? f.name : `${f.name} · ${f.of}`,
  }));
}
watch(chosen, (path) => {
  if (path === null) return;
  chosen.value = null;
  void router.push(`/${props.project}/setup${path}`);
});
</script>

<template>
  <SearchField
    v-model="chosen"
    class="find"
    label="Find a setting"
    placeholder="Find a setting"
    :find="find"
    small
  />
</template>

<style scoped>
.find {
  width: 18rem;
  max-width: 100%;
}
</style>
