<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { changeAccess, useAccess } from '@/areas/people/queries';
import { ROLES } from '@/areas/people/roles';
import { refreshSession } from '@/areas/people/session';
import StateBox from '@/kit/StateBox.vue';

/** Who may what in the project, and what the project says of it. */
const props = defineProps<{ project: string }>();
const { data, error, isPending, refetch, set } = useAccess(() => props.project);
const problem = ref('');
const FLAGS: { name: keyof Api['AccessSet']; word: string; does: string }[] = [
  {
    name: 'readers_see_evidence',
    word: 'Readers see evidence and names',
    does: 'Pictures, notes, defects and who walked; else they read cases, cycles and results alone.',
  },
  {
    name: 'testers_write_cases',
    word: 'Testers write cases',
    does: 'Cases, routines, data tables, suites and requirements; else leads alone do, and testers ask and suggest.',
  },
  {
    name: 'second_factor_required',
    word: 'A second factor is needed',
    does: 'Nobody comes in without one; whoever has none is told how to set it up.',
  },
];
async function change(name: keyof Api['AccessSet'], box: HTMLInputElement): Promise<void> {
  problem.value = '';
  try {
    await set(await changeAccess(props.project, { [name]: box.checked }));
    await refreshSession();
  } catch (e) {
    problem.value = errorMessage(e);
    // The box shows what counts.
    box.checked = data.value?.policies[name] ?? false;
  }
}
</script>

<template>
  <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
  <template v-else>
    <div v-for="f in FLAGS" :key="f.name" class="policy">
      <input
        :id="f.name"
        type="checkbox"
        :checked="data.policies[f.name]"
        :disabled="!data.may_manage"
        :aria-describedby="`${f.name}-does`"
        @change="change(f.name, $event.target as HTMLInputElement)"
      />
      <label :for="f.name">{{ f.word }}</label>
      <p :id="`${f.name}-does`" class="soft small">
        {{ f.does }}
        <template v-if="f.name === 'second_factor_required' && data.may_manage">
          {{
            data.without_second_factor === 0
              ? 'Everybody here has one.'
              : `${data.without_second_factor} here ${data.without_second_factor === 1 ? 'has' : 'have'} none yet.`
          }}
        </template>
      </p>
    </div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <!-- It scrolls sideways on a phone: keys must reach it. -->
    <div class="scroll" tabindex="0" role="region" aria-label="By role">
      <table class="lines small">
        <thead>
          <tr>
            <th>May …</th>
            <th v-for="r in ROLES" :key="r.value">{{ r.label }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in data.lines" :key="l.permission">
            <td>{{ l.words }}</td>
            <td v-for="r in ROLES" :key="r.value" :class="{ soft: !l.roles.includes(r.value) }">
              {{ l.roles.includes(r.value) ? 'yes' : '–' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </template>
</template>

<style scoped>
.policy {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 10px;
  align-items: baseline;
}
.policy p {
  grid-column: 2;
}
.scroll {
  overflow-x: auto;
  margin-top: 14px;
}
</style>
