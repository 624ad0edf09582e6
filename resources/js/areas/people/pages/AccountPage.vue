<script setup lang="ts">
import Button from 'primevue/button';
import { reactive, ref, watch } from 'vue';
import { errorMessage, Problem } from '@/api/client';
import HowYouWork from '@/areas/people/parts/HowYouWork.vue';
import NoticeChoices from '@/areas/people/parts/NoticeChoices.vue';
import SecondFactor from '@/areas/people/parts/SecondFactor.vue';
import NewPassword from '@/areas/people/parts/NewPassword.vue';
import { changePassword, endOtherSessions, endSession, renameMe, useAccount } from '@/areas/people/queries';
import { refreshSession } from '@/areas/people/session';
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact, plural } from '@/kit/words';
import TextField from '@/kit/TextField.vue';

/** One's own account: name, password, and where one is signed in. */
const { data, error, isPending, refetch, set } = useAccount();
const name = ref('');
watch(
  () => data.value?.name,
  (now) => (name.value = now ?? ''),
  { immediate: true },
);
const passwords = reactive({ old: '', password: '' });
const nameProblem = ref('');
const wrong = ref<Problem | null>(null);
const sessionProblem = ref('');

async function rename(): Promise<void> {
  nameProblem.value = '';
  try {
    await set(await renameMe(name.value));
    await refreshSession();
    toast(`You are ${data.value?.name} now, also in what you did before.`);
  } catch (e) {
    nameProblem.value = errorMessage(e);
  }
}
async function change(): Promise<void> {
  wrong.value = null;
  try {
    await set(await changePassword({ ...passwords }));
    Object.assign(passwords, { old: '', password: '' });
    toast('Changed. Everywhere else you are signed out.');
  } catch (e) {
    if (!(e instanceof Problem)) throw e;
    wrong.value = e;
  }
}
async function end(id: string | null): Promise<void> {
  sessionProblem.value = '';
  try {
    await set(id === null ? await endOtherSessions() : await endSession(id));
    toast(id === null ? 'Everywhere else you are signed out.' : 'Signed out there.');
  } catch (e) {
    sessionProblem.value = errorMessage(e);
    await refetch();
  }
}
</script>

<template>
  <main class="page">
    <div class="title-line"><h1>Your account</h1></div>
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <SetupSection title="Name" what="As others see it, in every project.">
        <form class="narrow" @submit.prevent="rename">
          <TextField id="my-name" v-model="name" label="Name" autocomplete="name" :problem="nameProblem" />
          <p class="soft small">You sign in as {{ data.email }}.</p>
          <Button type="submit" outlined label="Save" :disabled="name.trim() === '' || name === data.name" />
        </form>
      </SetupSection>
      <SetupSection id="work" title="How you work" what="Counts at once, at every device of yours.">
        <HowYouWork :chosen="data.preferences" @changed="set" />
      </SetupSection>
      <SetupSection
        title="What you are told"
        what="Here is the bell at the top. What concerns a whole cycle goes to whoever watches or leads it."
      >
        <NoticeChoices :chosen="data.preferences.notices" @changed="set" />
      </SetupSection>
      <SetupSection
        title="Password"
        what="Every other session of yours ends then, and so do tokens that you gave to programs."
      >
        <form class="narrow" @submit.prevent="change">
          <TextField
            id="old-password"
            v-model="passwords.old"
            label="The one you have now"
            type="password"
            autocomplete="current-password"
            :problem="wrong?.errors.old?.[0]"
          />
          <NewPassword
            v-model="passwords.password"
            label="Another one"
            :known="[data.name, data.email]"
            :problem="wrong?.errors.password?.[0]"
          />
          <p v-if="wrong && Object.keys(wrong.errors).length === 0" class="p-invalid-words" role="alert">
            {{ wrong.message }}
          </p>
          <Button type="submit" outlined label="Change it" />
        </form>
      </SetupSection>
      <SetupSection
        title="Second factor"
        what="Beside your password a code that only your phone knows: a password that somebody saw is not enough then."
      >
        <SecondFactor :account="data" @changed="set" />
      </SetupSection>
      <SetupSection
        title="Where you are signed in"
        :count="data.sessions.length"
        wide
        what="A session that you do not know is somebody else’s: end it, and change your password."
      >
        <p v-if="sessionProblem" class="p-invalid-words" role="alert">{{ sessionProblem }}</p>
        <div class="scroll">
          <table class="lines stacked">
            <thead>
              <tr>
                <th>Device</th>
                <th>From</th>
                <th>Used</th>
                <th><span class="unseen">What to do</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="s in data.sessions" :key="s.id">
                <td>{{ s.device }}<span v-if="s.is_this" class="soft"> (this one)</span></td>
                <td class="mono">{{ s.address }}</td>
                <td :title="exact(s.used_at)">{{ ago(s.used_at) }}</td>
                <td>
                  <button
                    v-if="!s.is_this"
                    type="button"
                    class="link"
                    :aria-label="`Sign out: ${s.device}, used ${ago(s.used_at)}`"
                    @click="end(s.id)"
                  >
                    Sign out
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="data.sessions.filter((s) => !s.is_this).length > 1">
          <button type="button" class="link" @click="end(null)">
            Sign out the {{ plural(data.sessions.length - 1, 'other', 'others') }}
          </button>
        </p>
      </SetupSection>
    </template>
  </main>
</template>

<style scoped>
.narrow {
  display: grid;
  gap: 12px;
  max-width: 26rem;
  justify-items: stretch;
}
.narrow button {
  justify-self: start;
}
</style>
