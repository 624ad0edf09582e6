<script setup lang="ts">
import { session } from '@/areas/people/session';
import { useLeaving } from '@/areas/people/useLeaving';
import LucidMark from '@/kit/LucidMark.vue';
import NoticeBar from '@/kit/NoticeBar.vue';

/** The masthead of pages that lie in no project. */
const leave = useLeaving();
</script>

<template>
  <div>
    <header>
      <RouterLink class="mark" to="/"><LucidMark /> Lucid Step</RouterLink>
      <nav v-if="session" aria-label="Areas">
        <RouterLink to="/" active-class="" exact-active-class="here">Projects</RouterLink>
        <RouterLink v-if="session.is_owner" to="/installation" active-class="here">Installation</RouterLink>
      </nav>
      <div v-if="session" class="right">
        <RouterLink class="soft" to="/account">{{ session.user.name }}</RouterLink>
        <button type="button" class="link soft" @click="leave()">Sign out</button>
      </div>
      <RouterLink v-else class="right" to="/sign-in">Sign in</RouterLink>
    </header>
    <slot />
    <NoticeBar />
  </div>
</template>

<style scoped>
header {
  min-height: 48px;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 24px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
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
  gap: 18px;
}
nav a {
  color: var(--ink-soft);
  text-decoration: none;
  padding: 4px 0;
}
nav a.here,
nav a:hover {
  color: var(--ink);
}
nav a.here {
  font-weight: 700;
}
.right {
  margin-left: auto;
  display: flex;
  gap: 18px;
  align-items: center;
}
@media (max-width: 640px) {
  header {
    padding: 6px 14px;
  }
}
</style>
