<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, ref, toRef } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { asOptions, useDefectChoices } from '@/areas/defects/choices';
import { mayRemoveContent } from '@/areas/people/session';
import { removeSessionComment, sayOfSession } from '@/areas/sessions/queries';
import MarkdownText from '@/kit/MarkdownText.vue';
import RemoveWords from '@/kit/RemoveWords.vue';
import SelectField from '@/kit/SelectField.vue';
import { ago, exact } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';

/** What is said of a session by those who read it; somebody else can be asked to read it. */
const props = defineProps<{ project: string; detail: Api['SessionDetail']; maySay: boolean }>();
const emit = defineEmits<{ changed: [Api['SessionDetail']] }>();
const { choices } = useDefectChoices(toRef(props, 'project'));
const { draft, clear } = useLocalDraft(
  computed(() => `session-talk:${props.detail.id}`),
  () => ({ text: '', to: null as string | null }),
);
const problem = ref('');
const busy = ref(false);
async function say(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = '';
  try {
    emit('changed', await sayOfSession(props.detail.id, draft.value.text, draft.value.to));
    await clear();
  } catch (error) {
    problem.value = errorMessage(error);
  }
  busy.value = false;
}
</script>

<template>
  <section aria-label="What was said of it">
    <h3>Said of it</h3>
    <ul>
      <li v-for="c in detail.comments" :key="c.id" class="small">
        <p class="soft">
          {{ c.author.name }}<template v-if="c.to"> to {{ c.to.name }}</template
          >, <span :title="exact(c.created_at)">{{ ago(c.created_at) }}</span>
          {{ ' ' }}
          <RemoveWords
            v-if="mayRemoveContent(project) && !c.removed"
            :of="c.text"
            :remove="async (reason) => emit('changed', await removeSessionComment(c.id, reason))"
          />
        </p>
        <p v-if="c.removed" class="soft">
          {{ c.removed.by?.name ?? 'Lucid Step' }} took the words out: {{ c.removed.reason }}
        </p>
        <MarkdownText v-else :text="c.text" />
      </li>
    </ul>
    <form v-if="maySay" @submit.prevent="say" @keydown.ctrl.enter.prevent="say">
      <label class="unseen" for="session-say">What is to be said of it</label>
      <Textarea
        id="session-say"
        v-model="draft.text"
        rows="2"
        auto-resize
        fluid
        maxlength="10000"
        placeholder="Say something of it"
      />
      <SelectField
        v-model="draft.to"
        label="Ask somebody to read it"
        none="Nobody"
        :options="asOptions(choices.people)"
      />
      <div class="row">
        <Button type="submit" size="small" outlined :disabled="busy">Say it <kbd>Ctrl Enter</kbd></Button>
      </div>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    </form>
  </section>
</template>

<style scoped>
section,
ul,
form {
  display: grid;
  gap: 8px;
}
h3 {
  font-size: 1rem;
  margin: 0;
}
</style>
