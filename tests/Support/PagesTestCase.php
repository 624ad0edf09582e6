<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

/**
 * Looks every page over: nothing axe finds, nothing that hangs over the window. One class for each kind of screen, so that
 * they can run side by side.
 */
abstract class PagesTestCase extends BrowserTestCase
{
    protected function everyPage(int $width, int $height, bool $dark = false): void
    {
        $me = $this->tester($width, $height, $dark);
        $me->open('/sign-in')->see('This is a demo');
        $this->check($me, 'sign in');
        $me->signIn('tobias')->see('Retests asked of you');
        $this->check($me, 'today');
        // At the desk each page is also opened by its address; else one goes there inside the application.
        $desk = !$dark && $width > 640;
        $at = static fn(Tester $t, string $path): Tester => $desk ? $t->open($path) : $t->go($path);
        foreach (
            [
                '/SKR/cycles' => 'Release 4.2',
                '/SKR/cycles/SKR-R2' => 'SKR-C13',
                '/SKR/casebook' => 'SKR-C1',
                '/SKR/casebook/SKR-C17' => 'Add a second bike',
                '/SKR/casebook?q=bike&peek=SKR-C34' => 'Last results',
                '/SKR/casebook/SKR-C69' => 'card',
                '/SKR/casebook/SKR-C2/history' => 'What happened',
                '/SKR/casebook/routines' => 'Begin a booking',
                '/SKR/casebook/tables' => 'Vehicle lengths',
                '/SKR/casebook/desk?mine=no' => 'Likely doubles',
                '/SKR/casebook/bin' => 'The bin is empty',
                '/SKR/casebook/import' => 'Bring cases in',
                '/SKR/setup' => 'Fields of your own',
                '/SKR/setup/walking' => 'Who records',
                '/SKR/defects' => 'SKR-D4',
                '/SKR/sessions/figures' => 'Not explored on',
                '/SKR/sessions/figures?as=charts' => 'Issues an hour',
                '/SKR/sessions/SKR-S1/sheet' => 'What happened',
                '/SKR/sessions/SKR-S1' => 'Said of it',
                '/SKR/coverage' => 'requirements proven',
                '/SKR/coverage?gaps=yes' => 'All requirements',
                '/SKR/coverage/SKR-Q6' => 'to be looked at',
                '/SKR/defects/SKR-D2' => 'History',
                '/SKR/cycles?q=' => 'Release',
                '/SKR/nothing/here' => 'Not found',
                '/words#held' => 'It cannot be walked yet',
                '/docs/access' => 'walk entries and record what was seen',
            ]
            as $path => $words
        ) {
            $at($me, $path)->see($words);
            $this->check($me, $path);
        }
        $issue = $this->value(
            "select c.key || '/lines/' || l.id from session_lines l join test_sessions s on s.id = l.session_id " .
                "join charters c on c.id = s.charter_id where c.key = 'SKR-S2' and l.kind = 'issue' order by l.number limit 1",
        );
        $at($me, "/SKR/sessions/{$issue}")->see('What led to');
        $this->check($me, 'what led to an issue');
        // What a lead plans with is made of the same parts in the dark.
        if (!$dark) {
            $this->planning($width, $height, $at);
        }
        $at($me, '/SKR/casebook/routines')->click('a', 'Begin a booking')->see('Used in 37 places');
        $this->check($me, 'routine');
        $at($me, '/SKR/casebook/tables')->click('a', 'Islanders')->see('Secret values');
        $this->check($me, 'data table');
        $at($me, '/SKR/casebook?q=bike')->click('[role=row] input', '')->click('.bulk .link', 'Edit')->see('As it is');
        $this->check($me, 'editing many');
        $at($me, '/SKR/cycles/SKR-R2')->click('.list a', 'A passenger of 15')->see('Instead:');
        $this->check($me, 'entry');
        $me->click('.record button', 'Every event')->see('Verdict given');
        $this->check($me, 'the record');
        $at($me, '/SKR/cycles/SKR-R2')->see('SKR-C13')->press('x')->click('.judge button', 'Choose all')->click('.judge .give', 'Blocked');
        $this->check($me, 'judging from the list');
        $at($me, '/SKR/today')->click('.page button', 'Start SKR-C13')->see('Step 1 of 5');
        $this->check($me, 'walk');
        $me->press('.')->waitFor('table.lines');
        $this->check($me, 'the sheet');
        $me->press('.')->click('.tools button', 'Log text')->see('Log text, kept as a file')->click('.top .on');
        $this->check($me, 'evidence and surroundings');
        $me->click('.band button', 'Leave it')->press('a')->see('A better wording');
        $this->check($me, 'asking');
        $me->click('.ask button', 'Leave it');
        $me->click('.give', 'Fail')->press('Wrong.')->waitFor('.two');
        $this->check($me, 'failing a step');
        $me->click('button', 'Record and draft a defect')->see('Defect from step 1')->waitFor('#defect-title');
        $this->check($me, 'drafting a defect');
        $me->click('.panel button', 'Not now');
        $me->script('document.activeElement?.blur()');
        $me->press('f')->see('Finish this attempt');
        $this->check($me, 'wrap-up');
    }

    /**
     * @param  \Closure(Tester, string): Tester  $at
     */
    private function planning(int $width, int $height, \Closure $at): void
    {
        $lead = $this->tester($width, $height)->signIn('maren');
        foreach (
            [
                '/SKR/cycles' => 'Summer timetable',
                '/SKR/cycles/new' => 'What is walked',
                '/SKR/cycles/SKR-R2/plan?shows=not_run' => 'Load',
                '/SKR/cycles/SKR-R2/paths' => 'joined by conditions',
                '/SKR/cycles/SKR-R2/log' => 'Sign-off',
                '/SKR/cycles/SKR-R2/compare?with=SKR-R1' => 'Compared',
                '/SKR/coverage/import' => 'A file: CSV',
                '/SKR/today' => 'Turned since yesterday',
                '/SKR/setup/people' => 'Who may what',
                '/SKR/queue' => 'Waits for a lead',
                '/SKR/setup/planning' => 'Pairs that cannot meet',
                '/SKR/setup/log' => 'The project was made',
                '/mail' => 'Caught mails',
            ]
            as $path => $words
        ) {
            $at($lead, $path)->see($words);
            $this->check($lead, $path);
        }
        $at($lead, '/SKR/cycles/SKR-R4/plan')->click('.line', '')->see('Set the condition');
        $this->check($lead, 'an entry of a plan');
        foreach (
            [
                'Add entries' => 'The whole casebook',
                'Hand out' => 'By shares',
                'Short of time' => 'Leave out',
                'Dates, build, people' => 'Watchers',
                'Again' => 'Will be',
            ]
            as $word => $then
        ) {
            $lead->click('.tools .link', $word)->see($then);
            $this->check($lead, "plan: {$word}");
        }
        $lead->leave();
        $developer = $this->tester($width, $height)->signIn('lina');
        $at($developer, '/SKR/today')->see('With you');
        $this->check($developer, 'the day of a developer');
        $developer->leave();
        $owner = $this->tester($width, $height)->signIn('corin');
        $owner->see('Your projects');
        $this->check($owner, 'projects');
        $at($owner, '/account')->see('Where you are signed in');
        $this->check($owner, 'account');
        $at($owner, '/installation')->click('button', 'New project')->see('Make the project');
        $this->check($owner, 'installation');
        $at($owner, '/HBR/today')->see('First steps');
        $this->check($owner, 'first steps');
        $at($owner, '/SKR/setup/people')->click('button', 'Take out …')->see('on purpose');
        $this->check($owner, 'people, as an admin');
        $owner->leave();
    }
}
