import type { Api } from '@/api/client';
import { savePreferences } from '@/areas/people/queries';
import { refreshSession } from '@/areas/people/session';

/** Changes how one wants to work: it counts at once, on every device of this person. */
export function useChosen() {
  /** @returns the account as it is now; fails as the request does, and then nothing changed */
  async function choose(change: Api['PreferencesRequest']): Promise<Api['AccountPage']> {
    const account = await savePreferences(change);
    await refreshSession();
    return account;
  }
  return { choose };
}
