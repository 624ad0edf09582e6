<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';

/** A password to choose. One sees what one types when one likes; nothing is asked of it but its length. */
const password = defineModel<string>({ required: true });
defineProps<{ problem?: string | undefined; label?: string }>();
const shown = ref(false);
const SHORTEST = 12;
const length = computed(() => [...password.value].length);
</script>

<template>
  <div>
    <label class="label" for="new-password">{{ label ?? 'Password' }}</label>
    <div class="both">
      <InputText
        id="new-password"
        v-model="password"
        :type="shown ? 'text' : 'password'"
        autocomplete="new-password"
        fluid
        :invalid="problem !== undefined"
        aria-describedby="new-password-hint"
      />
      <button type="button" class="link" :aria-pressed="shown" @click="shown = !shown">
        {{ shown ? 'Hide' : 'Show' }}
      </button>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <p id="new-password-hint" class="soft small">
      {{
        length === 0 || length >= SHORTEST
          ? 'At least 12 characters. Some words in a row are fine; nothing else is asked.'
          : `${SHORTEST - length} more ${SHORTEST - length === 1 ? 'character' : 'characters'}.`
      }}
    </p>
  </div>
</template>

<style scoped>
.both {
  display: flex;
  gap: 12px;
  align-items: center;
}
.small {
  margin-top: 4px;
}
</style>
