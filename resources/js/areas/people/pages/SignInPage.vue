<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { Problem } from '@/api/client';
import { vFocus } from '@/kit/focus';
import LucidMark from '@/kit/LucidMark.vue';
import { signIn } from '@/areas/people/session';
import { STAYS } from '@/areas/people/useLeaving';
import { readWelcome } from '@/areas/people/queries';

const route = useRoute();
const router = useRouter();
/** What whoever signed out here left, told once. */
const stays = sessionStorage.getItem(STAYS);
sessionStorage.removeItem(STAYS);
const email = ref('');
const password = ref('');
const busy = ref(false);
/** A second factor is asked for once the password is right. */
const code = ref('');
const asksCode = ref(false);
const problem = ref<string | null>(null);
const { data: welcome, suspense } = useQuery({
  queryKey: ['welcome'],
  queryFn: readWelcome,
  // Never again by itself: a guest's answer that comes after signing in would sign out.
  staleTime: Infinity,
  refetchOnWindowFocus: false,
  refetchOnReconnect: false,
});

async function enter(): Promise<void> {
  problem.value = null;
  if (email.value.trim() === '' || password.value === '') {
    problem.value = 'Enter your e-mail address and your password.';
    return;
  }
  busy.value = true;
  try {
    // An answer that is still on its way brings the cookie of a guest: signing in comes after it.
    await suspense().catch(() => undefined);
    const anew = await signIn(email.value, password.value, code.value);
    const to =
      typeof route.query.to === 'string' && route.query.to.startsWith('/') && !route.query.to.startsWith('//')
        ? route.query.to
        : '/';
    if (anew) location.replace(to);
    else await router.push(to);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    // That it is asked for is no mistake of theirs.
    if (error.errors.code && !asksCode.value) {
      asksCode.value = true;
      return;
    }
    problem.value =
      error.status === 429
        ? 'Too many tries. Wait a minute and try again.'
        : (error.errors.email?.[0] ?? error.errors.code?.[0] ?? error.message);
  } finally {
    busy.value = false;
  }
}
function useDemo(person: { email: string; password: string }): void {
  email.value = person.email;
  password.value = person.password;
  void enter();
}
</script>

<template>
  <main class="page">
    <div class="door">
      <LucidMark :size="44" />
      <h1>Lucid Step</h1>
      <p class="soft">Sign in to walk your cycles.</p>
      <p v-if="stays" role="status" class="long">You are signed out. {{ stays }}</p>
      <p v-if="welcome?.came_as" role="status" class="long">
        You came as {{ welcome.came_as }}, and nobody here has this address. An admin of your project invites
        you by it; then you are in without a password.
      </p>
      <form @submit.prevent="enter">
        <div>
          <label class="label" for="email">E-mail</label
          ><InputText
            id="email"
            v-model="email"
            type="email"
            autocomplete="username"
            fluid
            :invalid="problem !== null && !asksCode"
            aria-describedby="problem"
          />
        </div>
        <div>
          <label class="label" for="password">Password</label
          ><InputText
            id="password"
            v-model="password"
            type="password"
            autocomplete="current-password"
            fluid
            :invalid="problem !== null && !asksCode"
          />
        </div>
        <div v-if="asksCode">
          <label class="label" for="code">Code of your phone, or a recovery code</label
          ><InputText id="code" v-model="code" v-focus autocomplete="one-time-code" fluid />
        </div>
        <p v-if="problem" id="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
        <Button type="submit" label="Sign in" :disabled="busy" />
        <p><RouterLink to="/forgot">Forgot your password?</RouterLink></p>
      </form>
    </div>
    <section v-if="welcome?.demo" class="demo" aria-label="Demo sign-ins">
      <h2>This is a demo</h2>
      <p class="soft">
        Skerrywick Ferries is about to open its new booking. Everybody here is made up; sign in as one of
        them.
      </p>
      <ul>
        <li v-for="person in welcome.sign_ins" :key="person.email">
          <button type="button" @click="useDemo(person)">
            <span>{{ person.name }}</span> <span class="soft">{{ person.role }}</span>
          </button>
        </li>
      </ul>
      <p v-if="welcome.practice_url">
        <a :href="welcome.practice_url" target="_blank" rel="noopener">The booking page to test</a>
        <br /><span class="soft">It opens in a window of its own.</span>
      </p>
    </section>
  </main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 340px 380px;
  gap: 88px;
  justify-content: center;
  padding-top: 13vh;
  align-items: start;
}
.door,
form,
.demo {
  display: grid;
  gap: 14px;
}
form {
  margin-top: 10px;
}
.demo {
  border-left: 1px solid var(--rule);
  padding: 6px 0 6px 40px;
}
li button {
  width: 100%;
  display: flex;
  justify-content: space-between;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid var(--rule);
  padding: 8px 4px;
  cursor: pointer;
}
li button:hover {
  background: var(--well);
}
@media (max-width: 860px) {
  .page {
    grid-template-columns: minmax(0, 340px);
    gap: 32px;
    padding-top: 32px;
  }
  .demo {
    border-left: 0;
    padding-left: 0;
  }
}
</style>
