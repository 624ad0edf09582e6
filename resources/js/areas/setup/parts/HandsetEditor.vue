<script setup lang="ts">
import { ref } from 'vue';
import { Problem, type Api } from '@/api/client';
import { saveHandsetAddresses } from '@/areas/setup/queries';
import { toast } from '@/kit/notices';
import { useEditable } from '@/kit/useEditable';
import { useSeen } from '@/kit/useSeen';

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
const send = useSeen(() => props.seen, dirty);
const problem = ref<Problem | null>(null);
const wrong = (at: number, field: string): string | undefined =>
  problem.value?.errors[`addresses.${at}.${field}`]?.[0];
async function save(): Promise<void> {
  problem.value = null;
  try {
    rows.value = rows.value.filter((r) => r.name.trim() !== '' || r.address.trim() !== '');
    const addresses = rows.value;
    emit('saved', await send((seen) => saveHandsetAddresses(props.project, { addresses, seen })));
    await follow();
    toast('Addresses saved.');
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    problem.value = error;
  }
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
    <p v-if="mayWrite" class="row">
      <button type="button" class="link" @click="rows.push({ name: '', address: '' })">Add one</button>
      <button v-if="dirty" type="button" class="link" @click="save">Save</button>
      <button v-if="dirty" type="button" class="link soft" @click="follow()">Leave it as it was</button>
    </p>
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
