import type { EvidenceTarget } from '@/areas/evidence/types';
import type { Walk } from '@/areas/walk/useWalk';

/**
 * A walk as what evidence is brought to.
 *
 * @param step the step it goes to; null for the attempt as a whole
 */
export function targetOf(walk: Walk, step: () => number | null): EvidenceTarget {
  const attempt = (): NonNullable<typeof walk.view.value>['attempt'] | undefined => walk.view.value?.attempt;
  return {
    get id() {
      return walk.id.value;
    },
    word: 'the step',
    here: () => ({ step: step() }),
    places: () => [
      { word: 'the attempt', place: { step: null } },
      ...walk.steps.value.map((s) => ({ word: `step ${s.position}`, place: { step: s.position } })),
      ...(walk.view.value?.defects ?? []).map((d) => ({
        word: `${d.key === 'waiting' ? 'the new defect' : d.key} ${d.title.slice(0, 40)}`,
        place: { step: d.step, round: d.round ?? 1 },
      })),
    ],
    tested: () => ({
      configuration: attempt()?.configuration?.name,
      environment: attempt()?.named_environment?.name,
      build: attempt()?.build?.id,
    }),
    attach: (what, name, source, place = { step: step() }) =>
      walk.attach(what, name, source, place.step, place.round),
  };
}
