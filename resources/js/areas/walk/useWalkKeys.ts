import type { Ref } from 'vue';
import { useKeys } from '@/kit/keys';
import type { EvidenceTools } from '@/areas/evidence/useEvidence';
import type { Walk } from './useWalk';

/** What the keys of the walk reach beside the walk itself. */
export interface WalkWays {
  locked: Ref<boolean>;
  sheet: Ref<boolean>;
  tools: EvidenceTools;
  /** The lit step where the tester looks at it: on the page, or in the small window. */
  active: () => {
    begin: (what: 'fail' | 'blocked' | 'note') => Promise<void>;
    copyNext: () => void;
    tried: (failed: boolean) => void;
  } | null;
  jumpBy: (by: 1 | -1) => void;
  turnSheet: () => void;
  choose: () => void;
  ask: () => void;
  draft: (step: number | null) => void;
  companion: () => Promise<void>;
  /** What it is walked on is something else. */
  surroundings: () => void;
}

/** The lit step's verdict, else that of the step judged last. */
function takeBack(walk: Walk): void {
  const { steps } = walk;
  const lits = walk.current.value;
  const judged =
    lits && lits.record.verdict !== 'not_run'
      ? lits
      : (lits ? steps.value.filter((s) => s.position < lits.position) : steps.value).findLast(
          (s) => s.record.verdict !== 'not_run',
        );
  if (judged) void walk.judge(judged, 'not_run');
}
/** The keys of the walk. */
export function useWalkKeys(walk: Walk, on: WalkWays): void {
  const { current, steps } = walk;
  useKeys('On the walk', () => {
    const step = current.value;
    const always = [
      { keys: ['j', 'ArrowDown'], label: 'Next step', run: () => walk.move(1) },
      { keys: ['k', 'ArrowUp'], label: 'Step before', run: () => walk.move(-1) },
      { keys: [']'], label: 'Next entry on the trail', run: () => on.jumpBy(1) },
      { keys: ['['], label: 'Entry before', run: () => on.jumpBy(-1) },
      { keys: ['.'], label: 'One lit step, or all as a sheet', run: on.turnSheet },
      {
        keys: ['v'],
        label: 'Copy the values of the step, one after another',
        run: () => on.active()?.copyNext(),
      },
    ];
    if (on.locked.value) return always;
    return [
      ...(step && !on.sheet.value
        ? [
            { keys: ['1'], label: 'Pass', run: () => void walk.judge(step, 'pass') },
            { keys: ['2'], label: 'Fail', run: () => void on.active()?.begin('fail') },
            { keys: ['3'], label: 'Blocked', run: () => void on.active()?.begin('blocked') },
            { keys: ['4'], label: 'Not applicable', run: () => void walk.judge(step, 'not_applicable') },
            { keys: ['n'], label: 'Note', run: () => void on.active()?.begin('note') },
            { keys: ['t'], label: 'Count a try that failed', run: () => on.active()?.tried(true) },
            { keys: ['T'], label: 'Count a try that went well', run: () => on.active()?.tried(false) },
            { keys: ['a'], label: 'Ask, or suggest a wording', run: () => on.ask() },
          ]
        : []),
      ...(on.sheet.value ? [] : [{ keys: ['0'], label: 'Take the verdict back', run: () => takeBack(walk) }]),
      { keys: ['c'], label: 'Capture the screen', run: () => void on.tools.screen() },
      { keys: ['C'], label: 'Capture a part of it', run: () => void on.tools.part() },
      { keys: ['r'], label: 'Record, and stop', run: () => void on.tools.record() },
      { keys: ['i'], label: 'Camera', run: () => on.tools.film() },
      { keys: ['u'], label: 'Choose a file', run: () => on.choose() },
      {
        keys: ['d'],
        label: 'Draft a defect',
        run: () =>
          on.draft(
            step?.position ?? steps.value.findLast((s) => s.record.verdict === 'fail')?.position ?? null,
          ),
      },
      { keys: ['e'], label: 'Change what it is walked on', run: on.surroundings },
      { keys: ['f'], label: 'Finish the attempt', run: () => walk.light(null) },
      { keys: ['m'], label: 'Companion window', run: () => void on.companion() },
      {
        keys: ['p'],
        label: 'Pause the clock',
        run: () => (walk.clock.paused.value = !walk.clock.paused.value),
      },
      ...(walk.rounds.value.length > 1
        ? [
            { keys: ['}'], label: 'Next round', run: () => walk.toRound(walk.roundAt.value + 1) },
            { keys: ['{'], label: 'Round before', run: () => walk.toRound(walk.roundAt.value - 1) },
          ]
        : []),
      ...always,
    ];
  });
}
