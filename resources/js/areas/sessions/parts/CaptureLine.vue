<script setup lang="ts">
import { useObjectUrl } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { errorMessage } from '@/api/client';
import { stampedName } from '@/areas/evidence/useCapture';
import type { Markup } from '@/areas/evidence/types';
import type { ShownLine } from '@/areas/sessions/types';
import type { RunningSession } from '@/areas/sessions/useTestSession';
import { clock } from '@/kit/words';
import { outbox } from '@/offline/outbox';

/**
 * A capture in the timeline: a picture, a recording or a file. What has not left the device can be drawn on and hidden in;
 * afterwards a drawing is a capture of its own, and the first one stays as it was.
 */
const props = defineProps<{ session: RunningSession; line: ShownLine; mayDraw: boolean }>();
const MarkUp = defineAsyncComponent(() => import('@/areas/evidence/parts/MarkUp.vue'));
const local = useObjectUrl(() => props.line.local);
const type = computed(() => (props.line.media_type ?? '').split('/')[0]);
const isPicture = computed(() => type.value === 'image' && Boolean(local.value ?? props.line.thumbnail_url));
const drawing = ref(false);
const problem = ref('');

async function keep(result: { markup: Markup; drawn: Blob | null; plain: Blob | null }): Promise<void> {
  drawing.value = false;
  problem.value = '';
  const { line } = props;
  const picture = result.drawn ?? result.plain;
  try {
    if (line.held && !picture) await outbox.release(line.id);
    else if (picture && !(line.waiting && (await outbox.release(line.id, picture)))) {
      await props.session.capture(
        picture,
        stampedName('drawn', 'png'),
        `Drawn on the capture of ${clock(line.at_ms)}`,
      );
      if (result.plain)
        problem.value =
          'The picture had been sent already and stays above; the one with the hidden parts stands below it. ' +
          'A lead can take the first one out.';
    }
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <div>
    <a v-if="isPicture" :href="line.url ?? undefined" target="_blank" class="picture"
      ><img :src="(local ?? line.thumbnail_url)!" :alt="line.name" loading="lazy"
    /></a>
    <video
      v-else-if="type === 'video' && (local ?? line.url)"
      :src="(local ?? line.url)!"
      controls
      preload="metadata"
      :aria-label="line.name"
    >
      <track kind="captions" />
    </video>
    <a v-else-if="line.url" class="mono" :href="line.url">{{ line.name }}</a>
    <span v-else class="mono">{{ line.name }}</span>
    <p v-if="line.held" class="small held">
      Not sent yet: look it over.
      <button type="button" class="link" @click="outbox.release(line.id)">Nothing to hide, send it</button>
    </p>
    <button v-if="isPicture && mayDraw" type="button" class="link small draw" @click="drawing = true">
      Draw or hide
    </button>
    <p v-if="problem" class="p-invalid-words small" role="alert">{{ problem }}</p>
    <Teleport v-if="drawing" to="body"
      ><MarkUp
        :source="(local ?? line.url)!"
        :name="line.name"
        :markup="null"
        :still="line.local !== undefined"
        :looks-over="line.held === true"
        @save="keep"
        @leave="drawing = false"
    /></Teleport>
  </div>
</template>

<style scoped>
.picture {
  display: block;
  width: fit-content;
}
img,
video {
  display: block;
  max-height: 110px;
  max-width: min(260px, 100%);
  border: 1px solid var(--edge);
  border-radius: 4px;
  margin-top: 4px;
}
video {
  max-height: 160px;
  background: #000;
}
.held {
  font-weight: 700;
}
</style>
