<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import DeleteProject from '@/areas/people/parts/DeleteProject.vue';
import NewProject from '@/areas/people/parts/NewProject.vue';
import {
  archiveProject,
  restoreProject,
  setOwner,
  takeFactor,
  useInstallation,
} from '@/areas/people/queries';
import ServiceTests from '@/areas/people/parts/ServiceTests.vue';
import { refreshSession, session } from '@/areas/people/session';
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import { toast } from '@/kit/notices';
import StateBox from '@/kit/StateBox.vue';
import { ago, exact } from '@/kit/words';

/** What owners look after: all projects and all people. Of a project they have no part in they see its name alone. */
const MOST = 200;
const { data, error, isPending, refetch, set } = useInstallation();
const making = ref(false);
const words = ref('');
/** A box whose change was refused begins anew, with what counts. */
const refusals = ref(0);
const problem = ref('');
const found = computed(() => {
  const wanted = words.value.trim().toLowerCase();
  const all = data.value?.people ?? [];
  return wanted === '' ? all : all.filter((p) => `${p.name} ${p.email}`.toLowerCase().includes(wanted));
});
async function act(
  work: () => Promise<Api['InstallationPage']>,
  said: string,
  undo?: () => void,
): Promise<void> {
  problem.value = '';
  try {
    await set(await work());
    await refreshSession();
    toast(said, undo ? async () => undo() : undefined);
  } catch (e) {
    problem.value = errorMessage(e);
    refusals.value += 1;
    await refetch();
  }
}
const restore = (p: Api['InstallationProject']): Promise<void> =>
  act(() => restoreProject(p.id), `${p.name} is taken up again.`);
const archive = (p: Api['InstallationProject']): Promise<void> =>
  act(
    () => archiveProject(p.id),
    `${p.name} is archived: it can be read, and not changed.`,
    () => void restore(p),
  );
const deleting = ref<string | null>(null);
async function gone(p: Api['InstallationProject'], page: Api['InstallationPage']): Promise<void> {
  deleting.value = null;
  await act(() => Promise.resolve(page), `${p.name} is deleted.`);
}
const lost = (p: Api['InstallationPerson']): Promise<void> =>
  act(() => takeFactor(p.id), `${p.name} signs in with the password alone now.`);
const own = (p: Api['InstallationPerson'], is: boolean): Promise<void> =>
  act(() => setOwner(p.id, is), is ? `${p.name} is an owner now.` : `${p.name} is no owner any more.`);
</script>

<template>
  <main class="page">
    <div class="title-line">
      <h1>Installation</h1>
      <div class="actions">
        <Button v-if="data && !making" label="New project" @click="making = true" />
      </div>
    </div>
    <p v-if="session && !session.is_owner" role="alert">Only owners of this installation see this page.</p>
    <StateBox v-else-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
      <SetupSection
        v-if="making || data.projects.length === 0"
        title="New project"
        what="You are its first admin. Invite others next."
      >
        <NewProject :taken="data.projects.map((p) => p.code)" @leave="making = false" />
      </SetupSection>
      <SetupSection
        v-if="data.projects.length > 0"
        title="Projects"
        :count="data.projects.length"
        wide
        what="Owners see no project that they have no part in. What is archived can be read and taken out, and not changed."
      >
        <div class="scroll">
          <table class="lines stacked">
            <thead>
              <tr>
                <th>Project</th>
                <th>Code</th>
                <th>Admins</th>
                <th class="number">People</th>
                <th>State</th>
                <th><span class="unseen">What to do</span></th>
              </tr>
            </thead>
            <tbody v-for="p in data.projects" :key="p.id">
              <tr>
                <td class="long">
                  <RouterLink v-if="p.role" :to="`/${p.code}/today`">{{ p.name }}</RouterLink>
                  <template v-else>{{ p.name }}</template>
                </td>
                <td class="mono">{{ p.code }}</td>
                <td class="long" data-word="Admins">{{ p.admins.join(', ') }}</td>
                <td class="number" data-word="People">{{ p.people }}</td>
                <td>{{ p.archived_at ? `archived ${ago(p.archived_at)}` : 'running' }}</td>
                <td>
                  <button
                    v-if="p.archived_at"
                    type="button"
                    class="link"
                    :aria-label="`Take up again: ${p.name}`"
                    @click="restore(p)"
                  >
                    Take up again
                  </button>
                  <button
                    v-if="p.archived_at && deleting !== p.id"
                    type="button"
                    class="link delete"
                    :aria-label="`Delete … ${p.name}`"
                    @click="deleting = p.id"
                  >
                    Delete …
                  </button>
                  <button
                    v-if="!p.archived_at"
                    type="button"
                    class="link"
                    :aria-label="`Archive ${p.name}`"
                    @click="archive(p)"
                  >
                    Archive
                  </button>
                </td>
              </tr>
              <tr v-if="deleting === p.id">
                <td colspan="6">
                  <DeleteProject :project="p" @deleted="gone(p, $event)" @leave="deleting = null" />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <ul v-if="(data.deleted ?? []).length > 0" class="soft small" aria-label="Deleted projects">
          <li v-for="d in data.deleted" :key="d.asked_at" class="long">
            {{ d.name }} ({{ d.code }}) was deleted by {{ d.by?.name ?? 'somebody who is gone' }},
            <span :title="exact(d.asked_at)">{{ ago(d.asked_at) }}</span>{{
              d.done_at ? '' : '; its files are still on their way out'
            }}
          </li>
        </ul>
      </SetupSection>
      <SetupSection
        title="People"
        :count="data.people.length"
        wide
        what="Everybody with an account. Owners make projects and look after this page."
      >
        <input
          v-if="data.people.length > 12"
          v-model="words"
          class="field search"
          type="search"
          placeholder="Name or address"
          aria-label="Find people"
        />
        <div class="scroll">
          <table class="lines stacked">
            <thead>
              <tr>
                <th>Name</th>
                <th>E-mail</th>
                <th>Projects</th>
                <th>Second factor</th>
                <th>Owner</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in found.slice(0, MOST)" :key="p.id">
                <td class="long">
                  {{ p.name }}<span v-if="p.id === session?.user.id" class="soft"> (you)</span>
                </td>
                <td class="long soft">{{ p.email }}</td>
                <td class="long">{{ p.projects.join(', ') || 'none' }}</td>
                <td data-word="Second factor">
                  <button
                    v-if="p.has_second_factor"
                    type="button"
                    class="link"
                    :aria-label="`Lost: take the second factor of ${p.name}`"
                    @click="lost(p)"
                  >
                    Lost
                  </button>
                  <span v-else class="soft">none</span>
                </td>
                <td data-word="Owner">
                  <input
                    :key="refusals"
                    type="checkbox"
                    :checked="p.is_owner"
                    :aria-label="`${p.name} is an owner`"
                    @change="own(p, ($event.target as HTMLInputElement).checked)"
                  />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="found.length > MOST" class="soft small">
          And {{ found.length - MOST }} more. Write a part of a name.
        </p>
        <p v-if="found.length === 0" class="soft">Nobody is called so.</p>
      </SetupSection>
      <!-- What an older release kept on this device says nothing of it. -->
      <SetupSection
        v-if="data.services"
        title="Mail and storage"
        what="What invitations and evidence depend on."
      >
        <ServiceTests :services="data.services" />
      </SetupSection>
    </template>
  </main>
</template>

<style scoped>
.delete {
  margin-left: 16px;
}
.search {
  max-width: 20rem;
}
input[type='checkbox'] {
  accent-color: var(--dusk);
  width: 16px;
  height: 16px;
}
</style>
