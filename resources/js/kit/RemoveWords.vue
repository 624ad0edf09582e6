<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage } from '@/api/client';
import { vFocus } from '@/kit/focus';

/** Takes words out that must not be there, with a word of why: a link that opens into the question. */
const props = defineProps<{
  /** What is taken out, for those who hear the link alone. */
  of: string;
  /** Such as "the file". */
  thing?: string;
  remove: (reason: string) => Promise<void>;
}>();
const open = ref(false);
const why = ref('');
const problem = ref('');
const running = ref(false);
async function go(): Promise<void> {
  problem.value = '';
  running.value = true;
  try {
    await props.remove(why.value);
    open.value = false;
    why.value = '';
  } catch (error) {
    problem.value = errorMessage(error);
  }
  running.value = false;
}
</script>

<template>
  <form v-if="open" class="ask" @submit.prevent="go" @keydown.esc.stop="open = false">
    <input
      v-model="why"
      v-focus
      class="field"
      maxlength="2000"
      :aria-label="`Why ${thing ?? 'these words'} ${thing ? 'is' : 'are'} taken out`"
      :placeholder="`Why? ${thing ? 'It goes' : 'They go'} for good; the trace stays`"
    />
    <p class="row">
      <button type="submit" class="link" :disabled="running">Take {{ thing ?? 'the words' }} out</button>
      <button type="button" class="link soft" @click="open = false">Leave it</button>
    </p>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </form>
  <button
    v-else
    type="button"
    class="link soft small"
    :aria-label="`Take ${thing ?? 'the words'} out: ${of}`"
    @click="open = true"
  >
    Take {{ thing ?? 'the words' }} out
  </button>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 6px;
}
</style>
