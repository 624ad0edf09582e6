<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Core\Access\Totp;
use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;

/**
 * A team moves in.
 */
final class TeamTest extends BrowserTestCase
{
    private const PASSWORD = 'four lanterns on the quay';

    public function test_from_the_printed_address_to_the_first_verdict_of_somebody_invited(): void
    {
        $this->value('update users set is_owner = false');
        self::assertSame(1, preg_match('~(/begin#\w+)~', $this->artisan('lucid:owner'), $printed));
        $ada = $this->tester();
        $ada->open($printed[1] ?? '')->see('The first owner');
        $this->check($ada, 'the first owner');
        $ada->type('#name', 'Ada Grove')
            ->type('#email', 'ada@bakery.test')
            ->type('#new-password', 'short')
            ->see('7 more characters')
            ->press(Key::ENTER)
            ->see('Use at least 12 characters.');
        $ada->type('#new-password', self::PASSWORD)->press(Key::ENTER)->see('Installation', 'h1');
        $ada->click('button', 'New project')->type('#project-name', 'The bakery')->see('cases are BAK-C1');
        $this->check($ada, 'a new project');
        $ada->press(Key::ENTER)->see('Whoever leaves stays by name')->see('Ada Grove (you)');
        self::assertSame('/BAK/setup/people', $ada->path());
        $ada->type('#invited', "Ben Holm <ben@bakery.test>\nNobody in particular")
            ->click('button', 'Invite')
            ->see('There is no mail address in this line.')
            ->see('ben@bakery.test', 'table');
        $this->check($ada, 'people and invitations');
        $ada->click('button', 'Copy the address')->waitFor('p.mono');
        $invited = (string) parse_url($ada->text('p.mono'), \PHP_URL_PATH) . '#' . parse_url($ada->text('p.mono'), \PHP_URL_FRAGMENT);
        $ada->see('Sent', 'table');
        $this->plan($ada);

        $ben = $this->tester();
        $ben->open($invited)->see('Join The bakery')->see('Ada Grove invites ben@bakery.test as tester');
        $this->check($ben, 'an invitation');
        $ben->type('#new-password', self::PASSWORD)->press(Key::ENTER)->see('1 entry in 1 cycle can be taken');
        $this->check($ben, 'the first day of a tester');
        $ben->press(Key::ENTER)->see('Step 1 of 2')->press('1')->see('Step 2 of 2');
        $ben->until(
            'for the verdict to arrive',
            fn(): bool => 'pass' ===
                $this->value(
                    "select s.verdict from step_results s join rounds r on r.id = s.round_id join attempts a on a.id = r.attempt_id
                    join users u on u.id = a.tester_id where u.email = 'ben@bakery.test' and s.position = 1",
                ),
        );
        // Opened again it leads on; to anybody else it says that it was used.
        $ben->open($invited)->see('Today', 'h1');
        $this->tester()->open($invited)->see('This invitation was accepted already.');
        // The lead saw it all without touching the page.
        $ada->open('/BAK/today')->see('Ben Holm', '[aria-label="Walking now"]')->see('1 of 2 steps');
        $this->check($ada, 'the day of a lead');
    }

    public function test_whoever_forgot_sets_another_password_and_is_in(): void
    {
        $me = $this->tester();
        $me->open('/sign-in')->click('a', 'Forgot your password?')->see('Another password');
        $this->check($me, 'another password');
        $me->type('#email', 'tobias@skerrywick.test')->press(Key::ENTER)->see('a mail is on its way');
        $mail = (string) $this->value("select text from caught_mails where \"to\" = 'tobias@skerrywick.test' order by id desc limit 1");
        self::assertSame(1, preg_match('~(/begin#\w+)~', $mail, $link));
        $me->open($link[1] ?? '')
            ->see('Another password')
            ->type('#new-password', self::PASSWORD)
            ->press(Key::ENTER)
            ->see('Retests asked of you');
        $other = $this->tester();
        $other->open($link[1] ?? '')->see('This address does not work any more');
        $other->open('/sign-in')->type('#email', 'tobias@skerrywick.test')->type('#password', 'lantern-on-the-path')->press(Key::ENTER);
        $other->see('do not belong together');
    }

    public function test_a_second_factor_is_set_up_asked_for_and_a_session_elsewhere_is_ended(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->click('.person button')->click('.menu a', 'Your account')->see('Only your password is asked for.');
        $me->click('button', 'Set one up')->waitFor('.qr svg');
        $this->check($me, 'setting up a second factor');
        $secret = str_replace(' ', '', $me->text('.factor .mono'));
        $me->type('#factor-code', '000000')->click('button', 'Ask for it')->see('This is not the code of now.');
        $me->type('#factor-code', $this->code($secret))->click('button', 'Ask for it')->see('Keep these codes.');
        $this->check($me, 'recovery codes');
        $codes = explode("\n", $me->text('[aria-label="Recovery codes"]'));
        self::assertCount(10, $codes);
        $me->click('button', 'I have kept them')->see('10 recovery codes are left');

        $other = $this->tester();
        $other->open('/sign-in')->type('#email', 'tobias@skerrywick.test')->type('#password', 'lantern-on-the-path')->press(Key::ENTER);
        $other->waitFor('#code');
        $this->check($other, 'a code is asked for');
        $other->type('#code', $codes[4])->press(Key::ENTER)->see('Retests asked of you');

        $me->reload()->see('9 recovery codes are left')->see('(this one)')->click('table button', 'Sign out')->see('Signed out there.');
        $this->check($me, 'account');
        $other->reload()->see('Sign in to walk your cycles.');
        $me->click('button', 'Drop it')->type('#drop-password', 'lantern-on-the-path')->click('button', 'Ask for it no more');
        $me->see('Only your password is asked for.');
    }

    private function code(string $secret): string
    {
        return Totp::code($secret, intdiv(time(), Totp::PERIOD));
    }

    public function test_a_project_is_archived_and_everybody_sees_it_stay_as_it_is(): void
    {
        $owner = $this->tester()->signIn('corin');
        $owner->see('Your projects')->click('a', 'Installation')->click('button[aria-label="Archive Skerrywick Ferries"]')->see('Undo');
        $me = $this->tester()->signIn('tobias');
        $me->see('Your projects')->click('a', 'Skerrywick Ferries')->see('This project is archived')->see('Start SKR-C13');
        $me->press(Key::ENTER)->see('is archived: it can be read and not changed');
        $owner->click('button', 'Undo')->see('is taken up again');
        $me->reload()->see('Start SKR-C13')->seeNot('This project is archived')->press(Key::ENTER)->see('Step 1 of 5');
    }

    public function test_a_project_says_what_readers_see_and_who_comes_in(): void
    {
        $admin = $this->tester()->signIn('corin');
        $admin->open('/SKR/setup/people')->see('7 here have none yet.')->click('#second_factor_required');
        $admin->see('Set a second factor up for yourself first', '[role=alert]');
        $admin->click('#readers_see_evidence')->see("–\tyes\tyes\tyes\tyes", '[aria-label="Who may what"] tbody tr:nth-child(2)');
        $this->check($admin, 'who may what');
        $reader = $this->tester()->signIn('edda');
        $reader->see('Release 4.2')->seeNot('Defects', '[aria-label="Areas"]');
        $reader->open('/SKR/cycles/SKR-R2')->see('SKR-C13')->see('A tester')->seeNot('Tobias Reyle');
        $admin->click('#readers_see_evidence')->see("yes\tyes\tyes\tyes\tyes", '[aria-label="Who may what"] tbody tr:nth-child(2)');
        $reader->reload()->see('Tobias Reyle')->see('Defects', '[aria-label="Areas"]');
        // Somebody who has a second factor asks for one: whoever has none is told where to set it up.
        $this->value("update users set totp_confirmed_at = now() where email = 'corin@skerrywick.test' returning 1");
        $admin->reload()->see('6 here have none yet.')->click('#second_factor_required');
        $asked = "select access ->> 'second_factor_required' from projects where code = 'SKR'";
        $admin->until('for it to be kept', fn(): bool => 'true' === $this->value($asked));
        // Whoever is in sees it with the next thing they read.
        $reader->click('nav a', 'Casebook')->see('Skerrywick Ferries asks for a second factor');
        $reader->reload()->see('Skerrywick Ferries asks for a second factor')->click('main a', 'Your account')->see('Set one up');
    }

    public function test_an_archived_project_is_deleted_by_its_name_and_nothing_else_goes(): void
    {
        $owner = $this->tester()->signIn('corin');
        $owner->open('/installation')->click('button[aria-label="Archive Harbour office"]')->see('Undo');
        $owner->click('button[aria-label="Delete … Harbour office"]')->see('go for good');
        $this->check($owner, 'deleting a project');
        $owner->type('table form input', 'Harbour')->press(Key::ENTER)->see('go for good');
        $owner->type('table form input', 'Harbour office')->click('button', 'Delete it')->see('Harbour office is deleted.');
        $owner->see('was deleted by Corin Vale', '[aria-label="Deleted projects"]');
        $owner->until('for its rows to go', fn(): bool => 0 === $this->value("select count(*) from projects where code = 'HBR'"));
        $owner->click('button', 'Write a file')->see('Works. Wrote a file');
        $owner->click('button', 'Send me a mail')->see('Works. Handed over');
        $owner->open('/SKR/today')->see('Release 4.2');
    }

    public function test_what_was_being_written_waits_locked_for_whoever_signed_out(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->open('/SKR/casebook/new')->type('#case-title', 'Half a case');
        $me->until('for the draft to be kept', static fn(): bool => [] !== preg_grep('/^draft:case/', $me->kept()));
        $me->click('.person button')->click('.menu button', 'Sign out')->see('1 text being written stays on this device');
        self::assertSame([], preg_grep('/^draft:/', $me->kept()));
        self::assertNotSame([], preg_grep('/^sealed:/', $me->kept()));
        $me->type('#email', 'anouk@skerrywick.test')->type('#password', 'lantern-on-the-path')->press(Key::ENTER)->see('Today', 'h1');
        $me->open('/SKR/casebook/new')->see('New case')->seeNot('Half a case');
        $me->click('.person button')->click('.menu button', 'Sign out')->see('Sign in to walk your cycles.');
        $me->type('#email', 'tobias@skerrywick.test')->type('#password', 'lantern-on-the-path')->press(Key::ENTER)->see('Today', 'h1');
        $me->open('/SKR/casebook/new');
        $title = "return document.querySelector('#case-title')?.value";
        $me->until('for the draft to be back', static fn(): bool => 'Half a case' === $me->script($title));
    }

    /**
     * A case and a released cycle with it, over the API with the session of the page.
     */
    private function plan(Tester $me): void
    {
        $send = static fn(string $path, array $body): mixed => $me->script(
            "const r = new XMLHttpRequest(); r.open('POST', '/api/v1' + arguments[0], false);
            r.setRequestHeader('Accept', 'application/json'); r.setRequestHeader('Content-Type', 'application/json');
            r.setRequestHeader('X-XSRF-TOKEN', decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]));
            r.send(JSON.stringify(arguments[1])); return JSON.parse(r.responseText || '{}');",
            $path,
            $body,
        );
        $steps = [
            ['action' => 'Order two rolls', 'data' => '', 'expected' => 'Two rolls'],
            ['action' => 'Pay', 'data' => '', 'expected' => 'Paid'],
        ];
        $case = $send('/projects/BAK/cases', ['title' => 'Rolls are sold', 'steps' => $steps])['case']['id'];
        $days = ['starts_on' => date('Y-m-d'), 'ends_on' => date('Y-m-d', time() + 172_800)];
        $cycle = $send('/projects/BAK/cycles', ['name' => 'First bake', ...$days, 'picks' => ['cases' => [$case]]])['cycle']['key'];
        $send("/cycles/{$cycle}/moves", ['to' => 'released']);
    }
}
