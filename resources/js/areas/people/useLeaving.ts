import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { session, signOut } from '@/areas/people/session';
import { plural } from '@/kit/words';
import { unsent } from '@/offline/device';

/** What would be lost by signing out, in words, while it is asked whether to go all the same. */
export const wouldLose = ref<string | null>(null);
/** What stays on the device for whoever signed out, as the sign-in page tells it. */
export const STAYS = 'lucid-step-stays';

const words = (acts: number, typed: number): string =>
  [
    ...(acts > 0 ? [`${plural(acts, 'act')} that ${acts === 1 ? 'is' : 'are'} not sent yet`] : []),
    ...(typed > 0 ? [`${plural(typed, 'text')} being written`] : []),
  ].join(' and ');

/**
 * Signs out and leaves nothing of this person in the page either, with or without the server. What only the device has is locked
 * for them; where the browser cannot lock it asks first, since what was being written would be lost.
 */
export function useLeaving(): (sure?: boolean) => Promise<void> {
  const router = useRouter();
  return async (sure = false) => {
    const me = session.value?.user;
    const { acts, typed, locks } = me ? await unsent(me.id) : { acts: 0, typed: 0, locks: true };
    if (typed > 0 && !locks && !sure) {
      wouldLose.value = words(0, typed);
      return;
    }
    wouldLose.value = null;
    const left = acts + (locks ? typed : 0);
    const stays = words(acts, locks ? typed : 0);
    const anew = await signOut();
    if (me && left > 0) {
      const how = locks ? `locked for ${me.name}` : `for ${me.name}`;
      sessionStorage.setItem(STAYS, `${stays} ${left === 1 ? 'stays' : 'stay'} on this device, ${how}.`);
    }
    if (anew) location.replace('/sign-in');
    else await router.push('/sign-in');
  };
}
