import { shallowRef } from 'vue';
import type { Api } from '@/api/client';
import { setKeys } from '@/kit/keys';
import { ownZone } from '@/kit/zone';

type Preferences = Api['PreferenceSet'];

/** How it comes, for whoever chose nothing and for whoever is not signed in. */
const USUAL: Preferences = {
  time_zone: null,
  scheme: 'system',
  density: 'roomy',
  single_keys: true,
  keys: [],
  notices: [],
};
/** The look is kept on the device, so that a page opens in it before anybody is asked who it is for. */
const LOOK = 'lucid-step-look';

/** How the person who is signed in wants to work. */
export const preferences = shallowRef<Preferences>(USUAL);

function show(look: Pick<Preferences, 'scheme' | 'density'>): void {
  Object.assign(document.documentElement.dataset, { scheme: look.scheme, density: look.density });
}

/** The look that this device had last. */
export function showKeptLook(): void {
  try {
    show({ ...USUAL, ...(JSON.parse(localStorage.getItem(LOOK) ?? '{}') as Partial<Preferences>) });
  } catch {
    show(USUAL);
  }
}

/** Lets the page be as a person wants it; what an older release kept of them says nothing of it. */
export function prefer(found: Preferences | undefined): void {
  const now = found ?? USUAL;
  preferences.value = now;
  show(now);
  localStorage.setItem(LOOK, JSON.stringify({ scheme: now.scheme, density: now.density }));
  setKeys(now.single_keys, now.keys);
  ownZone.value = now.time_zone ?? undefined;
}
