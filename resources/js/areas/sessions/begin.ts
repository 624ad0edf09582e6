import { v7 as uuid7 } from 'uuid';
import type { Api } from '@/api/client';
import { outbox } from '@/offline/outbox';

/** Begins a session of a charter on what the charter says, also while the server is away. */
export const beginSession = (charter: Api['CharterLine']): Promise<unknown> =>
  outbox.add(uuid7(), {
    kind: 'session_start',
    charter: charter.key,
    build_id: charter.build?.id ?? null,
    configuration_id: charter.configuration?.id ?? null,
    environment: '',
  });

/** With what, and to find what, as one reads it behind "Explore"; empty where neither is said. */
export const missionOf = (charter: Pick<Api['CharterLine'], 'with_what' | 'to_find'>): string =>
  [charter.with_what ? `with ${charter.with_what}` : '', charter.to_find ? `to find ${charter.to_find}` : '']
    .filter(Boolean)
    .join(', ');
