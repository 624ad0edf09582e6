<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { reviewCase } from '@/areas/casebook/queries';
import { ago, exact } from '@/kit/words';

/** Where the case stands in its review, and the next step of it. */
const props = defineProps<{ detail: Api['CaseDetail']; dirty: boolean }>();
const emit = defineEmits<{ changed: [] }>();
const open = ref<'' | 'ask' | 'approve' | 'return'>('');
const comment = ref('');
const problem = ref('');
const SAID: Record<string, string> = {
  review_asked: 'asked for approval',
  approved: 'approved it',
  returned: 'returned it',
};
async function act(what: 'ask' | 'approve' | 'return'): Promise<void> {
  problem.value = '';
  try {
    await reviewCase(props.detail.case.key, { act: what, comment: comment.value });
    comment.value = '';
    open.value = '';
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
</script>

<template>
  <section class="review" aria-label="Review">
    <p class="row">
      <span v-if="detail.review" class="long"
        >{{ detail.review.by.name }} {{ SAID[detail.review.kind] }}
        <span class="soft" :title="exact(detail.review.at)">{{ ago(detail.review.at) }}</span><template
          v-if="detail.review.comment"
          >: “{{ detail.review.comment }}”</template
        ></span
      >
      <span class="gap" />
      <template v-if="detail.may_write && detail.case.state === 'draft'">
        <button type="button" class="link" :disabled="dirty" @click="open = 'ask'">Ask for approval</button>
      </template>
      <template
        v-if="detail.may_lead && (detail.case.state === 'draft' || detail.case.state === 'in_review')"
      >
        <button type="button" class="link" :disabled="dirty" @click="act('approve')">Approve</button>
      </template>
      <template v-if="detail.may_lead && detail.case.state === 'in_review'">
        <button type="button" class="link" @click="open = 'return'">Return</button>
      </template>
    </p>
    <form v-if="open" class="row" @submit.prevent="act(open || 'ask')">
      <input
        v-model="comment"
        class="field say"
        :placeholder="open === 'return' ? 'What is to be changed?' : 'A word to the reviewer, if you like'"
        :aria-label="open === 'return' ? 'What is to be changed?' : 'A word to the reviewer'"
        maxlength="4000"
      />
      <button type="submit" class="link">{{ open === 'return' ? 'Return it' : 'Ask' }}</button>
      <button type="button" class="link soft" @click="open = ''">Leave it</button>
    </form>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.review {
  display: grid;
  gap: 6px;
  margin-bottom: 12px;
}
.gap {
  flex: 1;
}
.say {
  flex: 1;
}
</style>
