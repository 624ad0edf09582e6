<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { choose } from '@/areas/people/session';

/** How one is told of what: in the application, by mail, or not at all. */
const props = defineProps<{ chosen: Api['NoticeSetting'][] }>();
const emit = defineEmits<{ changed: [Api['AccountPage']] }>();
const problem = ref('');
const turn = ref(0);

const WORDS: Record<Api['NoticeSetting']['kind'], string> = {
  assigned: 'Entries are assigned to you',
  retest: 'A retest is asked of you',
  taken_over: 'Somebody takes your attempt over',
  released: 'A cycle of yours can be walked',
  returned: 'A cycle that you planned comes back',
  review: 'A cycle waits for your word',
  ended: 'A cycle that you watch ends',
  defect: 'A defect of yours moves, or is given to you',
  mentioned: 'Somebody names you',
  session: 'A session given to you, or read',
  standstill: 'Nothing works in the background',
};

async function save(setting: Api['NoticeSetting'], change: Partial<Api['NoticeSetting']>): Promise<void> {
  problem.value = '';
  try {
    emit('changed', await choose({ notices: [{ ...setting, ...change }] }));
  } catch (e) {
    problem.value = errorMessage(e);
    turn.value++;
  }
}
const isOn = (event: Event): boolean => (event.target as HTMLInputElement).checked;
</script>

<template>
  <table :key="turn" class="lines notices">
    <thead>
      <tr>
        <th>When</th>
        <th>Here</th>
        <th>By mail</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="n in props.chosen" :key="n.kind">
        <td :id="`told-${n.kind}`">{{ WORDS[n.kind] }}</td>
        <td>
          <input
            type="checkbox"
            :checked="n.here"
            :disabled="n.kind === 'standstill'"
            :aria-label="`${WORDS[n.kind]}: here`"
            @change="save(n, { here: isOn($event) })"
          />
        </td>
        <td>
          <input
            type="checkbox"
            :checked="n.mail"
            :aria-label="`${WORDS[n.kind]}: by mail`"
            @change="save(n, { mail: isOn($event) })"
          />
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
</template>

<style scoped>
.notices {
  max-width: 34rem;
}
</style>
