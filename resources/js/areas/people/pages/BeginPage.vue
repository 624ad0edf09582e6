<script setup lang="ts">
import Button from 'primevue/button';
import { onMounted, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import DoorPage from '@/areas/people/parts/DoorPage.vue';
import NewPassword from '@/areas/people/parts/NewPassword.vue';
import { readLink, spendLink } from '@/areas/people/queries';
import { enterBy } from '@/areas/people/session';
import TextField from '@/kit/TextField.vue';

/** An address that works once: of the first owner, of an owner who lost everything, or of whoever forgot their password. */
const router = useRouter();
const token = location.hash.slice(1);
const link = ref<Api['OneTimeLinkPage'] | null>(null);
const over = ref<Problem | null>(null);
const form = reactive({ name: '', email: '', password: '', code: '' });
const asksCode = ref(false);
const problem = ref<Problem | null>(null);
const busy = ref(false);

async function look(): Promise<void> {
  over.value = null;
  try {
    link.value = await readLink(token);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    over.value = error;
  }
}
onMounted(look);

const title = (): string => {
  if (!link.value) return 'An address that works once';
  if (link.value.purpose === 'password') return 'Another password';
  return link.value.email === null ? 'The first owner' : 'Owner of this installation';
};

async function begin(): Promise<void> {
  problem.value = null;
  busy.value = true;
  const to = link.value?.purpose === 'owner' ? '/installation' : '/';
  try {
    const anew = await enterBy(() => spendLink({ token, ...form }));
    if (anew) location.replace(to);
    else await router.replace(to);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if (error.status === 404) over.value = error;
    if (error.errors.code) asksCode.value = true;
    problem.value = error;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <DoorPage :title="title()">
    <template v-if="over">
      <p role="alert">
        {{
          over.status === 404
            ? 'This address does not work any more: it was used, another was made since, or its hour is over.'
            : over.message
        }}
      </p>
      <p v-if="over.isAway"><button type="button" class="link" @click="look">Try again</button></p>
      <p v-else>
        <RouterLink to="/forgot">Have another sent</RouterLink>, or ask whoever runs this installation.
      </p>
    </template>
    <p v-else-if="!link" class="soft" role="status">Looking it up …</p>
    <form v-else @submit.prevent="begin">
      <p v-if="link.email === null" class="soft">
        Owners make projects and look after people. You can make others owner later.
      </p>
      <p v-else class="long">
        For <strong>{{ link.name }}</strong>, {{ link.email }}. Programs that were let in with your old
        password are out then.
      </p>
      <template v-if="link.email === null">
        <TextField
          id="name"
          v-model="form.name"
          label="Your name, as others see it"
          autocomplete="name"
          :problem="problem?.errors.name?.[0]"
        />
        <TextField
          id="email"
          v-model="form.email"
          label="E-mail, with which you sign in"
          type="email"
          autocomplete="username"
          :problem="problem?.errors.email?.[0]"
        />
      </template>
      <NewPassword v-model="form.password" :problem="problem?.errors.password?.[0]" />
      <TextField
        v-if="asksCode"
        id="code"
        v-model="form.code"
        label="Code of your phone, or a recovery code"
        autocomplete="one-time-code"
        :problem="problem?.errors.code?.[0]"
      />
      <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
        {{ problem.message }}
      </p>
      <Button type="submit" label="Set it and go in" :disabled="busy" />
    </form>
  </DoorPage>
</template>
