<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import type { Api } from '@/api/client';
import { addressOf, type Kind } from '@/areas/coverage/trace';

/** A thing of a trace by key and title; it leads to its page, and `t` to a trace that begins from it. */
const props = defineProps<{
  project: string;
  kind: Kind;
  link: Api['TraceLink'];
  entry?: string;
  named?: string;
}>();
const to = computed(() => addressOf(props.project, props.kind, props.link, props.entry));
const isFile = computed(() => props.kind === 'evidence' && props.link.state !== null);
const words = computed(() => props.named ?? props.link.title);
</script>

<template>
  <component
    :is="isFile ? 'a' : RouterLink"
    class="name"
    :class="kind"
    v-bind="isFile ? { href: to, target: '_blank', rel: 'noopener' } : { to }"
    :data-kind="kind"
    :data-id="link.id"
    :title="`${link.title} (t: trace from here)`"
    ><slot /><img
      v-if="kind === 'evidence' && link.state?.startsWith('image/')"
      :src="`/api/v1/evidence/${link.id}/thumbnail`"
      alt=""
      loading="lazy"
    /><span v-if="!['entry', 'attempt', 'evidence'].includes(kind)" class="mono">{{ link.key }}</span>
    <span class="words">{{ words }}</span></component
  >
</template>

<style scoped>
img {
  display: block;
  width: 88px;
  height: 50px;
  object-fit: cover;
  object-position: top;
  border: 1px solid var(--rule);
}
.name {
  color: var(--ink);
  text-decoration: none;
  display: block;
  max-width: 100%;
  overflow-wrap: anywhere;
}
.name:hover .words {
  text-decoration: underline;
}
.mono {
  font-size: 0.87rem;
  color: var(--ink-soft);
  white-space: nowrap;
}
</style>
