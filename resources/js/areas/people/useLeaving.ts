import { useRouter } from 'vue-router';
import { signOut } from '@/areas/people/session';

/** Signs out and leaves nothing of this person in the page either, with or without the server. */
export function useLeaving(): () => Promise<void> {
  const router = useRouter();
  return async () => {
    if (await signOut()) location.replace('/sign-in');
    else await router.push('/sign-in');
  };
}
