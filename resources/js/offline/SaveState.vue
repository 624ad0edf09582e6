<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { kindOf } from '@/offline/commands';
import { outbox } from '@/offline/outbox';
import { exact, plural, when } from '@/kit/words';

const route = useRoute();
const open = ref(false);
const waiting = computed(() => outbox.waiting.value.length);
const held = computed(() => outbox.held.value.length);
const refused = computed(() => outbox.refused.value);
const words = computed(() => {
  const { awaySince, failsSince, stopped, full, sending } = outbox.state;
  const since = awaySince ?? failsSince;
  if (full) return 'Not kept';
  if (refused.value.length > 0) return `${refused.value.length} refused`;
  if (stopped && waiting.value > 0) return `${waiting.value} waiting: signed out`;
  if (since && waiting.value > 0)
    return `${waiting.value} waiting since ${when(outbox.waiting.value[0]?.at ?? since)}`;
  if (awaySince) return 'Server away';
  if (waiting.value > 0) return sending ? `Sending ${waiting.value}` : `${waiting.value} waiting`;
  if (held.value > 0) return `${held.value} to look over`;
  return 'Saved';
});
const calm = computed(() => words.value === 'Saved');
/** What was refused, as a file: a way out that loses nothing. */
function takeOut(): void {
  const plain = refused.value.map(({ command, ...act }) => ({
    ...act,
    command: Object.fromEntries(Object.entries(command).filter(([, v]) => !(v instanceof Blob))),
  }));
  save(new Blob([JSON.stringify(plain, null, 2)], { type: 'application/json' }), 'lucid-step-refused.json');
  for (const { command } of refused.value) {
    const upload = kindOf(command).upload?.(command);
    if (upload) save(upload.file, upload.name);
  }
}
function save(file: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
</script>

<template>
  <div class="save" @keydown.esc="open = false">
    <button type="button" :class="{ calm }" :aria-expanded="open" @click="open = !open">
      <svg v-if="calm" width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
        <path d="M1.5 6.5 4.6 9.6 10.5 2.6" fill="none" stroke="currentColor" stroke-width="2" />
      </svg>
      <svg v-else width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
        <path d="M6 1v6M2.8 4.2 6 1l3.2 3.2M1 11h10" fill="none" stroke="currentColor" stroke-width="1.8" />
      </svg>
      <span role="status">{{ words }}</span>
    </button>
    <div v-if="open" class="sheet box">
      <p v-if="outbox.state.full">{{ outbox.state.full }}</p>
      <p v-else-if="outbox.state.stopped && waiting > 0">
        {{ outbox.state.stopped }}
        <RouterLink :to="{ path: '/sign-in', query: { to: route.fullPath } }" @click="open = false"
          >Sign in</RouterLink
        >
      </p>
      <p v-else-if="outbox.state.awaySince">
        The server does not answer since {{ when(outbox.state.awaySince) }}.
        {{
          waiting > 0
            ? `${plural(waiting, 'entry', 'entries')} wait on this device and are sent by themselves.`
            : 'What you record waits on this device.'
        }}
      </p>
      <p v-else-if="outbox.state.failsSince">
        The server fails over what waits. It is kept and sent again by itself.
      </p>
      <p v-else-if="waiting > 0">{{ plural(waiting, 'entry', 'entries') }} on the way.</p>
      <p v-else>
        Everything you recorded is on the server<span
          v-if="outbox.state.savedAt"
          :title="exact(outbox.state.savedAt)"
          >, the last at {{ when(outbox.state.savedAt) }}</span
        >.
      </p>
      <ul v-if="refused.length > 0">
        <li v-for="act in refused" :key="act.key">
          <strong>{{ kindOf(act.command).label }}</strong> of {{ when(act.at) }}: {{ act.refused }}
          <span class="row"
            ><button type="button" class="link" @click="outbox.again(act)">Send it again</button>
            <button type="button" class="link" @click="outbox.drop(act)">Drop it here</button></span
          >
        </li>
      </ul>
      <button v-if="refused.length > 0" type="button" class="link" @click="takeOut">
        Keep all of it as files
      </button>
      <p v-if="held > 0">
        {{ plural(held, 'picture waits', 'pictures wait') }} to be looked over before it is sent.
      </p>
    </div>
  </div>
</template>

<style scoped>
.save {
  position: relative;
}
.save > button {
  font: inherit;
  display: inline-flex;
  align-items: center;
  gap: 6px;
  background: none;
  border: 0;
  padding: 4px 0;
  cursor: pointer;
  color: var(--ink);
  font-weight: 700;
}
.save > button.calm {
  font-weight: 400;
  color: var(--ink-soft);
}
.box {
  position: absolute;
  right: 0;
  top: 34px;
  width: 320px;
  padding: 12px 16px;
  box-shadow: var(--float);
  z-index: 20;
  white-space: normal;
  display: grid;
  gap: 10px;
}
.link {
  font: inherit;
  color: var(--dusk);
  background: none;
  border: 0;
  padding: 0;
  text-decoration: underline;
  cursor: pointer;
}
</style>
