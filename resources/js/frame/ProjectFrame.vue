<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref, toRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import NoticeBar from '@/kit/NoticeBar.vue';
import NoticeBell from '@/areas/notices/parts/NoticeBell.vue';
import SaveState from '@/offline/SaveState.vue';
import { tip, useKeys } from '@/kit/keys';
import { zone } from '@/kit/zone';
import { useLive } from '@/offline/live';
import { usePack } from '@/areas/walk/usePack';
import { projectOf, rememberProject, session } from '@/areas/people/session';
import { useLeaving } from '@/areas/people/useLeaving';
import LucidMark from '@/kit/LucidMark.vue';
import FactorNeeded from './FactorNeeded.vue';
import { areasOf } from './places';
import KeyCap from '@/kit/KeyCap.vue';

const goToFile = () => import('./ProjectGoTo.vue');
const GoTo = defineAsyncComponent(goToFile);
const KeysHelp = defineAsyncComponent(() => import('./KeysHelp.vue'));
const props = defineProps<{ project: string }>();
const route = useRoute();
const router = useRouter();
const leave = useLeaving();
const goTo = ref(false);
const help = ref(false);
const menu = ref(false);
const here = computed(() => projectOf(props.project));
watch(
  () => here.value?.time_zone,
  (its) => (zone.value = its),
  { immediate: true },
);
const areas = computed(() => areasOf(props.project));
const initials = computed(() =>
  (session.value?.user.name ?? '')
    .split(' ')
    .map((w) => w.charAt(0))
    .join(''),
);
const others = computed(() => session.value?.projects.filter((p) => p.code !== props.project) ?? []);
useLive(toRef(props, 'project'));
usePack(toRef(props, 'project'));
useKeys('Anywhere', () => [
  ...areas.value.map((a) => ({
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
const person = ref<HTMLElement | null>(null);
useEventListener(document, 'pointerdown', (event) => {
  if (!person.value?.contains(event.target as Node)) menu.value = false;
});
watch(here, (now) => now && rememberProject(now.code), { immediate: true });
watch(
  () => route.fullPath,
  () => (menu.value = false),
);
/** On a narrow screen the areas stand in one line that is drawn sideways: where one is stands in sight. */
const nav = useTemplateRef<HTMLElement>('nav');
watch(
  () => [route.path, areas.value.length, nav.value],
  () => {
    const current = nav.value?.querySelector<HTMLElement>('[aria-current]');
    if (nav.value && current) {
      const middle = current.offsetLeft - nav.value.offsetLeft + current.offsetWidth / 2;
      nav.value.scrollLeft = middle - nav.value.clientWidth / 2;
    }
  },
  { flush: 'post', immediate: true },
);
useEventListener(window, 'keydown', onKey);
onMounted(() => {
  // Whoever presses Ctrl K types on at once: it is there before they do.
  setTimeout(() => void goToFile().catch(() => undefined), 3000);
});
async function change(project: string): Promise<void> {
  menu.value = false;
  await router.push(`/${project}/today`);
}
function active(path: string): boolean {
  return (
    route.path.startsWith(`/${props.project}/${path}`) ||
    (path === 'today' && route.path.startsWith(`/${props.project}/walk`)) ||
    (path === 'coverage' && route.path.startsWith(`/${props.project}/trace`))
  );
}
</script>

<template>
  <div class="frame">
    <a class="skip" href="#content">To the content</a>
    <header>
      <RouterLink class="mark" aria-label="Lucid Step, to Today" :to="`/${project}/today`">
        <LucidMark />
        <span class="name">Lucid Step</span>
      </RouterLink>
      <span class="project soft" :title="here?.name">{{ here?.name ?? project }}</span>
      <nav ref="nav" aria-label="Areas">
        <RouterLink
          v-for="a in areas"
          :key="a.path"
          :to="`/${project}/${a.path}`"
          :aria-current="active(a.path) ? 'page' : undefined"
          :title="tip(a.word, `g ${a.key}`)"
          >{{ a.word }}</RouterLink
        >
      </nav>
      <div class="right">
        <button type="button" class="word go" aria-haspopup="dialog" @click="goTo = true">
          Go to <kbd>Ctrl K</kbd>
        </button>
        <SaveState />
        <NoticeBell :project="project" />
        <div ref="person" class="person" @keydown.esc="menu = false">
          <button type="button" class="word" :aria-expanded="menu" aria-haspopup="true" @click="menu = !menu">
            <span class="full">{{ session?.user.name }}</span><span class="short" aria-hidden="true">{{
              initials
            }}</span
            ><svg width="9" height="6" viewBox="0 0 9 6" aria-hidden="true">
              <path d="M1 1l3.5 3.5L8 1" fill="none" stroke="currentColor" stroke-width="1.5" />
            </svg>
          </button>
          <div v-if="menu" class="menu sheet">
            <p class="who">
              <strong>{{ session?.user.name }}</strong><span class="soft small">{{ session?.email }}</span
              ><span class="soft small">{{ here?.role }} in {{ here?.name }}</span>
            </p>
            <template v-if="others.length > 0">
              <p class="label">Other projects</p>
              <button v-for="p in others" :key="p.id" type="button" class="item" @click="change(p.code)">
                {{ p.name }}<span class="soft small">{{ p.role }}</span>
              </button>
            </template>
            <RouterLink class="item line" to="/account">Your account</RouterLink>
            <RouterLink v-if="session?.is_owner" class="item" to="/installation">Installation</RouterLink>
            <button
              type="button"
              class="item line"
              aria-haspopup="dialog"
              @click="
                menu = false;
                help = true;
              "
            >
              Keys <KeyCap of="?" />
            </button>
            <button type="button" class="item" @click="((menu = false), leave())">Sign out</button>
          </div>
        </div>
      </div>
    </header>
    <p v-if="here?.archived_at" class="archived" role="note">
      This project is archived: everything can be read and taken out, and nothing changed.
    </p>
    <main v-if="here" id="content" tabindex="-1">
      <FactorNeeded v-if="here.lacks_second_factor" :name="here.name" />
      <RouterView v-else />
    </main>
    <main v-else id="content" class="page">
      <h1>Not found</h1>
      <p>
        There is no such project, or you have no part in it. <RouterLink to="/">To your projects</RouterLink>
      </p>
    </main>
    <GoTo
      v-if="goTo"
      :project="project"
      @close="goTo = false"
      @help="help = true"
      @leave="leave()"
      @change="change"
    />
    <NoticeBar />
    <KeysHelp v-if="help" @close="help = false" />
  </div>
</template>

<style scoped>
header {
  height: 48px;
  display: flex;
  align-items: center;
  gap: 18px;
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
.project {
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
}
nav {
  display: flex;
  gap: 18px;
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
  gap: 18px;
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
.person > .word {
  display: flex;
  align-items: center;
  gap: 6px;
}
.menu {
  position: absolute;
  right: 0;
  top: 36px;
  z-index: 20;
  min-width: 230px;
  padding: 12px 8px 8px;
  display: grid;
  box-shadow: var(--float);
}
.who {
  display: grid;
  padding: 0 8px 8px;
}
.menu .label {
  padding: 8px 8px 0;
  margin: 0;
  border-top: 1px solid var(--rule);
}
.item {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
  font: inherit;
  color: var(--ink);
  background: none;
  border: 0;
  border-radius: 4px;
  padding: 7px 8px;
  text-align: left;
  cursor: pointer;
}
.item:hover {
  background: var(--well);
}
.item.line {
  margin-top: 4px;
}
main {
  outline: none;
}
a.item {
  text-decoration: none;
}
.archived {
  padding: 6px 24px;
  background: var(--well);
  border-bottom: 1px solid var(--rule);
}
/* Ten words fit at 1280 pixels; what only names where one is stands where there is room. */
@media (max-width: 1440px) {
  .project,
  .name {
    display: none;
  }
}
@media (max-width: 1000px) {
  header {
    gap: 14px;
    padding: 0 14px;
  }
  .go kbd {
    display: none;
  }
}
.short {
  display: none;
}
@media (max-width: 860px) {
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
    overflow-x: auto;
    scrollbar-width: none;
    padding-right: 28px;
    mask-image: linear-gradient(to right, #000 calc(100% - 28px), transparent);
  }
}
@media (max-width: 640px) {
  nav {
    gap: 14px;
  }
  .right {
    gap: 14px;
  }
  .full {
    position: absolute;
    width: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .short {
    display: inline;
  }
}
</style>
