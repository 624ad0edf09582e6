<script setup lang="ts">
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { useNow } from '@vueuse/core';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import FilesField from '@/areas/defects/parts/FilesField.vue';
import FileStrip from '@/areas/defects/parts/FileStrip.vue';
import { addFile, mendComment, removeComment, removeFile, sayOfDefect } from '@/areas/defects/queries';
import { session } from '@/areas/people/session';
import MarkdownText from '@/kit/MarkdownText.vue';
import RemoveWords from '@/kit/RemoveWords.vue';
import { ago, exact } from '@/kit/words';
import { useLocalDraft } from '@/offline/useLocalDraft';
import { useLocalFiles } from '@/offline/useLocalFiles';
import { v7 as uuid7 } from 'uuid';

/** What people say of a defect. What is being written stays on the device until it is sent. */
const props = defineProps<{
  detail: Api['DefectDetail'];
  people: Api['Person'][];
  maySay: boolean;
  mayRemove: boolean;
}>();
const emit = defineEmits<{ changed: [Api['DefectDetail']] }>();
const { draft, clear } = useLocalDraft(
  computed(() => `defect-talk:${props.detail.defect.id}`),
  () => ({ id: '', text: '', mending: '', mended: '' }),
);
const { files, add, replace, drop } = useLocalFiles(computed(() => `talk:${props.detail.defect.id}`));
const problem = ref('');
const busy = ref(false);
const now = useNow({ interval: 15_000 });
const mayMend = (c: Api['DefectCommentLine']): boolean =>
  c.author.id === session.value?.user.id && !c.removed && Date.parse(c.stands_at) > now.value.getTime();

/** People whose names begin as what is typed behind the last @. */
const named = computed(() => {
  const typed = /(?:^|\s)@([\p{L}\p{N} ]{0,40})$/u.exec(draft.value.text)?.[1];
  if (typed === undefined) return [];
  const part = typed.toLowerCase();
  return props.people.filter((p) => p.name.toLowerCase().startsWith(part) && p.name !== typed).slice(0, 6);
});
function name(person: string): void {
  draft.value = { ...draft.value, text: draft.value.text.replace(/@[\p{L}\p{N} ]*$/u, `@${person} `) };
  document.getElementById('talk')?.focus();
}
async function run(work: () => Promise<Api['DefectDetail']>): Promise<void> {
  if (busy.value) return;
  problem.value = '';
  busy.value = true;
  try {
    emit('changed', await work());
  } catch (e) {
    problem.value = errorMessage(e);
  }
  busy.value = false;
}
const say = (): Promise<void> =>
  run(async () => {
    // The same again after a lost answer is said once.
    if (draft.value.id === '') draft.value = { ...draft.value, id: uuid7() };
    const { id, text } = draft.value;
    for (const f of files.value) await addFile(props.detail.defect.key, f, id);
    const said = await sayOfDefect(props.detail.defect.key, { id, text });
    for (const f of [...files.value]) await drop(f.id);
    if (draft.value.mending === '') await clear();
    else draft.value = { ...draft.value, id: '', text: '' };
    return said;
  });
const mend = (): Promise<void> =>
  run(async () => {
    const said = await mendComment(draft.value.mending, draft.value.mended);
    draft.value = { ...draft.value, mending: '', mended: '' };
    return said;
  });
async function remove(id: string, reason: string): Promise<void> {
  emit('changed', await removeComment(id, reason));
}
async function takeOut(file: string, reason: string): Promise<void> {
  emit('changed', await removeFile(file, reason));
}
</script>

<template>
  <section aria-label="Talk">
    <h2>Talk</h2>
    <ol>
      <li v-for="c in detail.comments" :key="c.id">
        <p>
          <strong>{{ c.author.name }}</strong>
          <span class="soft small" :title="exact(c.at)"> {{ ago(c.at) }}</span>
          <span v-if="c.edited_at" class="soft small" :title="exact(c.edited_at)">, changed</span>
        </p>
        <p v-if="c.removed" class="soft small">
          {{ c.removed.by?.name ?? 'Lucid Step' }} took the words out,
          <span :title="exact(c.removed.at)">{{ ago(c.removed.at) }}</span>: {{ c.removed.reason }}
        </p>
        <form
          v-else-if="draft.mending === c.id"
          @submit.prevent="mend"
          @keydown.ctrl.enter.prevent="mend"
          @keydown.esc.stop="draft = { ...draft, mending: '', mended: '' }"
        >
          <Textarea
            v-model="draft.mended"
            rows="2"
            auto-resize
            fluid
            maxlength="20000"
            aria-label="What you said"
          />
          <p class="row">
            <button type="submit" class="link">Save</button>
            <button type="button" class="link soft" @click="draft = { ...draft, mending: '', mended: '' }">
              Leave it
            </button>
          </p>
        </form>
        <template v-else>
          <MarkdownText v-if="c.text" :text="c.text" />
          <FileStrip :files="c.files" :may-remove="mayRemove" :remove="takeOut" />
          <p v-if="mayMend(c) || mayRemove" class="row small">
            <button
              v-if="mayMend(c)"
              type="button"
              class="link soft"
              title="For a quarter of an hour"
              @click="draft = { ...draft, mending: c.id, mended: c.text }"
            >
              Change
            </button>
            <RemoveWords
              v-if="mayRemove"
              :of="`what ${c.author.name} said`"
              :remove="(why) => remove(c.id, why)"
            />
          </p>
        </template>
      </li>
      <li v-if="detail.comments.length === 0" class="soft">Nobody said anything yet.</li>
    </ol>
    <form v-if="maySay" @submit.prevent="say" @keydown.ctrl.enter.prevent="say">
      <FilesField
        label="Pictures to send along"
        word="Picture or file"
        :files="files"
        :add="add"
        :replace="replace"
        :drop="drop"
      >
        <label class="unseen" for="talk">Write to whoever works on it</label>
        <Textarea
          id="talk"
          v-model="draft.text"
          rows="2"
          auto-resize
          fluid
          maxlength="20000"
          placeholder="Write; @ names somebody"
        />
        <p v-if="named.length > 0" class="row small" aria-label="Name somebody">
          <button v-for="p in named" :key="p.id" type="button" class="link" @click="name(p.name)">
            @{{ p.name }}
          </button>
        </p>
        <template #acts>
          <Button
            v-if="draft.text.trim() || files.length > 0"
            type="submit"
            size="small"
            outlined
            :disabled="busy"
            >Say it <kbd>Ctrl Enter</kbd></Button
          >
        </template>
      </FilesField>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
li {
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
}
form {
  display: grid;
  gap: 6px;
  margin-top: 10px;
}
</style>
