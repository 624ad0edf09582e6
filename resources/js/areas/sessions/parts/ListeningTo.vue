<script setup lang="ts">
import Button from 'primevue/button';
import { useNow } from '@vueuse/core';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { pairObserver, partObserver } from '@/areas/sessions/queries';
import { toast } from '@/kit/notices';
import { exact, plural, span } from '@/kit/words';

/** The page that reports what is done on it: how it is brought to that, what came last, and since when nothing came. */
const props = defineProps<{
  id: string;
  observer: Api['ObserverDetail'];
  /** How many acts are in the timeline. */
  acts: number;
  mine: boolean;
  open: boolean;
}>();
const emit = defineEmits<{ changed: [Api['ObserverDetail']] }>();
const problem = ref('');
const busy = ref(false);
const others = ref(false);
async function run(work: () => Promise<Api['ObserverDetail']>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  problem.value = '';
  try {
    emit('changed', await work());
  } catch (error) {
    problem.value = errorMessage(error);
  }
  busy.value = false;
}
const now = useNow({ interval: 1000 });
/** It says every twenty seconds that it is still there. */
const QUIET = 45_000;
const since = computed(() =>
  props.observer.came_at ? Math.max(0, now.value.getTime() - Date.parse(props.observer.came_at)) : null,
);
const isQuiet = computed(() => since.value !== null && since.value > QUIET);
const linkTo = (address: string): string =>
  `${address}${address.includes('#') ? ':' : '#'}lucid-step=${props.observer.code}`;
/** Puts the script into any page of a listed address by itself. */
const bookmark = computed(
  () =>
    `javascript:(d=>{const s=d.createElement('script');s.src='${props.observer.script}';` +
    `s.dataset.code='${props.observer.code}';d.documentElement.append(s)})(document)`,
);
async function copy(text: string): Promise<void> {
  await navigator.clipboard.writeText(text);
  toast('Copied.');
}
</script>

<template>
  <section
    v-if="open ? observer.is_paired || mine : acts > 0"
    class="listening"
    aria-label="The page that is observed"
  >
    <h2>
      {{
        !open
          ? 'What was observed'
          : !observer.is_paired
            ? 'The application'
            : observer.page
              ? 'Listening to the page'
              : 'Nothing reports yet'
      }}
    </h2>
    <template v-if="open && !observer.is_paired">
      <p class="soft small">
        What you press, type and open there can be written down by itself, so that you need not.
      </p>
      <div class="row">
        <Button
          outlined
          severity="secondary"
          size="small"
          label="Observe the application"
          :disabled="busy"
          @click="run(() => pairObserver(id))"
        />
      </div>
    </template>
    <template v-else>
      <div v-if="observer.page" class="sheet page-box">
        <p class="mono long">{{ observer.page }}</p>
        <p class="soft small">
          {{ plural(acts, 'act')
          }}<template v-if="open">
            ·
            <span :title="exact(observer.came_at ?? '')">{{
              isQuiet ? `nothing came for ${span(since ?? 0)}` : 'it is there'
            }}</span></template
          >
        </p>
        <p v-if="observer.left_out > 0" class="small">
          {{ plural(observer.left_out, 'act') }} were left out: more came than somebody can do.
        </p>
      </div>
      <p v-if="open && observer.refused" class="small p-invalid-words" role="status">
        A page of <span class="mono">{{ observer.refused }}</span> asks to report. The project does not list
        it: a lead adds it to the environments.
      </p>
      <template v-if="mine && open && observer.code">
        <ul v-if="observer.addresses.length > 0">
          <li v-for="a in observer.addresses" :key="a.address">
            <a :href="linkTo(a.address)" target="_blank" rel="noopener">Open {{ a.name }}</a>
          </li>
        </ul>
        <p v-else class="small">
          No environment of the project may be observed yet: a lead ticks it in Setup, Planning.
        </p>
        <button type="button" class="link soft small" :aria-expanded="others" @click="others = !others">
          In another way
        </button>
        <div v-if="others" class="ways small">
          <p>
            On a page that is open already: drag
            <a
              class="mark"
              :href="bookmark"
              @click.prevent="toast('Drag it to your bookmarks, and press it there.')"
              >Observe for this session</a
            >
            to your bookmarks and press it there.
          </p>
          <p>
            On another device: open an address with
            <button type="button" class="link mono" @click="copy(`#lucid-step=${observer.code}`)">
              #lucid-step={{ observer.code }}
            </button>
            at its end.
          </p>
        </div>
      </template>
      <p class="soft small">Passwords and card fields are never read.</p>
      <p v-if="mine && open">
        <button type="button" class="link soft small" :disabled="busy" @click="run(() => partObserver(id))">
          Listen no more
        </button>
      </p>
    </template>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.listening,
.ways {
  display: grid;
  gap: 8px;
}
.listening > .link {
  justify-self: start;
}
.page-box {
  padding: 10px 12px;
  display: grid;
  gap: 2px;
}
.mark {
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 1px 6px;
}
li a {
  display: inline-block;
  min-height: 24px;
}
</style>
