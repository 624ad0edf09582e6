<script setup lang="ts">
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';

/** Leaving with something unsaved asks first; what was typed is kept on the device either way. */
const props = defineProps<{
  dirty: boolean;
  /** Whether the page itself goes elsewhere, after saving. */
  going: boolean;
  saveNow: () => Promise<void>;
  save: () => Promise<unknown>;
}>();
const answer = ref<null | ((go: boolean) => void)>(null);
onBeforeRouteLeave(async () => {
  await props.saveNow();
  if (!props.dirty || props.going) return true;
  return new Promise<boolean>((resolve) => {
    answer.value = (go) => {
      answer.value = null;
      resolve(go);
    };
  });
});
async function saveAndGo(): Promise<void> {
  const done = answer.value;
  done?.(Boolean(await props.save()));
}
function onUnload(event: BeforeUnloadEvent): void {
  if (!props.dirty) return;
  void props.saveNow();
  event.preventDefault();
}
onMounted(() => window.addEventListener('beforeunload', onUnload));
onBeforeUnmount(() => window.removeEventListener('beforeunload', onUnload));
</script>

<template>
  <Dialog
    v-if="answer"
    visible
    modal
    header="This case is not saved"
    :style="{ width: '28rem' }"
    @update:visible="answer?.(false)"
  >
    <p>What you wrote is kept on this device and will be here when you come back.</p>
    <div class="row buttons">
      <Button label="Save and go" @click="saveAndGo" />
      <Button label="Go without saving" outlined severity="secondary" @click="answer?.(true)" />
      <Button label="Stay" text severity="secondary" @click="answer?.(false)" />
    </div>
  </Dialog>
</template>

<style scoped>
.buttons {
  margin-top: 18px;
}
</style>
