<script setup lang="ts">
import { ref } from 'vue';
import { errorMessage, type Api } from '@/api/client';
import { invitationAddress, sendInvitation, withdrawInvitation } from '@/areas/people/queries';
import { toast } from '@/kit/notices';
import { ago, exact, when } from '@/kit/words';

/** Who is invited and has not come yet. */
defineProps<{ invitations: Api['OpenInvitation'][] }>();
const emit = defineEmits<{ changed: [] }>();
const problem = ref('');
const address = ref<{ id: string; text: string } | null>(null);

async function act(work: () => Promise<void>, words: string): Promise<void> {
  problem.value = '';
  try {
    await work();
    toast(words);
    emit('changed');
  } catch (error) {
    problem.value = errorMessage(error);
  }
}
async function tell(invitation: Api['OpenInvitation']): Promise<void> {
  problem.value = '';
  try {
    const text = await invitationAddress(invitation.id);
    address.value = { id: invitation.id, text };
    await navigator.clipboard?.writeText(text).then(() => toast('The address is copied.'));
  } catch (error) {
    // It stands there to be copied by hand.
    if (!(error instanceof DOMException)) problem.value = errorMessage(error);
  }
}
const stateOf = (i: Api['OpenInvitation']): string =>
  ({
    waiting: 'The mail goes in a moment.',
    sent: i.sent_at ? `Sent ${ago(i.sent_at)}` : 'Sent',
    failed: 'The mail did not go.',
    expired: 'Expired',
  })[i.state];
</script>

<template>
  <div>
    <p v-if="problem" class="p-invalid-words" role="alert">{{ problem }}</p>
    <div class="scroll">
      <table class="lines stacked">
        <thead>
          <tr>
            <th>Address</th>
            <th>As</th>
            <th>Mail</th>
            <th>Open until</th>
            <th><span class="unseen">What to do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="i in invitations" :key="i.id">
            <td class="long">
              {{ i.email }}
              <p v-if="i.name" class="soft small">{{ i.name }}</p>
              <p v-if="address?.id === i.id" class="mono small long">{{ address.text }}</p>
              <p v-if="i.failure" class="p-invalid-words">{{ i.failure }}</p>
            </td>
            <td>{{ i.role }}</td>
            <td :title="i.sent_at ? exact(i.sent_at) : ''">{{ stateOf(i) }}</td>
            <td data-word="Open until" :title="exact(i.expires_at)">{{ when(i.expires_at) }}</td>
            <td class="do">
              <button
                type="button"
                class="link"
                @click="act(() => sendInvitation(i.id), 'On its way again, for seven days.')"
              >
                Send again
              </button>
              <button type="button" class="link" @click="tell(i)">Copy the address</button>
              <button
                type="button"
                class="link"
                @click="act(() => withdrawInvitation(i.id), `The invitation of ${i.email} is withdrawn.`)"
              >
                Withdraw
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
