<script setup lang="ts">
import { durationText } from '@/kit/duration';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { assignEntries, previewAssignment } from '@/areas/cycles/queries';
import { plural } from '@/kit/words';
import { useAnswer } from '@/kit/useAnswer';
import { type Plan } from '@/areas/cycles/usePlan';

/** Hands out what is nobody's: balanced by the time people have, or by shares; seen before it is done. */
const props = defineProps<{ plan: Plan; people: { id: string; name: string }[]; chosen: string[] }>();
const emit = defineEmits<{ done: [done: Api['PlanActResult']]; close: [] }>();
const who = ref(props.plan.cycle.testers.map((t) => t.id));
const byShare = ref(false);
const shares = ref<Record<string, number>>({});
const problem = ref('');
const body = computed(() => ({
  people: who.value,
  ...(byShare.value
    ? { shares: Object.fromEntries(who.value.map((id) => [id, shares.value[id] ?? 1])) }
    : {}),
  ...(props.chosen.length > 0 ? { ids: props.chosen } : {}),
}));
const { answer: preview, refusal } = useAnswer(
  'assignment',
  body,
  () => previewAssignment(props.plan.cycle.cycle.key, body.value),
  () => who.value.length > 0,
);
async function apply(): Promise<void> {
  try {
    emit('done', await assignEntries(props.plan.cycle.cycle.key, body.value));
    emit('close');
  } catch (e) {
    problem.value = errorMessage(e);
  }
}
/** The cycle's own testers first. */
const listed = computed(() => {
  const team = props.plan.cycle.testers.map((t) => t.id);
  const rank = (id: string): number => (team.includes(id) ? team.indexOf(id) : team.length);
  return [...props.people].sort((a, b) => rank(a.id) - rank(b.id));
});
const line = (id: string): Api['LoadShare'] | undefined => preview.value?.people.find((p) => p.id === id);
</script>

<template>
  <section class="sheet panel" aria-label="Hand out what is nobody’s">
    <div class="row">
      <h2>Hand out {{ chosen.length > 0 ? 'the chosen ones' : 'what is nobody’s' }}</h2>
      <label class="tick"
        ><input v-model="byShare" type="checkbox" /> By shares instead of people’s time</label
      >
    </div>
    <table class="lines">
      <thead>
        <tr>
          <th>Who</th>
          <th v-if="byShare">Share</th>
          <th class="number">Gets</th>
          <th class="number">Has then</th>
          <th class="number">Time</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="p in listed" :key="p.id">
          <td>
            <label class="tick"><input v-model="who" type="checkbox" :value="p.id" /> {{ p.name }}</label>
          </td>
          <td v-if="byShare">
            <input
              class="field share"
              type="number"
              min="0"
              max="1000"
              :value="shares[p.id] ?? 1"
              :aria-label="`Share of ${p.name}`"
              @input="shares = { ...shares, [p.id]: Number(($event.target as HTMLInputElement).value) }"
            />
          </td>
          <td class="number">{{ line(p.id)?.gets ?? '' }}</td>
          <td class="number">{{ line(p.id) ? durationText(1000 * line(p.id)!.seconds) : '' }}</td>
          <td class="number soft">
            {{ line(p.id) ? durationText(1000 * line(p.id)!.capacity_seconds) : '' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="problem || refusal" class="p-invalid-words" role="alert">
      {{ problem || errorMessage(refusal) }}
    </p>
    <div class="row">
      <Button
        :disabled="!preview || preview.count === 0"
        :label="preview ? `Hand out ${plural(preview.count, 'entry', 'entries')}` : 'Hand out'"
        @click="apply"
      />
      <button type="button" class="link soft" @click="emit('close')">Leave it</button>
      <span class="soft small">What is somebody’s already stays theirs; what is joined stays together.</span>
    </div>
  </section>
</template>

<style scoped>
.panel {
  padding: 14px 18px;
  display: grid;
  gap: 10px;
}
.tick {
  display: flex;
  gap: 6px;
  align-items: center;
}
.lines {
  max-width: 720px;
}
.share {
  width: 76px;
}
</style>
