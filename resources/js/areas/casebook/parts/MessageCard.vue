<script setup lang="ts">
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { answerMessage, removeMessage } from '@/areas/casebook/queries';
import { mayRemoveContent } from '@/areas/people/session';
import { toast } from '@/kit/notices';
import RemoveWords from '@/kit/RemoveWords.vue';
import { ago, exact } from '@/kit/words';

/** A question or a suggestion, and its answer. */
const props = defineProps<{
  project: string;
  message: Api['CaseMessageLine'];
  mayAnswer: boolean;
  /** The step as it is now, to see beside a suggestion. */
  current?: Api['StepEdit'] | null;
  /** Whether to say which case it is about. */
  named?: boolean;
}>();
const emit = defineEmits<{ changed: [] }>();
/** Words that must not be there are taken out by an admin, with a word of why. */
const mayRemove = computed(() => mayRemoveContent(props.project) && !props.message.removed_by);
async function remove(reason: string): Promise<void> {
  await removeMessage(props.message.id, { reason });
  emit('changed');
}
const answer = ref('');
const problem = ref('');
const FIELDS = [
  ['action', 'Action'],
  ['data', 'Data'],
  ['expected', 'Expected'],
] as const;
async function reply(as: 'answered' | 'taken' | 'declined'): Promise<void> {
  problem.value = '';
  try {
    await answerMessage(props.message.id, { as, answer: answer.value });
    if (as === 'taken')
      toast(
        props.message.proposal
          ? `The suggestion is in ${props.message.case_key} now, as a new version.`
          : 'Taken. Change the case as you see fit.',
      );
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <article class="card" :class="{ open: message.state === 'open' }">
    <p class="small">
      <RouterLink v-if="named" :to="`/${project}/casebook/${message.case_key}`"
        ><span class="mono">{{ message.case_key }}</span> {{ message.case_title }}</RouterLink
      >
      <span class="soft">
        {{ message.author.name }} {{ message.kind === 'question' ? 'asks' : 'suggests'
        }}{{ message.step ? ` about step ${message.step}` : '' }},
        <span :title="exact(message.created_at)">{{ ago(message.created_at) }}</span></span
      >
    </p>
    <p v-if="message.body" class="long">{{ message.body }}</p>
    <dl v-if="message.proposal" class="small">
      <template v-for="[f, word] in FIELDS" :key="f">
        <template v-if="message.proposal[f] && message.proposal[f] !== current?.[f]">
          <dt class="soft">{{ word }}</dt>
          <dd class="long">
            <del v-if="current?.[f]" class="soft">{{ current[f] }}</del> {{ message.proposal[f] }}
          </dd>
        </template>
      </template>
    </dl>
    <p v-if="message.answered_by" class="small long">
      <span class="soft"
        >{{ message.answered_by?.name }}
        {{ { answered: 'answered', taken: 'took it', declined: 'declined', open: '' }[message.state]
        }}{{ message.answer ? ':' : '' }}</span
      >
      {{ message.answer }}
    </p>
    <form
      v-else-if="mayAnswer && message.state === 'open'"
      class="reply"
      @submit.prevent="reply(message.kind === 'question' ? 'answered' : 'taken')"
    >
      <input
        v-model="answer"
        class="field"
        :aria-label="`Answer to ${message.author.name}`"
        :placeholder="message.kind === 'question' ? 'Answer' : 'A word back, if you like'"
        maxlength="4000"
      />
      <p class="row">
        <button type="submit" class="link">{{ message.kind === 'question' ? 'Answer' : 'Take it' }}</button>
        <button
          v-if="message.kind === 'suggestion'"
          type="button"
          class="link soft"
          @click="reply('declined')"
        >
          Decline
        </button>
      </p>
    </form>
    <p v-if="message.removed_by" class="small soft long">
      {{ message.removed_by.name }} took the words out: {{ message.removed_reason }}
    </p>
    <p v-else-if="mayRemove"><RemoveWords :of="message.body" :remove="remove" /></p>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </article>
</template>

<style scoped>
.card {
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  border: 1px solid var(--rule);
  border-radius: 6px;
}
.card.open {
  background: var(--sheet);
}
.reply {
  display: grid;
  gap: 6px;
}
dl {
  display: grid;
  grid-template-columns: 66px minmax(0, 1fr);
  gap: 4px 8px;
}
dd {
  white-space: pre-line;
}
</style>
