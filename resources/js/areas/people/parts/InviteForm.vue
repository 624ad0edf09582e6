<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { ROLES } from '@/areas/people/roles';
import { invitePeople } from '@/areas/people/queries';
import { toast } from '@/kit/notices';
import { useLocalDraft } from '@/offline/useLocalDraft';
import SelectField from '@/kit/SelectField.vue';

/** Invites one or many: pasted lines, or a table. What cannot be taken stays in the field, with why. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ invited: [] }>();
const { draft: form, clear } = useLocalDraft(
  computed(() => `invite:${props.project}`),
  () => ({ text: '', role: 'tester' as Api['ProjectPerson']['role'] }),
);
const refused = ref<Api['InvitedLine'][]>([]);
const problem = ref('');
const busy = ref(false);

async function invite(): Promise<void> {
  problem.value = '';
  refused.value = [];
  busy.value = true;
  try {
    const lines = await invitePeople(props.project, { ...form.value });
    refused.value = lines.filter((l) => l.became === 'refused');
    form.value.text = refused.value.map((l) => l.text).join('\n');
    if (form.value.text === '') await clear();
    const asked = lines.length - refused.value.length;
    if (asked > 0) {
      toast(
        asked === 1 ? 'Invited. The mail is on its way.' : `${asked} invited. The mails are on their way.`,
      );
      emit('invited');
    }
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (file)
    form.value.text = [form.value.text.trimEnd(), await file.text()].filter((t) => t !== '').join('\n');
  input.value = '';
}
</script>

<template>
  <form @submit.prevent="invite">
    <label class="label" for="invited"
      >Mail addresses, a line each; a name and a role beside one if you like</label
    >
    <textarea
      id="invited"
      v-model="form.text"
      class="field mono"
      :rows="Math.min(12, Math.max(3, form.text.split('\n').length + 1))"
      placeholder="Ana Bell <ana@bakery.example>&#10;ben@bakery.example, lead"
      spellcheck="false"
    />
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <div v-if="refused.length > 0" role="alert">
      <ul class="refused">
        <li v-for="(l, at) in refused.slice(0, 20)" :key="l.line" class="p-invalid-words">
          Line {{ at + 1 }}: {{ l.problem }}
        </li>
        <li v-if="refused.length > 20" class="soft small">And {{ refused.length - 20 }} more lines.</li>
      </ul>
    </div>
    <div class="row">
      <SelectField v-model="form.role" label="As" :options="ROLES" />
      <Button type="submit" label="Invite" :disabled="busy" />
      <label class="link soft file"
        >Add a CSV<input
          class="unseen"
          type="file"
          accept=".csv,.txt,.tsv,text/plain,text/csv"
          @change="take"
      /></label>
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
.refused {
  display: grid;
}
.file:focus-within {
  outline: 2px solid var(--dusk);
  outline-offset: 2px;
}
</style>
