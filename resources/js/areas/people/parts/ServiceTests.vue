<script setup lang="ts">
import Button from 'primevue/button';
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { tryMail, tryStorage } from '@/areas/people/queries';

/** What mails go by and files lie in, as it is configured, and a test of each. */
const props = defineProps<{ services: Api['InstallationServices'] }>();
const TESTS = [
  { name: 'mail', label: 'Send me a mail', run: tryMail },
  { name: 'storage', label: 'Write a file', run: tryStorage },
] as const;
const found = ref<Partial<Record<'mail' | 'storage', Api['ServiceTest']>>>({});
const running = ref<string | null>(null);
const said = (name: 'mail' | 'storage'): string =>
  name === 'mail'
    ? [
        props.services.mailer === 'catcher'
          ? 'kept here, where the demo shows them'
          : `by ${props.services.mailer}`,
        props.services.mail_server,
        `from ${props.services.mail_from}`,
      ]
        .filter(Boolean)
        .join(', ')
    : `${props.services.storage}, ${props.services.storage_place}`;
async function run(test: (typeof TESTS)[number]): Promise<void> {
  running.value = test.name;
  try {
    found.value[test.name] = await test.run();
  } catch (error) {
    found.value[test.name] = { works: false, words: errorMessage(error), took_ms: 0 };
  } finally {
    running.value = null;
  }
}
</script>

<template>
  <dl>
    <template v-for="t in TESTS" :key="t.name">
      <dt>{{ t.name === 'mail' ? 'Mails' : 'Files' }}</dt>
      <dd class="long">
        {{ said(t.name) }}
        <p class="row">
          <Button
            outlined
            size="small"
            severity="secondary"
            :label="t.label"
            :loading="running === t.name"
            @click="run(t)"
          />
          <span v-if="found[t.name]" role="status" :class="{ 'p-invalid-words': !found[t.name]?.works }">
            {{ found[t.name]?.works ? 'Works.' : 'Does not work:' }} {{ found[t.name]?.words }}
            <span v-if="found[t.name]?.works" class="soft">{{ found[t.name]?.took_ms }} ms</span>
          </span>
        </p>
      </dd>
    </template>
    <template v-if="services.proxy">
      <dt>Sign-in by a proxy</dt>
      <dd class="long">from {{ services.proxy }}</dd>
    </template>
  </dl>
  <p class="soft small">Set in <code>.env</code>; the page on operations says how.</p>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 14px 24px;
}
.row {
  margin-top: 6px;
}
@media (max-width: 640px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
