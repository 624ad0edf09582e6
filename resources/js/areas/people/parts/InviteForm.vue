<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { ROLES } from '@/areas/people/roles';
import { invitePeople } from '@/areas/people/queries';
import { toast } from '@/kit/notices';
import { useLocalDraft } from '@/offline/useLocalDraft';
import LinesField from '@/kit/LinesField.vue';
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
</script>

<template>
  <form @submit.prevent="invite">
    <label class="label" for="invited"
      >Mail addresses, a line each; a name and a role beside one if you like</label
    >
    <LinesField
      id="invited"
      v-model="form.text"
      :placeholder="'Ana Bell <ana@bakery.example>\nben@bakery.example, lead'"
      :problem="problem"
      :refused="refused"
    >
      <SelectField v-model="form.role" label="As" :options="ROLES" />
      <Button type="submit" label="Invite" :disabled="busy" />
    </LinesField>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
}
</style>
