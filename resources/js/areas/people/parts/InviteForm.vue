<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import type { Api } from '@/api/client';
import { ROLES } from '@/areas/people/roles';
import { invitePeople } from '@/areas/people/queries';
import { toast } from '@/kit/notices';
import { useLines } from '@/offline/useLines';
import LinesField from '@/kit/LinesField.vue';
import SelectField from '@/kit/SelectField.vue';

/** Invites one or many: pasted lines, or a table. What cannot be taken stays in the field, with why. */
const props = defineProps<{ project: string }>();
const emit = defineEmits<{ invited: [] }>();
const { form, refused, problem, busy, go } = useLines(
  computed(() => `invite:${props.project}`),
  () => ({ text: '', role: 'tester' as Api['ProjectPerson']['role'] }),
  (lines) => invitePeople(props.project, lines),
);
async function invite(): Promise<void> {
  const asked = await go();
  if (asked === 0) return;
  toast(asked === 1 ? 'Invited. The mail is on its way.' : `${asked} invited. The mails are on their way.`);
  emit('invited');
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
