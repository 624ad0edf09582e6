<script setup lang="ts">
import Button from 'primevue/button';
import { reactive, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { beginFactor, confirmFactor, dropFactor } from '@/areas/people/queries';
import { refreshSession } from '@/areas/people/session';
import { toast } from '@/kit/notices';
import { ago, exact, plural } from '@/kit/words';
import TextField from '@/kit/TextField.vue';

/** A second factor: set up with a QR code that is drawn here, and dropped by the password. Recovery codes are shown once. */
defineProps<{ account: Api['AccountPage'] }>();
const emit = defineEmits<{ changed: [now: Api['AccountPage'] | undefined] }>();
const beginning = ref<Api['NewFactor'] | null>(null);
const picture = ref('');
const codes = ref<string[]>([]);
const dropping = ref(false);
const form = reactive({ code: '', password: '' });
const problem = ref('');

async function run(work: () => Promise<void>): Promise<void> {
  problem.value = '';
  try {
    await work();
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
const begin = (): Promise<void> =>
  run(async () => {
    beginning.value = await beginFactor();
    const { renderSVG } = await import('uqr');
    picture.value = renderSVG(beginning.value.uri, { border: 2 });
  });
const confirm = (): Promise<void> =>
  run(async () => {
    codes.value = await confirmFactor(form.code);
    beginning.value = null;
    form.code = '';
    await refreshSession();
    toast('From now on it is asked for when you sign in.');
  });
function kept(): void {
  codes.value = [];
  emit('changed', undefined);
}
const copy = (): Promise<void> =>
  run(async () => {
    await navigator.clipboard.writeText(codes.value.join('\n'));
    toast('Copied. Keep them where your phone is not.');
  });
const drop = (): Promise<void> =>
  run(async () => {
    const now = await dropFactor(form.password);
    dropping.value = false;
    form.password = '';
    emit('changed', now);
    await refreshSession();
    toast('It is asked for no more.');
  });
</script>

<template>
  <div class="factor">
    <template v-if="codes.length > 0">
      <p>
        <strong>Keep these codes.</strong> Each lets you in once when you have not your phone. They are shown
        this one time.
      </p>
      <ul class="codes mono" aria-label="Recovery codes">
        <li v-for="c in codes" :key="c">{{ c }}</li>
      </ul>
      <div class="row">
        <Button outlined label="Copy them" @click="copy" />
        <Button label="I have kept them" @click="kept" />
      </div>
    </template>
    <form v-else-if="beginning" @submit.prevent="confirm">
      <p>
        Read this with a program for one-time codes on your phone, then enter the six digits that it shows.
      </p>
      <!-- eslint-disable-next-line vue/no-v-html -- drawn here, of squares alone -->
      <div class="qr" role="img" aria-label="QR code of the second factor" v-html="picture" />
      <p class="soft small">
        No camera? Type it: <span class="mono long">{{ beginning.secret.match(/.{4}/g)?.join(' ') }}</span>
      </p>
      <TextField id="factor-code" v-model="form.code" label="The six digits" autocomplete="one-time-code" />
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <div class="row">
        <Button type="submit" label="Ask for it from now on" />
        <button type="button" class="link" @click="beginning = null">Not now</button>
      </div>
    </form>
    <template v-else-if="account.second_factor_at">
      <p>
        Asked for since
        <span :title="exact(account.second_factor_at)">{{ ago(account.second_factor_at) }}</span>;
        {{ plural(account.recovery_codes, 'recovery code is', 'recovery codes are') }} left.
      </p>
      <form v-if="dropping" @submit.prevent="drop">
        <TextField
          id="drop-password"
          v-model="form.password"
          label="Your password"
          type="password"
          autocomplete="current-password"
        />
        <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
        <div class="row">
          <Button type="submit" outlined label="Ask for it no more" />
          <button type="button" class="link" @click="dropping = false">Leave it</button>
        </div>
      </form>
      <p v-else>
        <button type="button" class="link" @click="dropping = true">Drop it, or set up another …</button>
      </p>
    </template>
    <template v-else>
      <p class="soft">Only your password is asked for.</p>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <Button outlined label="Set one up" @click="begin" />
    </template>
  </div>
</template>

<style scoped>
.factor,
form {
  display: grid;
  gap: 12px;
  max-width: 30rem;
  justify-items: start;
}
.qr {
  width: 184px;
  height: 184px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 6px;
  overflow: hidden;
}
.codes {
  display: grid;
  grid-template-columns: repeat(2, max-content);
  gap: 4px 32px;
  padding: 12px 16px;
  background: var(--well);
  border-radius: 6px;
  font-size: 1rem;
}
.code {
  width: 9rem;
}
</style>
