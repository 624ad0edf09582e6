<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { readKnownDefects } from '@/areas/defects/queries';
import { useRead } from '@/offline/useRead';
import { useKeys } from '@/kit/keys';
import { plainWords } from '@/kit/words';
import type { Walk } from '@/areas/walk/useWalk';
import KeyCap from '@/kit/KeyCap.vue';

/** The defects that this very step has already, in whatever cycle: linked with one key before a new one is written. */
const props = defineProps<{ walk: Walk; step: number }>();
const emit = defineEmits<{ link: [defect: Api['DefectLine']] }>();
const { data } = useRead(
  'defect',
  () => ['known', props.walk.id.value, props.step],
  () => readKnownDefects(props.walk.id.value, { step: String(props.step) }),
  () => `known:${props.walk.id.value}.${props.step}`,
);
const linked = computed(
  () => new Set(props.walk.view.value?.defects.filter((d) => d.step === props.step).map((d) => d.key) ?? []),
);
const known = computed(() => (data.value ?? []).filter((d) => !linked.value.has(d.key)).slice(0, 5));
useKeys('Known defects', () =>
  known.value.slice(0, 1).map((d) => ({ keys: ['l'], label: `Link ${d.key}`, run: () => emit('link', d) })),
);
</script>

<template>
  <div v-if="known.length > 0" class="known">
    <span class="label">Known at this step</span>
    <ul>
      <li v-for="(d, i) in known" :key="d.id">
        <span class="mono">{{ d.key }}</span>
        <span class="name" :title="d.title">{{ d.title }}</span>
        <span class="soft small">{{ plainWords(d.state) }}{{ d.build ? `, ${d.build.name}` : '' }}</span>
        <Button type="button" size="small" outlined severity="secondary" @click="emit('link', d)"
          >It is this one <KeyCap v-if="i === 0" of="l"
        /></Button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.known {
  margin-top: 14px;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 4px 0;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 640px) {
  li {
    flex-wrap: wrap;
  }
  .name {
    white-space: normal;
    flex-basis: 100%;
    order: 3;
  }
}
</style>
