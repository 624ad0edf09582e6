import type { Api } from '@/api/client';

type Flag = Exclude<keyof Api['PolicySet'], 'after_finishing'>;
/** What a project decides of its walks, each with a sentence on what it does. */
export const POLICIES: { title: string; flags: { name: Flag; word: string; does: string }[] }[] = [
  {
    title: 'Verdicts',
    flags: [
      {
        name: 'fail_sets_verdict',
        word: 'A failing step decides the attempt',
        does:
          'On: an attempt with a failed step ends as fail unless somebody says otherwise with a word of why. ' +
          'Off: the fail is only suggested, and whoever finishes chooses.',
      },
      {
        name: 'pass_sets_verdict',
        word: 'All steps passed decides the attempt',
        does:
          'On: it ends as pass. Off: pass is only suggested; the attempt stays open, and verdicts can be taken back, ' +
          'until somebody finishes it.',
      },
      {
        name: 'skip_wrap_up_on_pass',
        word: 'No wrap-up after a clean pass',
        does: 'On: the last pass finishes the attempt and the walk goes on at once. Off: the wrap-up shows what becomes final first.',
      },
    ],
  },
  {
    title: 'Who records',
    flags: [
      {
        name: 'opening_takes',
        word: 'Opening an unassigned entry takes it',
        does: 'On: whoever starts an entry that is nobody’s becomes its assignee. Off: it stays unassigned while they walk it.',
      },
      {
        name: 'only_assignee_records',
        word: 'Only the assignee records',
        does: 'On: nobody else starts or judges an entry; a lead always may. Off: every tester may walk every entry.',
      },
    ],
  },
  {
    title: 'Cycles',
    flags: [
      {
        name: 'only_approved_cases',
        word: 'Only approved cases enter cycles',
        does:
          'On: cases that nobody approved are not picked, and an approved case that is edited keeps its approved ' +
          'version in cycles until it is approved again.',
      },
      {
        name: 'cycles_are_reviewed',
        word: 'Cycles are reviewed before they are released',
        does: 'On: somebody other than the planner looks at a cycle before testers see it.',
      },
      {
        name: 'cycle_closes_itself',
        word: 'A cycle closes itself',
        does: 'On: it closes once every entry has a final verdict, no retest is asked and nothing is stopped. Off: a lead closes it.',
      },
    ],
  },
  {
    title: 'Defects',
    flags: [
      {
        name: 'retests_verify',
        word: 'Retests that pass verify a defect',
        does:
          'On: a fixed defect is verified once every retest asked for has passed its step with the fix. ' +
          'Off: that is only said at the defect, and somebody verifies it.',
      },
    ],
  },
];
/** Where the walk goes after finishing. */
export const AFTERS: { value: Api['PolicySet']['after_finishing']; word: string; does: string }[] = [
  {
    value: 'next_open',
    word: 'The next that can be walked',
    does: 'Held and finished entries are passed over.',
  },
  { value: 'next_in_order', word: 'The next in order', does: 'Whatever it shows.' },
  { value: 'stay', word: 'Stay', does: 'The finished attempt stays in view.' },
];
