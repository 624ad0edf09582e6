<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import { relateDefects, unrelateDefects } from '@/areas/defects/queries';
import SelectField from '@/kit/SelectField.vue';
import { plainWords } from '@/kit/words';

/** How a defect stands to others: what it is under, what it causes or blocks. Said from either end. */
const props = defineProps<{ project: string; detail: Api['DefectDetail']; mayWork: boolean }>();
const emit = defineEmits<{ changed: [Api['DefectDetail']] }>();
type Relation = Api['RelatedDefect']['relation'];
const WORDS: Record<Relation, string> = {
  under: 'stands under',
  over: 'has below it',
  caused_by: 'is caused by',
  causes: 'causes',
  blocks: 'blocks',
  blocked_by: 'is blocked by',
  relates_to: 'has to do with',
};
const RELATIONS = (Object.keys(WORDS) as Relation[]).map((value) => ({ value, label: `It ${WORDS[value]}` }));
const groups = computed(() =>
  RELATIONS.map(({ value }) => ({
    relation: value,
    defects: props.detail.relations.filter((r) => r.relation === value),
  })).filter((g) => g.defects.length > 0),
);
const adding = ref(false);
const relation = ref<Relation>('relates_to');
const other = ref('');
const problem = ref('');
async function run(work: () => Promise<Api['DefectDetail']>): Promise<void> {
  problem.value = '';
  try {
    emit('changed', await work());
    adding.value = false;
    other.value = '';
  } catch (e) {
    problem.value = (e instanceof Problem ? Object.values(e.errors)[0]?.[0] : undefined) ?? errorMessage(e);
  }
}
const add = (): Promise<void> =>
  run(() => relateDefects(props.detail.defect.key, { relation: relation.value, other: other.value }));
const drop = (r: Api['RelatedDefect']): Promise<void> =>
  run(() => unrelateDefects(props.detail.defect.key, { relation: r.relation, other: r.key }));
</script>

<template>
  <section v-if="groups.length > 0 || mayWork" aria-label="Other defects">
    <div class="row">
      <h2>Other defects</h2>
      <button v-if="mayWork && !adding" type="button" class="link small" @click="adding = true">Add</button>
    </div>
    <ul>
      <template v-for="g in groups" :key="g.relation">
        <li v-for="r in g.defects" :key="r.id" class="long">
          <span class="soft">It {{ WORDS[g.relation] }}{{ ' ' }}</span>
          <RouterLink :to="`/${project}/defects/${r.key}`"
            ><span class="mono">{{ r.key }}</span> {{ r.title }}</RouterLink
          >
          <span class="soft small">{{ ' ' }}{{ plainWords(r.state).toLowerCase() }}{{ ' ' }}</span>
          <button
            v-if="mayWork"
            type="button"
            class="link soft small"
            :aria-label="`It ${WORDS[g.relation]} ${r.key} no more`"
            @click="drop(r)"
          >
            Take away
          </button>
        </li>
      </template>
      <li v-if="groups.length === 0" class="soft">It stands by itself.</li>
    </ul>
    <form v-if="adding" class="row" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <SelectField v-model="relation" hide-label label="How it stands to another" :options="RELATIONS" />
      <input
        v-model="other"
        class="field key"
        maxlength="24"
        placeholder="Its key"
        aria-label="Key of the other defect"
      />
      <Button type="submit" size="small" label="Say so" :disabled="other.trim() === ''" />
      <button type="button" class="link soft" @click="adding = false">Leave it</button>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
  margin: 6px 0 8px;
}
.key {
  width: 8rem;
}
</style>
