<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, nextTick, onMounted, ref } from 'vue';
import { toast } from '@/kit/notices';
import { useLocalDraft } from '@/offline/useLocalDraft';
import type { Walk, WalkStep } from '@/areas/walk/useWalk';

/** A question to the author, or a better wording, from the step and without failing it. */
const props = defineProps<{ walk: Walk; step: WalkStep }>();
const emit = defineEmits<{ close: [] }>();
const { draft, clear } = useLocalDraft(
  computed(() => `${props.walk.id.value}.ask.${props.step.position}`),
  () => ({
    kind: 'question' as 'question' | 'suggestion',
    body: '',
    action: props.step.action,
    expected: props.step.expected,
  }),
);
/** A step out of a routine, or with values filled in, has its words elsewhere: a suggestion says them in a sentence. */
const ownWords = computed(
  () =>
    props.step.uses.length === 0 &&
    (props.walk.view.value?.steps ?? []).every((s) => (s.routines ?? []).length === 0),
);
const missing = ref('');
const body = ref<{ $el: HTMLTextAreaElement } | null>(null);
onMounted(async () => {
  await nextTick();
  body.value?.$el.focus();
});
async function send(): Promise<void> {
  const { kind, action, expected } = draft.value;
  const words = draft.value.body.trim();
  const changed =
    kind === 'suggestion' &&
    ownWords.value &&
    (action !== props.step.action || expected !== props.step.expected);
  if (words === '' && !changed) {
    missing.value = kind === 'question' ? 'Write the question.' : 'Write what would read better.';
    body.value?.$el.focus();
    return;
  }
  await props.walk.record({
    kind: 'message',
    case: props.walk.view.value?.case_key ?? '',
    what: kind,
    step: ownWords.value ? props.step.position : null,
    body: ownWords.value ? words : `At step ${props.step.position} as walked: ${words}`,
    proposal: changed ? { action, data: props.step.data, expected } : null,
  });
  await clear();
  toast(kind === 'question' ? 'Asked. The answer comes as a notice.' : 'Suggested to the author.');
  emit('close');
}
</script>

<template>
  <form class="ask" aria-label="Ask or suggest" @submit.prevent="send" @keydown.ctrl.enter.prevent="send">
    <fieldset>
      <legend class="unseen">What it is</legend>
      <label><input v-model="draft.kind" type="radio" value="question" /> A question</label>
      <label><input v-model="draft.kind" type="radio" value="suggestion" /> A better wording</label>
    </fieldset>
    <template v-if="draft.kind === 'suggestion' && ownWords">
      <label class="label" for="ask-action">Action</label>
      <Textarea id="ask-action" v-model="draft.action" fluid auto-resize rows="1" />
      <label class="label" for="ask-expected">Expected</label>
      <Textarea id="ask-expected" v-model="draft.expected" fluid auto-resize rows="1" />
    </template>
    <label class="label" for="ask-body">{{
      draft.kind === 'question'
        ? 'To the author of the case, and the leads'
        : 'In a sentence, if one is needed'
    }}</label>
    <Textarea
      id="ask-body"
      ref="body"
      v-model="draft.body"
      fluid
      auto-resize
      rows="2"
      maxlength="4000"
      :invalid="missing !== ''"
    />
    <p v-if="missing" class="p-invalid-words" role="alert">{{ missing }}</p>
    <div class="row">
      <Button type="submit">Send it <kbd>Ctrl Enter</kbd></Button>
      <Button type="button" text severity="secondary" label="Leave it" @click="emit('close')" />
    </div>
  </form>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 8px;
  margin: 10px 0 10px 7px;
  padding: 14px 20px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 18px;
}
fieldset input {
  accent-color: var(--dusk);
}
</style>
