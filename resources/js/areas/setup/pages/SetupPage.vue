<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import { useLists } from '@/areas/setup/queries';
import StateBox from '@/kit/StateBox.vue';
import FieldsEditor from '@/areas/setup/parts/FieldsEditor.vue';
import LabelsEditor from '@/areas/setup/parts/LabelsEditor.vue';
import ListEditor from '@/areas/setup/parts/ListEditor.vue';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';

const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch, set } = useLists(project);
const LISTS = [
  { list: 'types', title: 'Types', what: 'What kind of test a case is.' },
  {
    list: 'priorities',
    title: 'Priorities',
    what: 'In order, the most important first. The weight counts when work is chosen for a short time.',
    weighted: true,
  },
] as const;
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="!data.may_write" class="soft">Leads and admins change these.</p>
      <ListEditor
        v-for="l in LISTS"
        :key="l.list"
        v-bind="l"
        :project="project"
        :items="data[l.list]"
        :seen="data.seen[l.list] ?? ''"
        :may-write="data.may_write"
        @saved="set($event as Api['ProjectSetup'])"
      />
      <FieldsEditor
        of="cases"
        :project="project"
        :fields="data.fields"
        :seen="data.seen.fields ?? ''"
        :may-write="data.may_write"
        @saved="set($event as Api['ProjectSetup'])"
      />
      <LabelsEditor
        :project="project"
        :labels="data.labels"
        :may-write="data.may_write"
        @saved="set($event as Api['ProjectSetup'])"
      />
    </template>
  </div>
</template>
