<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { errorMessage, type Api } from '@/api/client';
import AccessTable from '@/areas/people/parts/AccessTable.vue';
import InvitationLines from '@/areas/people/parts/InvitationLines.vue';
import InviteForm from '@/areas/people/parts/InviteForm.vue';
import LeavePanel from '@/areas/people/parts/LeavePanel.vue';
import { changeRole, usePeople } from '@/areas/people/queries';
import { ROLES } from '@/areas/people/roles';
import { refreshSession, session } from '@/areas/people/session';
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';
import { toast } from '@/kit/notices';
import SelectField from '@/kit/SelectField.vue';
import StateBox from '@/kit/StateBox.vue';

/** Who has part in the project: roles, inviting, leaving. */
const route = useRoute();
const router = useRouter();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch, set } = usePeople(() => project.value);
const leaving = ref<string | null>(null);
const problem = ref<{ id: string; words: string } | null>(null);
/** A field whose choice was refused begins anew, with what counts. */
const refusals = ref(0);
// Whether a mail went is known a moment later.
useIntervalFn(() => {
  if (data.value?.invitations.some((i) => i.state === 'waiting')) void refetch();
}, 2500);
const me = computed(() => session.value?.user.id);

async function give(person: Api['ProjectPerson'], role: Api['ProjectPerson']['role']): Promise<void> {
  problem.value = null;
  try {
    await set(await changeRole(project.value, person.id, role));
    toast(`${person.name} is ${role} now.`);
    if (person.id === me.value) await refreshSession();
  } catch (e) {
    problem.value = { id: person.id, words: errorMessage(e) };
    refusals.value += 1;
    // The list shows what counts.
    await refetch();
  }
}
async function left(person: Api['ProjectPerson']): Promise<void> {
  leaving.value = null;
  if (person.id === me.value) {
    await refreshSession();
    await router.push('/');
    return;
  }
  toast(`${person.name} has left the project.`);
  await refetch();
}
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <SetupSection
        title="People"
        :count="data.people.length"
        wide
        what="Whoever leaves stays by name in what they did; what is open of theirs is handed on in the same step."
      >
        <div class="scroll">
          <table class="lines stacked">
            <thead>
              <tr>
                <th>Name</th>
                <th v-if="data.may_manage">E-mail</th>
                <th>Role</th>
                <th v-if="data.may_manage">Open</th>
                <th><span class="unseen">What to do</span></th>
              </tr>
            </thead>
            <tbody v-for="p in data.people" :key="p.id">
              <tr>
                <td class="long">
                  {{ p.name }}<span v-if="p.id === me" class="soft"> (you)</span>
                  <p v-if="problem?.id === p.id" class="p-invalid-words" role="alert">{{ problem.words }}</p>
                </td>
                <td v-if="data.may_manage" class="long soft">{{ p.email }}</td>
                <td>
                  <SelectField
                    v-if="data.may_manage"
                    :key="refusals"
                    :model-value="p.role"
                    :label="`Role of ${p.name}`"
                    :options="ROLES"
                    hide-label
                    small
                    @update:model-value="$event && give(p, $event)"
                  />
                  <template v-else>{{ p.role }}</template>
                </td>
                <td v-if="data.may_manage" class="soft">{{ p.open.join(', ') }}</td>
                <td>
                  <button
                    v-if="(data.may_manage || p.id === me) && leaving !== p.id"
                    type="button"
                    class="link"
                    :aria-label="p.id === me ? 'Leave … the project' : `Take out … ${p.name}`"
                    @click="leaving = p.id"
                  >
                    {{ p.id === me ? 'Leave …' : 'Take out …' }}
                  </button>
                </td>
              </tr>
              <tr v-if="leaving === p.id">
                <td colspan="5">
                  <LeavePanel
                    :project="project"
                    :person="p"
                    :people="data.people"
                    :me="p.id === me"
                    @left="left(p)"
                    @stay="leaving = null"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="!data.may_manage" class="soft">
          Admins of the project invite, change roles and take people out.
        </p>
      </SetupSection>
      <template v-if="data.may_manage">
        <SetupSection
          title="Invite"
          what="By mail: whoever has an account joins by one click, others choose a name and a password."
        >
          <InviteForm :project="project" @invited="refetch()" />
        </SetupSection>
        <SetupSection
          v-if="data.invitations.length > 0"
          title="Invited"
          wide
          :count="data.invitations.length"
          what="Each is open for seven days. The address can be handed over in another way than by mail."
        >
          <InvitationLines :invitations="data.invitations" @changed="refetch()" />
        </SetupSection>
      </template>
      <SetupSection title="Who may what" wide what="Each role may all that those before it may.">
        <AccessTable :project="project" />
      </SetupSection>
    </template>
  </div>
</template>

<style scoped>
table.lines td {
  vertical-align: middle;
}
</style>
