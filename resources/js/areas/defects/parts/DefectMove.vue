<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { computed, ref } from 'vue';
import { errorMessage, Problem, type Api } from '@/api/client';
import type { Move, State } from '@/areas/defects/life';
import { moveDefect } from '@/areas/defects/queries';
import { vFocus } from '@/kit/focus';
import SelectField from '@/kit/SelectField.vue';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** One move of a defect: what it asks for, and what the server says against it. What was typed stays on the device. */
const props = defineProps<{ detail: Api['DefectDetail']; builds: Api['Named'][]; move: Move }>();
const emit = defineEmits<{ moved: [Api['DefectDetail']]; leave: []; stale: [] }>();
const { draft, clear } = useLocalDraft(
  computed(() => `defect-move:${props.detail.defect.id}:${props.move.to}`),
  () => ({ note: '', build: '', other: '' }),
);
const problem = ref('');
const wrong = ref<Record<string, string[]>>({});
const busy = ref(false);
/** Close it although some that stand under it are open. */
const anyway = ref(false);
const isAnswer = computed(() => props.move.to === props.detail.asked_in);
const words = computed(() =>
  props.move.to === 'needs_information'
    ? 'What do you need to know?'
    : isAnswer.value
      ? 'The answer'
      : 'A word on it',
);
const asks = computed(() => props.detail.asks_word.includes(props.move.to));
const needsBuild = computed(() => props.move.to === 'fixed' && !isAnswer.value);

async function go(): Promise<void> {
  problem.value = '';
  wrong.value = {};
  busy.value = true;
  try {
    const now = await moveDefect(props.detail.defect.key, {
      state: props.move.to,
      note: draft.value.note,
      build_id: draft.value.build || null,
      duplicate_of: draft.value.other || null,
      seen: props.detail.defect.state as State,
      anyway: anyway.value,
    });
    await clear();
    emit('moved', now);
  } catch (e) {
    if (e instanceof Problem && Object.keys(e.errors).length > 0) wrong.value = e.errors;
    else problem.value = errorMessage(e);
    // Asked once more, it is closed all the same.
    if (e instanceof Problem && e.kind === 'open-children') anyway.value = true;
    else if (e instanceof Problem && [409, 412].includes(e.status)) emit('stale');
  }
  busy.value = false;
}
</script>

<template>
  <form
    class="move sheet"
    :aria-label="move.word"
    @submit.prevent="go"
    @keydown.ctrl.enter.prevent="go"
    @keydown.esc.stop="emit('leave')"
  >
    <div v-if="needsBuild" v-focus>
      <SelectField
        v-model="draft.build"
        form
        label="Build with the fix"
        none="Choose one"
        :options="builds.map((b) => ({ value: b.id, label: b.name }))"
      />
      <p v-if="wrong.build_id" class="p-invalid-words" role="alert">{{ wrong.build_id[0] }}</p>
    </div>
    <div v-if="move.to === 'duplicate'">
      <label class="label" for="duplicate-of">Of which defect? Its key</label>
      <InputText
        id="duplicate-of"
        v-model="draft.other"
        v-focus
        maxlength="24"
        :invalid="!!wrong.duplicate_of"
      />
      <p v-if="wrong.duplicate_of" class="p-invalid-words" role="alert">{{ wrong.duplicate_of[0] }}</p>
    </div>
    <div class="wide">
      <label class="label" for="move-note">{{ words }}{{ asks ? '' : ', if there is one to say' }}</label>
      <Textarea
        id="move-note"
        v-model="draft.note"
        v-focus="!needsBuild && move.to !== 'duplicate'"
        rows="2"
        auto-resize
        fluid
        maxlength="10000"
        :invalid="!!wrong.note"
      />
      <p v-if="wrong.note" class="p-invalid-words" role="alert">{{ wrong.note[0] }}</p>
    </div>
    <p v-if="problem" class="p-invalid-words wide" role="alert">{{ problem }}</p>
    <div class="row wide">
      <Button type="submit" :disabled="busy"
        >{{ anyway ? 'Close it all the same' : move.word }} <kbd>Ctrl Enter</kbd></Button
      >
      <Button text severity="secondary" label="Leave it" @click="emit('leave')" />
    </div>
  </form>
</template>

<style scoped>
.move {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 12px 20px;
  padding: 14px 18px;
  margin-bottom: 16px;
  max-width: 46rem;
}
.wide {
  grid-column: 1 / -1;
}
</style>
