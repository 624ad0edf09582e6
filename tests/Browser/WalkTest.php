<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\WalkTestCase;

/**
 * The walk in full: sheet, rounds, retests, the small window, lists.
 */
final class WalkTest extends WalkTestCase
{
    public function test_the_sheet_judges_several_steps_at_once_and_a_try_is_counted(): void
    {
        $me = $this->begin();
        $me->press('t', 'T', 't')->see('fails 2 of 3')->press('.')->waitFor('table.lines');
        $me->press('x', 'j', 'j', 'X')->see('3 steps marked')->press('1');
        $me->until(
            'for three passes',
            fn(): bool => 3 ===
                $this->value(
                    'select count(*) from step_results s join rounds r on r.id = s.round_id join attempts a on a.id = ' .
                        "r.attempt_id where a.state = 'open' and a.number = 2 and s.verdict = 'pass'",
                ),
        );
        $me->press('2', Key::ENTER)
            ->see('Say what happened instead.')
            ->press('The fare is 6.20.', Key::ENTER)
            ->see('The fare is 6.20.', 'table');
        $me->press('.')->see('Step 5 of 5')->press('k')->see('Happened instead')->see('The fare is 6.20.', '.two');
        self::assertSame(
            '2 of 3',
            $this->value(
                "select tries_failed || ' of ' || tries from step_results s join rounds r on r.id = s.round_id join " .
                    "attempts a on a.id = r.attempt_id where a.state = 'open' and a.number = 2 and s.position = 1",
            ),
        );
        $me->press('a')->see('A better wording')->press('Is 16 half fare or not?')->chord(Key::CONTROL, Key::ENTER)->see('Asked.');
        $me->until(
            'for the question',
            fn(): bool => 1 === $this->value("select count(*) from case_messages where body like '%Is 16 half fare or not?'"),
        );
    }

    public function test_rounds_have_their_own_values_and_are_left_out_and_repeated(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->open('/SKR/cycles/SKR-R3')
            ->click('.list a', 'The fare of a vehicle follows its length')
            ->click('button', 'Go on')
            ->see('Round 3 of 5');
        $me->see('5.00', '.rounds')->see('Step 1 of')->press('j', 'j')->see('Vehicle of');
        $me->press('v')->see('copied', '.lit .copied');
        self::assertSame('5.00', $me->script('return navigator.clipboard.readText()'));
        $me->press('1', '2')->press('It costs 56.00.', Key::ENTER);
        $me->click('.rounds button', 'Walk it once more')->see('Round 6 of 6')->see('Once more what round 3 walked');
        $me->press('{', '{')
            ->see('Round 4 of 6')
            ->click('.rounds button', 'Leave this round out')
            ->press('No such vehicle', Key::ENTER)
            ->see('Saved', 'header');
        $me->until(
            'for both',
            fn(): bool => 'No such vehicle' ===
                $this->value(
                    "select r.skipped from rounds r join attempts a on a.id = r.attempt_id where a.state = 'open' and r.position = 4",
                ) &&
                3 ===
                    $this->value(
                        "select r.repeats from rounds r join attempts a on a.id = r.attempt_id where a.state = 'open' and r.position = 6",
                    ),
        );
    }

    public function test_the_small_window_is_the_same_walk(): void
    {
        $me = $this->begin();
        $me->click('.ways button', 'Companion');
        $me->until('for the small window', fn(): bool => 2 === $me->windows());
        $me->toWindow(1)->see('Step 1 of 5');
        $this->check($me, 'the small window');
        $me->press('1')->see('Step 2 of 5')->press('2')->press('Seen in the small window')->press(Key::ENTER)->see('Step 3 of 5');
        $me->toWindow(0)->see('Step 3 of 5')->see('Seen in the small window', '.lane');
        $me->until(
            'for both verdicts',
            fn(): bool => 2 ===
                $this->value(
                    "select count(*) from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and " .
                        "a.number = 2 and e.kind = 'verdict_given'",
                ),
        );
    }

    public function test_a_retest_shows_what_the_attempt_before_recorded_of_each_step(): void
    {
        $me = $this->begin();
        $me->see('in attempt 1, build 4.2.0-5', '.earlier')
            ->press('j', 'j', 'j')
            ->see('Step 4 of 5')
            ->see('A passenger of 16 still pays 6.20.', '.lit .earlier')
            ->see('SKR-D2', '.lit .earlier')
            ->waitFor('.lit .earlier img');
        $this->check($me, 'a step of a retest');
        $me->press('j')->see('Nothing recorded here in attempt 1', '.lit .earlier');
        $me->press('.')->see('Attempt 1', 'thead')->see('A passenger of 16 still pays 6.20.', 'td.then');
        $this->check($me, 'the sheet of a retest');
        // While the server is away it is still there.
        $me->press('.')->see('Step 5 of 5');
        $this->serverDown();
        $me->press('k')->see('A passenger of 16 still pays 6.20.', '.lit .earlier');
    }

    public function test_other_days_of_a_cycle_are_told_until_they_were_seen(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Since you looked last')->see('It ends on', '.news')->click('.news a', 'SKR-R2')->see('Tobias Reyle');
        $me->click('nav a', 'Today')->see('It ends on', '.news')->press('x')->seeNot('Since you looked last');
        self::assertSame(
            0,
            $this->value(
                'select count(*) from memberships m join users u on u.id = m.user_id join projects p on p.id = ' .
                    "m.project_id where u.email = 'tobias@skerrywick.test' and p.code = 'SKR' and today_seen_at < now() - " .
                    "interval '1 hour'",
            ),
        );
    }

    public function test_known_defects_first_a_time_away_asked_and_taking_over_with_a_word(): void
    {
        $me = $this->begin();
        $me->press('j', 'j', 'j')->see('Step 4 of 5')->press('2')->see('Known at this step')->see('SKR-D2', '.known');
        $me->press('Still 6.20.')->click('.known button', 'It is this one')->see('SKR-D2', '.tray')->see('Step 5 of 5');
        $me->until(
            'for the link',
            fn(): bool => 1 ===
                $this->value(
                    "select count(*) from defect_links l join attempts a on a.id = l.attempt_id where a.state = 'open' and " .
                        'a.number = 2 and l.step = 4',
                ),
        );
        // Half an hour without a sign: it is asked, not guessed.
        $me->script(
            'const real = Date.now; const from = real(); Date.now = () => real() + 1_800_000; setTimeout(() => ' .
                "window.dispatchEvent(new Event('focus')), 50)",
        );
        $me->see('You were away for 30m')->click('.band button', 'None')->seeNot('You were away');
        $me->until(
            'for the answer',
            fn(): bool => '0' === (string) $this->value("select payload->>'counted_ms' from events where kind = 'away_decided'"),
        );
        $me->press('n')->press('Half a tho');
        $you = $this->tester()->signIn('anouk');
        $you->open((string) $me->path())
            ->see('Tobias Reyle is walking this attempt')
            ->click('.band button', 'Take it over')
            ->press('Go home, I finish it', Key::ENTER);
        $you->waitFor('.give');
        $me->see('Anouk Sorrel is walking this attempt')->see('Go home, I finish it');
        self::assertSame('Half a tho', $me->script("return document.querySelector('.note').value"));
    }

    public function test_verdicts_from_the_list_and_an_outage_on_many(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->open('/SKR/cycles/SKR-R2?shows=not_run&who=' . $this->value("select id from users where email = 'tobias@skerrywick.test'"))
            ->see('SKR-C19')
            ->press('x')
            ->click('.judge button', 'Choose all of the list')
            ->see('entries chosen')
            ->click('.judge .give', 'Blocked')
            ->waitFor('#list-note');
        $me->press('a', Key::ENTER)
            ->see('Say in a few words why')
            ->type('#list-note', 'The booking server is down')
            ->press(Key::ENTER)
            ->see('judged blocked from the list');
        self::assertGreaterThan(2, $this->value("select count(*) from attempts where from_list and verdict = 'blocked'"));
        $me->open('/SKR/today')
            ->see('Start SKR-C13')
            ->press(Key::ENTER)
            ->see('Step 1 of')
            ->press('3')
            ->click('.also button', 'The same outage')
            ->see('of your other entries', '.also');
    }
}
