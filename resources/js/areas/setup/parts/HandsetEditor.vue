<script setup lang="ts">
import type { Api } from '@/api/client';
import EditorFoot from '@/areas/setup/parts/EditorFoot.vue';
import { saveHandsetAddresses } from '@/areas/setup/queries';
import { useReplacing } from '@/areas/setup/useReplacing';
import { useEditable } from '@/kit/useEditable';

/** Which applications under test the handset beside a step may show; the first is the one it opens with. */
const props = defineProps<{
  project: string;
  addresses: Api['HandsetAddressLine'][];
  mayWrite: boolean;
  /** The state that the addresses are. */
  seen: string;
}>();
const emit = defineEmits<{ saved: [now: Api['WalkSetup']] }>();
const {
  form: rows,
  dirty,
  follow,
} = useEditable(() =>
  props.addresses.filter((a) => !a.built_in).map(({ name, address }) => ({ name, address })),
);
const { problem, replace } = useReplacing<Api['WalkSetup']>(
  () => props.seen,
  dirty,
  follow,
  (now) => emit('saved', now),
);
const wrong = (at: number, field: string): string | undefined =>
  problem.value?.errors[`addresses.${at}.${field}`]?.[0];
function save(): Promise<void> {
  rows.value = rows.value.filter((r) => r.name.trim() !== '' || r.address.trim() !== '');
  const addresses = rows.value;
  return replace((seen) => saveHandsetAddresses(props.project, { addresses, seen }), 'Addresses saved.');
}
</script>

<template>
  <section aria-label="Handset">
    <h2>Handset</h2>
    <p class="soft small">
      The applications that the simulated handset shows beside a step. It loads nothing from anywhere else.
    </p>
    <p v-for="a in addresses.filter((one) => one.built_in)" :key="a.address" class="small">
      {{ a.name }} <span class="mono soft">{{ a.address }}</span>
      <span class="soft"> comes with the demo.</span>
    </p>
    <template v-for="(r, i) in rows" :key="i">
      <div class="row">
        <input
          v-model="r.name"
          class="field name"
          maxlength="60"
          placeholder="Staging"
          :aria-label="`Name of address ${i + 1}`"
          :disabled="!mayWrite"
        />
        <input
          v-model="r.address"
          class="field mono"
          maxlength="500"
          placeholder="https://staging.example/"
          :aria-label="`Address ${i + 1}`"
          :disabled="!mayWrite"
        />
        <button v-if="mayWrite" type="button" class="link soft" @click="rows.splice(i, 1)">Take out</button>
      </div>
      <p v-if="wrong(i, 'name') ?? wrong(i, 'address')" class="p-invalid-words" role="alert">
        {{ wrong(i, 'name') ?? wrong(i, 'address') }}
      </p>
    </template>
    <p v-if="problem && !Object.keys(problem.errors).length" class="p-invalid-words" role="alert">
      {{ problem.message }}
    </p>
    <EditorFoot
      v-if="mayWrite"
      :dirty="dirty"
      @add="rows.push({ name: '', address: '' })"
      @save="save"
      @leave="follow()"
    />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  align-content: start;
}
.row {
  flex-wrap: nowrap;
}
.name {
  flex: 0 1 130px;
}
</style>
