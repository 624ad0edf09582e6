<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, nextTick, onMounted, ref } from 'vue';
import { session } from '@/areas/people/session';
import { plural } from '@/kit/words';
import ReasonChips from './ReasonChips.vue';
import type { Walk } from '@/areas/walk/useWalk';
import { readTrail } from '@/areas/walk/queries';

/** Why a step is blocked and what it waits for; one outage may block many of my entries at once. */
const props = defineProps<{ walk: Walk; project: string; missing: string }>();
const reason = defineModel<string>('reason', { required: true });
const waits = defineModel<string>('waits', { required: true });
const also = defineModel<string[]>('also', { required: true });
const emit = defineEmits<{ record: []; leave: [] }>();
const field = ref<{ $el: HTMLInputElement } | null>(null);
const wide = ref(also.value.length > 0);
const { data: trail } = useQuery({
  queryKey: computed(() => ['live', 'entry', 'mine', props.walk.view.value?.cycle_key ?? '']),
  enabled: wide,
  queryFn: () => readTrail(props.walk.view.value?.cycle_key ?? ''),
});
const others = computed(() =>
  (trail.value ?? []).filter(
    (e) =>
      e.assignee?.id === session.value?.user.id &&
      e.id !== props.walk.view.value?.entry_id &&
      e.readiness === 'ready' &&
      e.open_attempt_id === null,
  ),
);
const all = computed({
  get: () => others.value.length > 0 && others.value.every((e) => also.value.includes(e.id)),
  set: (on: boolean) => (also.value = on ? others.value.map((e) => e.id) : []),
});
function open(): void {
  wide.value = !wide.value;
  if (!wide.value) also.value = [];
}
async function focus(): Promise<void> {
  await nextTick();
  field.value?.$el.focus();
}
onMounted(focus);
defineExpose({ focus });
</script>

<template>
  <form class="more" @submit.prevent="emit('record')">
    <label class="label" for="reason">Why is it blocked?</label>
    <InputText
      id="reason"
      ref="field"
      v-model="reason"
      fluid
      :invalid="missing !== ''"
      maxlength="2000"
      aria-describedby="missing"
    />
    <ReasonChips v-model="reason" :project="project" verdict="blocked" />
    <p v-if="missing" id="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
    <label class="label" for="waits">Waits on …</label>
    <InputText id="waits" v-model="waits" fluid maxlength="2000" />
    <div class="also">
      <button type="button" class="link" :aria-expanded="wide" @click="open">
        {{ wide ? 'Only this step' : 'The same outage blocks more of my entries' }}
      </button>
      <template v-if="wide">
        <p v-if="others.length === 0" class="soft small">None of your other entries can be walked now.</p>
        <ul v-else>
          <li>
            <label
              ><input v-model="all" type="checkbox" /> All
              {{ plural(others.length, 'entry', 'entries') }}</label
            >
          </li>
          <li v-for="e in others" :key="e.id">
            <label class="long"
              ><input v-model="also" type="checkbox" :value="e.id" />
              <span class="mono">{{ e.case_key }}</span> {{ e.title }}
              <span class="soft">{{ e.configuration?.name }}</span></label
            >
          </li>
        </ul>
      </template>
    </div>
    <div class="row">
      <Button
        type="submit"
        :label="
          also.length > 0
            ? `Record the block, and on ${plural(also.length, 'more entry', 'more entries')}`
            : 'Record the block'
        "
      />
      <Button type="button" text severity="secondary" label="Leave it" @click="emit('leave')" />
      <span class="soft hint">Enter records and goes on</span>
    </div>
  </form>
</template>

<style scoped>
.also {
  margin-top: 10px;
}
.also ul {
  max-height: 180px;
  overflow: auto;
  margin-top: 6px;
}
.also label {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 3px 0;
}
</style>
