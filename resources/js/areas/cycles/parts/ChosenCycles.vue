<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { changeCycles } from '@/areas/cycles/queries';
import { leftOut, undoPlanAct } from '@/areas/cycles/usePlan';
import { toast } from '@/kit/notices';
import SelectField from '@/kit/SelectField.vue';
import { plural } from '@/kit/words';

/** What can be done with several cycles at once, each with a way back. */
const props = defineProps<{ project: string; ids: string[]; builds: Api['PlanningSetup']['builds'] }>();
const emit = defineEmits<{ changed: []; clear: [] }>();
const days = ref('7');
const build = ref<string | null>(null);
async function change(body: { days?: number; build_id?: string }): Promise<void> {
  try {
    const done = await changeCycles(props.project, { ids: props.ids, ...body });
    const id = done.act_id;
    const undo = async (of: string): Promise<string> => {
      const said = await undoPlanAct(of);
      emit('changed');
      return said;
    };
    toast(`${done.title}.${leftOut(done.refused)}`, id ? () => undo(id) : undefined);
    emit('changed');
  } catch (e) {
    toast(errorMessage(e));
  }
}
</script>

<template>
  <section class="sheet bulk row" aria-label="With the chosen cycles">
    <strong>{{ plural(ids.length, 'cycle') }} chosen</strong>
    <form class="row" @submit.prevent="change({ days: Number(days) })">
      <label
        >Extend by <input v-model="days" class="field days" type="number" aria-label="Days" /> days</label
      >
      <button type="submit" class="link">Extend</button>
    </form>
    <form class="row" @submit.prevent="build && change({ build_id: build })">
      <SelectField
        v-model="build"
        hide-label
        label="Build"
        none="Build …"
        :options="builds.map((b) => ({ value: b.id, label: b.name }))"
      />
      <button type="submit" class="link">Change the build</button>
    </form>
    <button type="button" class="link soft" @click="emit('clear')">Clear</button>
  </section>
</template>

<style scoped>
.bulk {
  padding: 8px 16px;
  margin-bottom: 12px;
  gap: 20px;
}
.days {
  width: 76px;
}
</style>
