<script setup lang="ts">
import { computed, reactive, ref } from 'vue';
import { useRouter } from 'vue-router';
import { useRead } from '@/offline/useRead';
import { mayLead } from '@/areas/people/session';
import { ago, exact, plural } from '@/kit/words';
import { markNoticesRead, readNotices } from '@/areas/notices/queries';

/** What concerns the person: how much is new, and the newest of it. */
const props = defineProps<{ project: string }>();
const router = useRouter();
const open = ref(false);
/** Those of which what was told before is shown as well. */
const shown = reactive(new Set<string>());
const { data, refetch } = useRead('notice', () => ['notices'], readNotices);
const unread = computed(() => data.value?.unread ?? 0);
async function toggle(): Promise<void> {
  open.value = !open.value;
  if (open.value && unread.value > 0) {
    await markNoticesRead();
    // What was new stays marked while the list is open.
  } else void refetch();
}
function go(link: string): void {
  open.value = false;
  void router.push(link);
}
</script>

<template>
  <div class="bell" @keydown.esc="open = false">
    <button type="button" class="word" :aria-expanded="open" @click="toggle">
      Notices<span v-if="unread > 0" class="count">{{ unread }}</span>
    </button>
    <div v-if="open" class="menu sheet">
      <p v-if="(data?.items.length ?? 0) === 0" class="soft">
        Nothing yet. What is assigned to you, released or ended is told here.
      </p>
      <ul>
        <li v-for="n in data?.items.slice(0, 12) ?? []" :key="n.id">
          <a class="plain long" :class="{ fresh: !n.read }" :href="n.link" @click.prevent="go(n.link)">{{
            n.text
          }}</a>
          <ul v-if="shown.has(n.id)" class="small before">
            <li v-for="(b, i) in n.before" :key="i" class="long">{{ b }}</li>
          </ul>
          <span class="soft small row"
            ><span :title="exact(n.at)">{{ ago(n.at) }}</span>
            <button
              v-if="n.before.length > 0 && !shown.has(n.id)"
              type="button"
              class="link"
              @click="shown.add(n.id)"
            >
              and {{ plural(n.before.length, 'more', 'more') }}
            </button></span
          >
        </li>
      </ul>
      <RouterLink v-if="mayLead(props.project)" class="small" to="/mail" @click="open = false"
        >Caught mails</RouterLink
      >
    </div>
  </div>
</template>

<style scoped>
.bell {
  position: relative;
}
.word {
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  padding: 4px 6px;
  cursor: pointer;
}
.count {
  font-size: 0.8rem;
  font-weight: 700;
  margin-left: 6px;
  padding: 0 6px;
  border-radius: 8px;
  background: var(--ink);
  color: var(--sheet);
}
.menu {
  position: absolute;
  right: 0;
  top: calc(100% + 8px);
  width: min(380px, 92vw);
  max-height: 70vh;
  overflow: auto;
  padding: 10px 16px;
  box-shadow: var(--float);
  z-index: 30;
}
li {
  display: grid;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.before li {
  border: 0;
  padding: 2px 0;
}
.fresh {
  font-weight: 700;
}
</style>
