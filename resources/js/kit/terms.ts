/** Words that have one meaning here, as the page of words tells them. */
export const TERMS = {
  case: ['Case', 'A test case: what is done, with what, and what is expected.'],
  step: ['Step', 'One action of a case, its test data and what is expected of it.'],
  routine: ['Routine', 'Steps with a name that many cases use, changed in one place.'],
  table: [
    'Data table',
    'Columns and rows of values; a case bound to one is walked once for each chosen row.',
  ],
  suite: ['Suite', 'Cases under a name: picked by hand, by a rule that stays live, or by requirement.'],
  configuration: ['Configuration', 'One combination of what is varied, such as a device and a browser.'],
  environment: ['Environment', 'A place where a build runs, with its address.'],
  milestone: ['Milestone', 'A dated goal that holds cycles.'],
  cycle: ['Cycle', 'What is to be walked for a build within some days, by whom and in which order.'],
  entry: ['Entry', 'One line of a cycle: a case, on a configuration, with its rows, for one person.'],
  attempt: ['Attempt', 'One walk of an entry by one person. A retest is another; none is ever deleted.'],
  round: ['Round', 'One row of a data table on its way through the steps of an attempt.'],
  walk: ['Walk', 'Going through an entry step by step, recording what is seen.'],
  verdict: ['Verdict', 'Pass, fail, blocked or not applicable. Until then an entry is not run.'],
  held: ['Held', 'It cannot be walked yet: it waits for another entry, for its time, or for its cycle.'],
  stopped: [
    'Stopped',
    'Blocked with its cause: what it depends on failed, so that walking it proves nothing.',
  ],
  retest: ['Retest', 'A lead asks for an entry to be walked again, and says why.'],
  evidence: ['Evidence', 'A picture, recording, file, log or link of what was seen.'],
  handover: ['Hand over', 'To give an entry to somebody else, or to a lead for a look.'],
  late: ['Late', 'What a device recorded and sent after the attempt or its cycle had ended; a lead decides.'],
} as const satisfies Record<string, readonly [string, string]>;

export type Term = keyof typeof TERMS;
