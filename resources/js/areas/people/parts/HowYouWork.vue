<script setup lang="ts">
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { choose } from '@/areas/people/session';
import ChoiceField from '@/kit/ChoiceField.vue';
import KeyCap from '@/kit/KeyCap.vue';
import PickOne from '@/kit/PickOne.vue';

/** How one wants to work: time zone, look, keys. Each choice counts at once. */
const props = defineProps<{ chosen: Api['PreferenceSet'] }>();
const emit = defineEmits<{ changed: [Api['AccountPage']] }>();
const problem = ref('');

const SCHEMES = [
  { value: 'system', label: 'As the device' },
  { value: 'light', label: 'Light' },
  { value: 'dark', label: 'Dark' },
] as const;
const DENSITIES = [
  { value: 'roomy', label: 'Roomy' },
  { value: 'dense', label: 'Dense' },
] as const;
const ofDevice = Intl.DateTimeFormat().resolvedOptions().timeZone;
const zones = Intl.supportedValuesOf('timeZone').map((value) => ({
  value,
  label: value.replaceAll('_', ' '),
}));
const scheme = computed({
  get: () => props.chosen.scheme,
  set: (now) => void save({ scheme: now }),
});
const density = computed({
  get: () => props.chosen.density,
  set: (now) => void save({ density: now }),
});
const zone = computed({
  get: () => props.chosen.time_zone ?? null,
  set: (now: string | null) => void save({ time_zone: now }),
});

/** What was not taken shows again what counts: boxes are asked for anew. */
const turn = ref(0);
async function save(change: Api['PreferencesRequest']): Promise<void> {
  problem.value = '';
  try {
    emit('changed', await choose(change));
  } catch (e) {
    problem.value = errorMessage(e);
    turn.value++;
  }
}
</script>

<template>
  <div :key="turn" class="choices">
    <ChoiceField v-model="scheme" label="Light or dark" :options="SCHEMES" />
    <ChoiceField v-model="density" label="Lines of a list" :options="DENSITIES" />
    <div class="zone">
      <PickOne
        v-model="zone"
        label="Time zone"
        :options="zones"
        :none="`As the device, ${ofDevice.replaceAll('_', ' ')}`"
        clearable
      />
      <p class="soft small">
        For mails, and for times outside of a project. Within one its own zone counts; where that is another
        than yours, times say so.
      </p>
    </div>
    <div>
      <label class="row"
        ><input
          type="checkbox"
          :checked="chosen.single_keys"
          @change="save({ single_keys: ($event.target as HTMLInputElement).checked })"
        />
        Single keys act</label
      >
      <p class="soft small">
        Off, a letter does nothing by itself: for whoever speaks to the machine, or leans on the keys.
        <template v-if="chosen.keys.length > 0">
          You changed {{ chosen.keys.map((k) => `${k.key} to ${k.pressed}`).join(', ') }}.
          <button type="button" class="link" @click="save({ keys: [] })">As they come</button>
        </template>
        <template v-else>
          Which key does what: choose it in the list that <KeyCap of="?" /> shows, where you use it.
        </template>
      </p>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.choices {
  display: grid;
  gap: 16px;
}
.zone {
  display: grid;
  gap: 4px;
  max-width: 26rem;
}
</style>
