<script setup lang="ts">
import Button from 'primevue/button';
import { onMounted, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import DoorPage from '@/areas/people/parts/DoorPage.vue';
import NewPassword from '@/areas/people/parts/NewPassword.vue';
import { acceptInvitation, readInvitation } from '@/areas/people/queries';
import { enterBy, projectOf, signOut, whoIsThere } from '@/areas/people/session';
import TextField from '@/kit/TextField.vue';

/** Where an invitation is accepted. What proves it stands behind the # of the address, and goes to no log. */
const router = useRouter();
/** Over the sign-in it is kept by the tab: an address that is sent would have it. */
const KEPT = 'lucid-step-invitation';
if (location.hash.length > 1) sessionStorage.setItem(KEPT, location.hash.slice(1));
const token = sessionStorage.getItem(KEPT) ?? '';
const invitation = ref<Api['InvitationPage'] | null>(null);
const over = ref<Problem | null>(null);
const form = reactive({ name: '', password: '' });
const problem = ref<Problem | null>(null);
const busy = ref(false);

async function look(): Promise<void> {
  over.value = null;
  try {
    await whoIsThere();
    invitation.value = await readInvitation(token);
    form.name = invitation.value.name;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const project = String(error.facts.project ?? '');
    // Opened again by whoever joined by it: it leads on.
    if (projectOf(project)) await router.replace(`/${project}/today`);
    else over.value = error;
  }
}
onMounted(look);

async function join(): Promise<void> {
  problem.value = null;
  busy.value = true;
  const project = invitation.value?.project_code ?? '';
  try {
    const anew = await enterBy(() => acceptInvitation({ token, ...form }));
    sessionStorage.removeItem(KEPT);
    if (anew) location.replace(`/${project}/today`);
    else await router.replace(`/${project}/today`);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    problem.value = error;
  } finally {
    busy.value = false;
  }
}
async function leave(): Promise<void> {
  await signOut();
  location.reload();
}
</script>

<template>
  <DoorPage :title="invitation ? `Join ${invitation.project}` : 'An invitation'">
    <template v-if="over">
      <p role="alert">
        {{
          over.status === 404
            ? 'There is no such invitation. Was the whole address copied, to its last character?'
            : over.message
        }}
      </p>
      <p v-if="over.isAway">
        <button type="button" class="link" @click="look">Try again</button>
      </p>
      <p v-else><RouterLink to="/">To your projects</RouterLink></p>
    </template>
    <p v-else-if="!invitation" class="soft" role="status">Looking it up …</p>
    <template v-else>
      <p>
        {{ invitation.inviter }} invites <strong class="long">{{ invitation.email }}</strong> as
        {{ invitation.role }}.
      </p>
      <template v-if="invitation.signed_in_as">
        <p>You are signed in as {{ invitation.signed_in_as }}, who is somebody else.</p>
        <Button label="Sign out and go on" @click="leave" />
      </template>
      <template v-else-if="invitation.is_me">
        <p v-if="problem" class="p-invalid-words" role="alert">{{ problem.message }}</p>
        <Button label="Join" :disabled="busy" @click="join" />
      </template>
      <template v-else-if="invitation.has_account">
        <p>You have an account already. Sign in, and one more click takes you in.</p>
        <RouterLink class="p-button" :to="{ path: '/sign-in', query: { to: '/join' } }">Sign in</RouterLink>
      </template>
      <form v-else @submit.prevent="join">
        <TextField
          id="name"
          v-model="form.name"
          label="Your name, as others see it"
          autocomplete="name"
          :problem="problem?.errors.name?.[0]"
        />
        <NewPassword v-model="form.password" :problem="problem?.errors.password?.[0]" />
        <p
          v-if="problem && !problem.errors.name && !problem.errors.password"
          class="p-invalid-words"
          role="alert"
        >
          {{ problem.message }}
        </p>
        <Button type="submit" :label="`Join ${invitation.project}`" :disabled="busy" />
      </form>
    </template>
  </DoorPage>
</template>

<style scoped>
a.p-button {
  text-decoration: none;
  justify-content: center;
}
</style>
