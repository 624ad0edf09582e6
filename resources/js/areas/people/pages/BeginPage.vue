<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { onMounted, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';
import { Problem, type Api } from '@/api/client';
import DoorPage from '@/areas/people/parts/DoorPage.vue';
import NewPassword from '@/areas/people/parts/NewPassword.vue';
import { readLink, spendLink } from '@/areas/people/queries';
import { enterBy } from '@/areas/people/session';

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
        <div>
          <label class="label" for="name">Your name, as others see it</label>
          <InputText
            id="name"
            v-model="form.name"
            autocomplete="name"
            fluid
            :invalid="problem?.errors.name !== undefined"
          />
          <p v-if="problem?.errors.name" class="p-invalid-words" role="alert">{{ problem.errors.name[0] }}</p>
        </div>
        <div>
          <label class="label" for="email">E-mail, with which you sign in</label>
          <InputText
            id="email"
            v-model="form.email"
            type="email"
            autocomplete="username"
            fluid
            :invalid="problem?.errors.email !== undefined"
          />
          <p v-if="problem?.errors.email" class="p-invalid-words" role="alert">
            {{ problem.errors.email[0] }}
          </p>
        </div>
      </template>
      <NewPassword v-model="form.password" :problem="problem?.errors.password?.[0]" />
      <div v-if="asksCode">
        <label class="label" for="code">Code of your phone, or a recovery code</label>
        <InputText id="code" v-model="form.code" autocomplete="one-time-code" fluid />
        <p v-if="problem?.errors.code" class="p-invalid-words" role="alert">{{ problem.errors.code[0] }}</p>
      </div>
      <p v-if="problem && Object.keys(problem.errors).length === 0" class="p-invalid-words" role="alert">
        {{ problem.message }}
      </p>
      <Button type="submit" label="Set it and go in" :disabled="busy" />
    </form>
  </DoorPage>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
}
</style>
