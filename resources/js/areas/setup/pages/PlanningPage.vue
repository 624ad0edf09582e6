<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import StateBox from '@/kit/StateBox.vue';
import AxesEditor from '@/areas/setup/parts/AxesEditor.vue';
import CalendarEditor from '@/areas/setup/parts/CalendarEditor.vue';
import EnvironmentsEditor from '@/areas/setup/parts/EnvironmentsEditor.vue';
import ListEditor from '@/areas/setup/parts/ListEditor.vue';
import ReleasesEditor from '@/areas/setup/parts/ReleasesEditor.vue';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';
import { useLists, usePlanningSetup } from '@/areas/setup/queries';

/** What cycles are planned with: releases, axes, configurations, the calendar, people's time. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch, set } = usePlanningSetup(project);
const { data: lists, set: setLists } = useLists(project);
const LISTS = [
  {
    list: 'milestone-types',
    from: 'milestone_types',
    title: 'Types of milestones',
    what: 'What kind of goal a milestone is.',
    uses: 'milestone',
  },
  { list: 'phases', from: 'phases', title: 'Phases', what: 'What a cycle is part of.', uses: 'cycle' },
] as const;
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="!data.may_plan" class="soft">Leads and admins change these; your own days off are yours.</p>
      <AxesEditor :project="project" :setup="data" @saved="set" />
      <ReleasesEditor :project="project" :setup="data" @saved="set" />
      <EnvironmentsEditor :project="project" :setup="data" @saved="set" />
      <CalendarEditor :project="project" :setup="data" @saved="set" />
      <template v-if="lists">
        <ListEditor
          v-for="{ from, ...l } in LISTS"
          :key="l.list"
          v-bind="l"
          :project="project"
          :items="lists[from]"
          :seen="lists.seen[l.list] ?? ''"
          :may-write="data.may_plan"
          @saved="setLists($event as Api['ProjectSetup'])"
        />
      </template>
    </template>
  </div>
</template>
