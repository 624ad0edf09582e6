<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

final class StoryTest extends BrowserTestCase
{
    public function test_from_signing_in_to_a_filed_defect_on_the_leads_board_by_keyboard(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead->open('/SKR/cycles/SKR-R2')->see('SKR-C13');
        $lead->see('Retest (was fail)');

        $me = $this->tester();
        $me->open('/SKR/today')->waitFor('#email');
        $me->script("document.querySelector('#email').focus()");
        $me->press('tobias@skerrywick.test', Key::TAB, 'lantern-on-the-path', Key::ENTER);
        $me->see('Retests asked of you')->see('Build 4.2.0-7 has the corrected bands');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->see('attempt 2');
        self::assertSame('Retest:', trim((string) $me->script("return document.querySelector('.band strong').textContent")));

        $me->press('1')->see('Step 2 of 5')->press('1')->see('Step 3 of 5');
        $me->press('n', 'Half fare as before', Key::ESCAPE)->press('1')->see('Step 4 of 5');
        $me->press('2', Key::ENTER)->see('Say what happened instead.');
        $me->press('A passenger of 16 pays 6.20.')->pastePicture()->see('pasted-', '.tray');
        $me->see('Saved', '.tray figcaption');
        $me->chord(Key::CONTROL, Key::ENTER)->see('Defect from step 4');
        $me->until(
            'for the draft',
            fn(): bool => str_contains(
                (string) $me->script("return document.querySelector('#defect-title')?.value ?? ''"),
                'A passenger of 16 pays 6.20',
            ),
        );
        self::assertStringContainsString(
            '4. Change the age to 16.',
            (string) $me->script("return document.querySelector('#defect-steps').value"),
        );
        $me->chord(Key::CONTROL, Key::ENTER)->see('SKR-D43', '.tray')->see('Step 4 of 5');
        $me->press('j', '1')->see('Finish this attempt');
        $me->press(Key::ENTER);
        $me->seeNot('Finish this attempt')->see('Step ');

        // The lead has not touched the page.
        $lead->until(
            'for the fail on the board',
            fn(): bool => str_contains(
                (string) $lead->script(
                    "return [...document.querySelectorAll('.list .line')].find((r) => r.textContent.includes('SKR-C13')).innerText",
                ),
                'Fail',
            ),
        );
        $lead
            ->click('.list a', 'A passenger of 15')
            ->see('Instead: A passenger of 16 pays 6.20.')
            ->see('Note: Half fare as before')
            ->see('SKR-D43')
            ->see('Sealed');
        $lead->open('/SKR/defects/SKR-D43')->see('A passenger of 16 pays 6.20')->see('SKR-C13 step 4')->see('Tobias Reyle');
        $lead->open('/SKR/casebook/SKR-C13')->see('SKR-D43');
        self::assertSame(
            'fail',
            $this->value(
                'select verdict from attempts a join entries e on e.id = a.entry_id join cases c on c.id = e.case_id ' .
                    "where c.key = 'SKR-C13' and a.number = 2",
            ),
        );
    }

    public function test_a_reload_in_mid_walk_loses_nothing(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('1')->see('Step 2 of 5');
        $me->press('2')->press('Half a senten');
        usleep(400_000);
        $me->reload()->see('Step 2 of 5');
        $me->until('for the words', fn(): bool => $me->script("return document.querySelector('#happened')?.value") === 'Half a senten');
        $me->open('/SKR/today')->see('Go on with SKR-C13');

        // Another device goes on at the same step.
        $other = $this->tester()->signIn('tobias');
        $other->see('Go on with SKR-C13')->press(Key::ENTER)->see('Step 2 of 5')->see('attempt 2');
    }

    public function test_verdicts_are_taken_back_blocked_wants_a_reason_and_an_overruled_end_a_word(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('3', Key::ENTER)->see('Say why it is blocked.');
        $me->press('Data missing', Key::ENTER)->see('Step 2 of 5')->see('Data missing', '.lane li');
        $me->press('0')->see('Step 1 of 5');
        $me->until('for the mark to go', fn(): bool => $this->value("select count(*) from events where kind = 'verdict_taken_back'") === 1);
        $me->press('4', '1', '1', '1', '1')->see('Finish this attempt')->see('by the steps');
        $me->click('.choice', 'Blocked');
        $me->click('button', 'Finish and go on')->see('Say in a few words why it is blocked');
        $me->type('#final-note', 'The gate was shut')->type('#final-time', 'soon')->press(Key::ENTER)->see('Write it like 90s');
        $me->type('#final-time', '1h 20m')->press(Key::ENTER)->seeNot('Finish this attempt');
        $me->until(
            'for the end',
            fn(): bool => $this->value("select max(corrected_ms) from attempts where state = 'finished'") === 4_800_000,
        );
        self::assertTrue(
            $this->value("select overruled and roll_up = 'pass' and verdict = 'blocked' from attempts where corrected_ms is not null"),
        );
    }

    public function test_an_existing_defect_is_linked_by_its_words(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('d')->see('Defect from step 1');
        $me->type('#defect-words', 'tide exactly')->see('SKR-D4', '.known')->click('.known button', 'Link it');
        $me->see('SKR-D4', '.tray')->seeNot('Defect from step 1');
        $me->until(
            'for the link',
            fn(): bool => $this->value(
                'select count(*) from defect_links l join defects d on d.id = l.defect_id join attempts a on a.id = ' .
                    "l.attempt_id where d.key = 'SKR-D4' and a.state = 'open' and l.step = 1",
            ) === 1,
        );
    }

    public function test_a_clean_pass_needs_no_wrap_up_where_the_project_says_so_and_time_is_corrected_later(): void
    {
        $this->value(
            "update projects set policies = '{\"skip_wrap_up_on_pass\": true, \"after_finishing\": \"next_in_order\"}' where code = 'SKR'",
        );
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')
            ->press(Key::ENTER)
            ->see('Step 1 of 5')
            ->press('1')
            ->see('Step 2 of 5')
            ->press('1')
            ->see('Step 3 of 5')
            ->press('1')
            ->see('Step 4 of 5')
            ->press('1')
            ->see('Step 5 of 5')
            ->press('1');
        $me->see('SKR-C14', '.title-line')
            ->click('button', 'Correct the time')
            ->type('#correct-time', 'soon')
            ->click('button', 'Correct it')
            ->see('Write it like 90s');
        $me->type('#correct-time', '1h 20m')->click('button', 'Correct it')->see('1h 20m, corrected from');
        self::assertSame(
            'pass',
            $this->value(
                'select verdict from attempts a join entries e on e.id = a.entry_id join cases c on c.id = e.case_id ' .
                    "where c.key = 'SKR-C13' and a.number = 2",
            ),
        );
    }

    public function test_a_warned_entry_asks_for_a_word_and_starting_again_abandons(): void
    {
        $this->value("update cycles set conditions_hold = false where key = 'SKR-R2'");
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->click('.cycle .title', 'Group of 7 islanders')->see('Step 1 of');
        $me->open('/SKR/today')
            ->see('Start SKR-C13')
            ->click('.cycle .title', 'child and a senior')
            ->see('Why walk it now?')
            ->see('waits for SKR-C17');
        $me->click('button', 'Walk it')->see('Say in a word why you walk it now.');
        $me->type('#walk-word', 'Agreed with Maren')->click('button', 'Walk it')->see('Step 1 of')->press('1')->see('Step 2 of');
        $me->until(
            'for the verdict',
            fn(): bool => $this->value("select count(*) from attempts where override_reason = 'Agreed with Maren' and has_verdict") === 1,
        );
        $entry = $this->value(
            "select e.id from entries e join attempts a on a.entry_id = e.id where a.override_reason = 'Agreed with Maren'",
        );
        $me->open("/SKR/entries/{$entry}")
            ->click('button', 'Start again')
            ->see('Step 1 of')
            ->see('attempt 2');
        self::assertSame(
            1,
            $this->value("select count(*) from attempts where override_reason = 'Agreed with Maren' and state = 'abandoned'"),
        );
    }
}
