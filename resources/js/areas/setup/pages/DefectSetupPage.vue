<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import type { Api } from '@/api/client';
import TrackerSetup from '@/areas/defects/parts/TrackerSetup.vue';
import { mayManagePeople } from '@/areas/people/session';
import FieldsEditor from '@/areas/setup/parts/FieldsEditor.vue';
import ListEditor from '@/areas/setup/parts/ListEditor.vue';
import SetupSection from '@/areas/setup/parts/SetupSection.vue';
import SetupTabs from '@/areas/setup/parts/SetupTabs.vue';
import { useLists } from '@/areas/setup/queries';
import StateBox from '@/kit/StateBox.vue';

/** What defects of the project are sorted by, and what they have of their own. */
const route = useRoute();
const project = computed(() => String(route.params.project));
const { data, error, isPending, refetch, set } = useLists(project);
</script>

<template>
  <div class="page">
    <SetupTabs :project="project" />
    <StateBox v-if="!data" :loading="isPending" :error="error" @again="refetch()" />
    <template v-else>
      <p v-if="!data.may_write" class="soft">Leads and admins change these.</p>
      <ListEditor
        list="components"
        title="Components"
        what="The parts of what is tested that a defect may be in."
        uses="defect"
        :project="project"
        :items="data.components"
        :seen="data.seen.components ?? ''"
        :may-write="data.may_write"
        @saved="set($event as Api['ProjectSetup'])"
      />
      <FieldsEditor
        of="defects"
        :project="project"
        :fields="data.defect_fields"
        :seen="data.seen['defect-fields'] ?? ''"
        :may-write="data.may_write"
        @saved="set($event as Api['ProjectSetup'])"
      />
      <SetupSection
        v-if="mayManagePeople(project)"
        title="Tracker outside"
        what="Where defects are filed as well, for those who work in another program. What cannot be sent waits, and arrives once."
      >
        <TrackerSetup :key="project" :project="project" />
      </SetupSection>
    </template>
  </div>
</template>
