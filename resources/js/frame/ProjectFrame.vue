<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref, toRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import NoticeBar from '@/kit/NoticeBar.vue';
import NoticeBell from '@/areas/notices/parts/NoticeBell.vue';
import SaveState from '@/offline/SaveState.vue';
import { useKeys } from '@/kit/keys';
import { useLive } from '@/offline/live';
import { usePack } from '@/areas/walk/usePack';
import { projectOf, session, signOut } from '@/areas/people/session';

const goToFile = () => import('@/areas/search/parts/GoTo.vue');
const GoTo = defineAsyncComponent(goToFile);
const KeysHelp = defineAsyncComponent(() => import('./KeysHelp.vue'));
const props = defineProps<{ project: string }>();
const route = useRoute();
const router = useRouter();
const goTo = ref(false);
const help = ref(false);
const menu = ref(false);
const here = computed(() => projectOf(props.project));
const areas = [
  { path: 'today', word: 'Today', key: 't' },
  { path: 'cycles', word: 'Cycles', key: 'c' },
  { path: 'casebook', word: 'Casebook', key: 'b' },
  { path: 'defects', word: 'Defects', key: 'd' },
  { path: 'setup', word: 'Setup', key: 's' },
];

useLive(toRef(props, 'project'));
usePack(toRef(props, 'project'));
useKeys('Anywhere', () => [
  ...areas.map((a) => ({
    keys: [`g ${a.key}`],
    label: `Go to ${a.word}`,
    run: () => void router.push(`/${props.project}/${a.path}`),
  })),
  { keys: ['?'], label: 'All keys', run: () => (help.value = true) },
]);

function onKey(event: KeyboardEvent): void {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault();
    goTo.value = true;
  }
}
onMounted(() => {
  window.addEventListener('keydown', onKey);
  // Whoever presses Ctrl K types on at once: it is there before they do.
  setTimeout(() => void goToFile().catch(() => undefined), 3000);
});
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
async function leave(): Promise<void> {
  await signOut();
  await router.push('/sign-in');
}
function active(path: string): boolean {
  return (
    route.path.startsWith(`/${props.project}/${path}`) ||
    (path === 'today' && route.path.startsWith(`/${props.project}/walk`))
  );
}
</script>

<template>
  <div class="frame">
    <a class="skip" href="#content">To the content</a>
    <header>
      <RouterLink class="mark" aria-label="Lucid Step, to Today" :to="`/${project}/today`">
        <svg width="24" height="24" viewBox="0 0 24 24" aria-hidden="true">
          <path
            d="M3 21h6v-6h6V9h5"
            fill="none"
            stroke="currentColor"
            stroke-width="2.4"
            stroke-linejoin="round"
          />
          <circle cx="18" cy="4.6" r="3.4" fill="#F0A81C" />
        </svg>
        <span class="name">Lucid Step</span>
      </RouterLink>
      <span class="project soft">{{ here?.name ?? project }}</span>
      <nav aria-label="Areas">
        <RouterLink
          v-for="a in areas"
          :key="a.path"
          :to="`/${project}/${a.path}`"
          :aria-current="active(a.path) ? 'page' : undefined"
          :title="`${a.word} (g ${a.key})`"
          >{{ a.word }}</RouterLink
        >
      </nav>
      <div class="right">
        <button type="button" class="word" aria-haspopup="dialog" @click="goTo = true">
          Go to <kbd>Ctrl K</kbd>
        </button>
        <NoticeBell :project="project" />
        <SaveState />
        <button type="button" class="word keys" aria-haspopup="dialog" @click="help = true">
          Keys <kbd>?</kbd>
        </button>
        <div class="person" @keydown.esc="menu = false">
          <button type="button" class="word" :aria-expanded="menu" @click="menu = !menu">
            {{ session?.user.name }}
          </button>
          <div v-if="menu" class="menu sheet">
            <p class="soft small">{{ session?.email }}<br />{{ here?.role }} in {{ here?.name }}</p>
            <RouterLink
              v-for="p in session?.projects.filter((x) => x.code !== project)"
              :key="p.id"
              :to="`/${p.code}/today`"
              @click="menu = false"
              >Go to {{ p.name }}</RouterLink
            >
            <button type="button" class="word" @click="leave">Sign out</button>
          </div>
        </div>
      </div>
    </header>
    <main v-if="here" id="content" tabindex="-1"><RouterView /></main>
    <main v-else id="content" class="page">
      <h1>Not found</h1>
      <p>
        There is no such project, or you have no part in it. <RouterLink to="/">To your projects</RouterLink>
      </p>
    </main>
    <GoTo v-if="goTo" :project="project" @close="goTo = false" />
    <NoticeBar />
    <KeysHelp v-if="help" @close="help = false" />
  </div>
</template>

<style scoped>
header {
  height: 48px;
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.skip {
  position: absolute;
  left: -999px;
}
.skip:focus {
  left: 8px;
  top: 8px;
  background: var(--sheet);
  padding: 6px 10px;
  z-index: 10;
}
.mark {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  text-decoration: none;
  font-weight: 700;
}
nav {
  display: flex;
  gap: 20px;
}
nav a {
  color: var(--ink-soft);
  text-decoration: none;
  padding: 4px 0;
}
nav a:hover {
  color: var(--ink);
}
nav a[aria-current] {
  color: var(--ink);
  font-weight: 700;
}
.right {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 16px;
}
.word {
  font: inherit;
  color: var(--ink-soft);
  background: none;
  border: 0;
  padding: 4px 0;
  cursor: pointer;
}
.word:hover {
  color: var(--ink);
}
.person {
  position: relative;
}
.menu {
  position: absolute;
  right: 0;
  top: 34px;
  z-index: 20;
  padding: 12px 16px;
  display: grid;
  gap: 10px;
  box-shadow: var(--float);
  justify-items: start;
}
main {
  outline: none;
}
@media (max-width: 1000px) {
  .project,
  .keys {
    display: none;
  }
  header {
    gap: 14px;
    padding: 0 14px;
  }
}
@media (max-width: 760px) {
  header {
    height: auto;
    flex-wrap: wrap;
    padding: 8px 14px;
    row-gap: 2px;
  }
  nav {
    order: 3;
    width: 100%;
    gap: 18px;
  }
  .name,
  .right > .word {
    display: none;
  }
}
</style>
