<script setup lang="ts">
import Button from 'primevue/button';
import { ref } from 'vue';
import { errorMessage } from '@/api/client';
import DoorPage from '@/areas/people/parts/DoorPage.vue';
import { askForPassword, readWelcome } from '@/areas/people/queries';
import TextField from '@/kit/TextField.vue';

/** Whoever forgot their password has an address sent. Whether somebody has this mail address is told to nobody. */
const email = ref('');
const sent = ref('');
const problem = ref('');
const busy = ref(false);

async function ask(): Promise<void> {
  problem.value = '';
  if (email.value.trim() === '') {
    problem.value = 'Enter the e-mail address with which you sign in.';
    return;
  }
  busy.value = true;
  try {
    await readWelcome();
    await askForPassword(email.value);
    sent.value = email.value.trim();
  } catch (error) {
    problem.value = errorMessage(error);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <DoorPage title="Another password">
    <template v-if="sent">
      <p role="status">
        If somebody here signs in as <strong class="long">{{ sent }}</strong>, a mail is on its way. The
        address in it works for an hour.
      </p>
      <p class="soft">
        No mail after some minutes? Look where your mail program puts what it does not trust, or ask whoever
        runs this installation.
      </p>
      <p><RouterLink to="/sign-in">To the sign-in</RouterLink></p>
    </template>
    <form v-else @submit.prevent="ask">
      <TextField
        id="email"
        v-model="email"
        label="E-mail"
        type="email"
        autocomplete="username"
        :problem="problem"
      />
      <Button type="submit" label="Send an address" :disabled="busy" />
      <p><RouterLink to="/sign-in">To the sign-in</RouterLink></p>
    </form>
  </DoorPage>
</template>
