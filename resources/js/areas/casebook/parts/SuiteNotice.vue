<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage } from '@/api/client';
import { acceptSuite, binSuite, readSuite, restoreSuite } from '@/areas/casebook/queries';
import { useRead } from '@/offline/useRead';
import { toast } from '@/kit/notices';
import { plural } from '@/kit/words';

/** What a live suite gained or lost since it was accepted. */
const props = defineProps<{ project: string; suite: string }>();
const emit = defineEmits<{ changed: []; gone: [] }>();
const shown = ref(false);
const { data, set } = useRead(
  'case',
  () => ['suite', props.suite],
  () => readSuite(props.suite),
);
const KINDS = { picked: 'picked by hand', rule: 'by a rule', requirement: 'by requirement' } as const;
async function accept(): Promise<void> {
  try {
    await set(await acceptSuite(props.suite));
    toast(`"${data.value?.suite.name}" is now what its rule holds.`);
    emit('changed');
  } catch (error) {
    toast(errorMessage(error));
  }
}
async function bin(): Promise<void> {
  const name = data.value?.suite.name;
  await binSuite(props.suite);
  const id = props.suite;
  emit('gone');
  toast(`The suite "${name}" is in the bin; its cases stay.`, async () => {
    await restoreSuite(id);
    emit('changed');
    return `The suite "${name}" is back.`;
  });
}
</script>

<template>
  <section v-if="data?.suite.id === suite" class="suite" :aria-label="`The suite ${data.suite.name}`">
    <p class="row">
      <strong class="long">{{ data.suite.name }}</strong>
      <span class="soft">suite {{ KINDS[data.suite.kind] }}, {{ plural(data.suite.cases, 'case') }}</span>
      <template v-if="data.suite.gained + data.suite.lost > 0">
        <button type="button" class="link" :aria-expanded="shown" @click="shown = !shown">
          since accepted {{ data.suite.gained }} gained, {{ data.suite.lost }} lost
        </button>
        <button v-if="data.may_accept" type="button" class="link" @click="accept">Accept</button>
      </template>
      <button type="button" class="link soft" @click="bin">Bin the suite</button>
    </p>
    <div v-if="shown" class="two small">
      <div>
        <h2 class="label">Gained</h2>
        <p v-for="c in data.gained" :key="c.id">
          <span class="mono soft">{{ c.key }}</span> {{ c.title }}
        </p>
        <p v-if="data.gained.length === 0" class="soft">None.</p>
      </div>
      <div>
        <h2 class="label">Lost</h2>
        <p v-for="c in data.lost" :key="c.id">
          <span class="mono soft">{{ c.key }}</span> {{ c.title }}
        </p>
        <p v-if="data.lost.length === 0" class="soft">None.</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.suite {
  margin: 8px 0;
  padding: 8px 12px;
  background: var(--well);
  border-radius: 6px;
}
.two {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 16px;
  margin-top: 8px;
}
h2 {
  font-weight: 400;
}
</style>
