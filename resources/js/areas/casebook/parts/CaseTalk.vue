<script setup lang="ts">
import Button from 'primevue/button';
import { reactive, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { sendMessage } from '@/areas/casebook/queries';
import MessageCard from './MessageCard.vue';

/** Questions and suggestions about a case, for its author. */
const props = defineProps<{ project: string; detail: Api['CaseDetail']; mayAnswer: boolean }>();
const emit = defineEmits<{ changed: [] }>();
const open = ref(false);
const problem = ref('');
const empty = () => ({ kind: 'question' as 'question' | 'suggestion', step: '', body: '' });
const draft = reactive(empty());
const proposal = reactive({ action: '', data: '', expected: '' });
function choose(): void {
  const step = props.detail.steps[Number(draft.step) - 1];
  if (step && !step.routine)
    Object.assign(proposal, { action: step.action, data: step.data, expected: step.expected });
}
async function send(): Promise<void> {
  problem.value = '';
  const step = Number(draft.step) || null;
  const was = step ? props.detail.steps[step - 1] : undefined;
  const changed =
    draft.kind === 'suggestion' &&
    was &&
    (['action', 'data', 'expected'] as const).some((f) => proposal[f] !== was[f]);
  try {
    await sendMessage(props.detail.case.key, {
      kind: draft.kind,
      body: draft.body,
      step,
      ...(changed ? { proposal: { ...proposal } } : {}),
    });
    Object.assign(draft, empty());
    open.value = false;
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <section class="talk" aria-label="Questions and suggestions">
    <h2>Questions and suggestions</h2>
    <MessageCard
      v-for="m in detail.messages"
      :key="m.id"
      :project="project"
      :message="m"
      :may-answer="mayAnswer"
      :current="m.step ? (detail.steps[m.step - 1] ?? null) : null"
      @changed="emit('changed')"
    />
    <button v-if="!open" type="button" class="link" @click="open = true">Ask or suggest something</button>
    <form v-else class="form" @submit.prevent="send">
      <p class="row">
        <label><input v-model="draft.kind" type="radio" value="question" /> Question</label>
        <label><input v-model="draft.kind" type="radio" value="suggestion" /> Suggestion</label>
      </p>
      <label
        ><span class="label">About</span>
        <select v-model="draft.step" class="field" @change="choose">
          <option value="">the whole case</option>
          <option v-for="i in detail.steps.length" :key="i" :value="String(i)">step {{ i }}</option>
        </select></label
      >
      <template
        v-if="draft.kind === 'suggestion' && draft.step && !detail.steps[Number(draft.step) - 1]?.routine"
      >
        <label v-for="f in ['action', 'data', 'expected'] as const" :key="f"
          ><span class="label">{{ f === 'action' ? 'Action' : f === 'data' ? 'Data' : 'Expected' }}</span>
          <textarea v-model="proposal[f]" class="field" rows="2" />
        </label>
      </template>
      <label
        ><span class="label">{{ draft.kind === 'question' ? 'Question' : 'Why' }}</span>
        <textarea v-model="draft.body" class="field" rows="2" maxlength="4000" />
      </label>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <p class="row">
        <Button type="submit" size="small" label="Send to the author" />
        <button type="button" class="link soft" @click="open = false">Leave it</button>
      </p>
    </form>
  </section>
</template>

<style scoped>
.talk,
.form {
  display: grid;
  gap: 10px;
  justify-items: stretch;
}
.talk > .link {
  justify-self: start;
}
</style>
