<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { keyHelp, keysOff, setKeysOff } from '@/kit/keys';

const emit = defineEmits<{ close: [] }>();
const groups = keyHelp();
</script>

<template>
  <Dialog
    visible
    modal
    dismissable-mask
    header="Keys"
    :style="{ width: '34rem' }"
    @update:visible="emit('close')"
  >
    <section v-for="g in groups" :key="g.title">
      <h2>{{ g.title }}</h2>
      <dl>
        <template v-for="b in g.bindings" :key="b.label">
          <dt>
            <kbd v-for="k in b.keys.slice(0, 2)" :key="k">{{ k }}</kbd>
          </dt>
          <dd>{{ b.label }}</dd>
        </template>
      </dl>
    </section>
    <p class="row">
      <RouterLink to="/words">Words used here</RouterLink>
      <RouterLink to="/docs">Documentation</RouterLink>
    </p>
    <label class="off"
      ><input
        type="checkbox"
        :checked="!keysOff"
        @change="setKeysOff(!($event.target as HTMLInputElement).checked)"
      />
      Single keys act on this device</label
    >
  </Dialog>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
h2 {
  margin-bottom: 6px;
}
dl {
  display: grid;
  grid-template-columns: 7rem 1fr;
  row-gap: 5px;
}
dt {
  display: flex;
  gap: 5px;
}
.off {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
