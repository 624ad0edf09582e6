<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, toRef } from 'vue';
import {
  asOptions,
  PRIORITIES,
  SEVERITIES,
  useDefectChoices,
  type DefectWords,
} from '@/areas/defects/choices';
import OwnField from '@/areas/defects/parts/OwnField.vue';
import SelectField from '@/kit/SelectField.vue';

/** A defect as it is written: what a developer needs first, all else one step away. */
const words = defineModel<DefectWords>({ required: true });
const props = defineProps<{
  project: string;
  /** What is wrong with it, by field. */
  wrong: Record<string, string[]>;
  /** It comes from a walk, which knows its build and configuration. */
  walked?: boolean;
  /** Everything stands open. */
  whole?: boolean;
}>();
const { choices, components } = useDefectChoices(toRef(props, 'project'));
const people = computed(() => asOptions(choices.value.people));
const TEXTS = [
  { name: 'actual', label: 'Happened instead', rows: 3, mono: false },
  { name: 'expected', label: 'Expected', rows: 3, mono: false },
  { name: 'steps', label: 'Steps, numbered', rows: 6, mono: true },
] as const;
const MORE = [
  { name: 'preconditions', label: 'Before that', rows: 2 },
  { name: 'body', label: 'What else there is to say (Markdown)', rows: 4 },
] as const;
const errorOf = (name: string): string => props.wrong[name]?.[0] ?? '';
</script>

<template>
  <div class="fields">
    <div>
      <label class="label" for="defect-title">Title</label>
      <InputText
        id="defect-title"
        v-model="words.title"
        fluid
        maxlength="300"
        :invalid="errorOf('title') !== ''"
      />
      <p v-if="errorOf('title')" class="p-invalid-words" role="alert">{{ errorOf('title') }}</p>
    </div>
    <slot name="likely" />
    <div class="two">
      <div class="texts">
        <div v-for="t in TEXTS" :key="t.name">
          <label class="label" :for="`defect-${t.name}`">{{ t.label }}</label>
          <Textarea
            :id="`defect-${t.name}`"
            v-model="words[t.name]"
            fluid
            auto-resize
            :rows="t.rows"
            :class="{ mono: t.mono }"
          />
          <p v-if="errorOf(t.name)" class="p-invalid-words" role="alert">{{ errorOf(t.name) }}</p>
        </div>
        <slot name="evidence" />
      </div>
      <div class="side">
        <SelectField v-model="words.severity" form label="Severity" :options="SEVERITIES" />
        <SelectField
          v-model="words.priority"
          form
          label="To be mended"
          none="Nobody said"
          :options="PRIORITIES"
        />
        <SelectField v-model="words.assignee_id" form label="With" none="Nobody" :options="people" />
        <p v-if="errorOf('assignee_id')" class="p-invalid-words" role="alert">{{ errorOf('assignee_id') }}</p>
        <SelectField
          v-if="components.length > 0"
          v-model="words.component"
          form
          label="Component"
          none="None"
          :options="components"
        />
        <p v-if="errorOf('component')" class="p-invalid-words" role="alert">{{ errorOf('component') }}</p>
        <template v-if="!walked">
          <SelectField
            v-model="words.build_id"
            form
            label="Build"
            none="None"
            :options="asOptions(choices.builds)"
          />
          <SelectField
            v-if="choices.configurations.length > 0"
            v-model="words.configuration_id"
            form
            label="Configuration"
            none="None"
            :options="asOptions(choices.configurations)"
          />
        </template>
      </div>
    </div>
    <details :open="whole">
      <summary>
        More: before that, environment, labels{{ choices.fields.length > 0 ? ', fields' : '' }}
      </summary>
      <div class="two">
        <div class="texts">
          <div v-for="t in MORE" :key="t.name">
            <label class="label" :for="`defect-${t.name}`">{{ t.label }}</label>
            <Textarea :id="`defect-${t.name}`" v-model="words[t.name]" fluid auto-resize :rows="t.rows" />
            <p v-if="errorOf(t.name)" class="p-invalid-words" role="alert">{{ errorOf(t.name) }}</p>
          </div>
        </div>
        <div class="side">
          <label
            ><span class="label">Environment</span
            ><input v-model="words.environment" class="field" maxlength="2000"
          /></label>
          <label
            ><span class="label">Labels, between commas</span
            ><input v-model="words.labels" class="field" maxlength="4000" list="defect-labels"
          /></label>
          <p v-if="errorOf('labels')" class="p-invalid-words" role="alert">{{ errorOf('labels') }}</p>
          <datalist id="defect-labels">
            <option v-for="l in choices.labels.slice(0, 300)" :key="l" :value="l" />
          </datalist>
          <template v-for="f in choices.fields" :key="f.id">
            <OwnField v-model="words.custom[f.id]" :field="f" form />
            <p v-if="errorOf(`custom.${f.id}`)" class="p-invalid-words" role="alert">
              {{ errorOf(`custom.${f.id}`) }}
            </p>
          </template>
          <SelectField
            form
            label="Also told of everything"
            none="Tell …"
            :options="people.filter((p) => !words.watchers.includes(p.value))"
            :model-value="null"
            @update:model-value="$event && (words.watchers = [...words.watchers, $event])"
          />
          <p v-for="id in words.watchers" :key="id" class="row small">
            <span class="long">{{ people.find((p) => p.value === id)?.label ?? 'Somebody' }}</span><button
              type="button"
              class="link soft"
              @click="words.watchers = words.watchers.filter((w) => w !== id)"
            >
              Not told
            </button>
          </p>
          <p v-if="errorOf('person_id')" class="p-invalid-words" role="alert">{{ errorOf('person_id') }}</p>
        </div>
      </div>
    </details>
  </div>
</template>

<style scoped>
.fields,
.texts,
.side {
  display: grid;
  gap: 12px;
  align-content: start;
  min-width: 0;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(11rem, 14rem);
  gap: 16px;
}
summary {
  cursor: pointer;
  color: var(--ink-soft);
  margin-bottom: 10px;
}
@media (max-width: 640px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
