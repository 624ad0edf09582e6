<script setup lang="ts">
import InputText from 'primevue/inputtext';
import { computed, ref, watch } from 'vue';

/**
 * A password to choose. One sees what one types when one likes; nothing is asked of it but its length. How hard it is to guess is
 * shown beside, and is no condition.
 */
const password = defineModel<string>({ required: true });
const props = defineProps<{
  problem?: string | undefined;
  label?: string;
  /** What others would try first: name and mail address of whoever chooses it. */
  known?: string[];
}>();
const score = ref<number | null>(null);
const WORDS = ['guessed at once', 'guessed soon', 'holds a while', 'hard to guess', 'very hard to guess'];
watch(password, async (now) => {
  // What measures comes with the first word typed; without it the field works as well.
  const meter = await import('@/areas/people/strength').catch(() => null);
  if (now === password.value)
    score.value = now === '' || !meter ? null : meter.strength(now, props.known ?? []);
});
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
    <p v-if="score !== null" class="strength small" role="status">
      <span class="bar" aria-hidden="true"><span v-for="n in 4" :key="n" :class="{ on: n <= score }" /></span>
      {{ WORDS[score] }}
    </p>
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
.strength {
  display: flex;
  gap: 10px;
  align-items: center;
}
.bar {
  display: inline-flex;
  gap: 3px;
}
.bar span {
  width: 26px;
  height: 6px;
  border: 1px solid var(--edge);
  border-radius: 3px;
}
.bar .on {
  background: var(--ink);
  border-color: var(--ink);
}
</style>
