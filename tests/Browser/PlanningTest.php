<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;

/**
 * A lead plans a cycle, gets it into order, hands it out, releases and closes it.
 */
final class PlanningTest extends BrowserTestCase
{
    public function test_a_cycle_is_planned_from_the_casebook_handed_out_released_and_closed(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead->open('/SKR/casebook?priority=critical&state=approved')->see('SKR-C1');
        $lead->click('[role=columnheader] input, thead input', '')->see('chosen')->press('p');
        $lead->see('New cycle')->see('from the casebook')->see('entries, about');
        $lead->see('4.2.0-7 (release 4.2)');
        $chosen = (int) $lead->script('return parseInt(document.querySelector(".sum strong").textContent)');
        self::assertGreaterThan(3, $chosen);
        // What was typed survives a reload; a wrong date is told at once.
        $lead->type('#cycle-name', 'Smoke before the ferry leaves');
        usleep(300_000);
        $lead->reload()->waitFor('#cycle-name');
        $lead->until(
            'for the name',
            fn(): bool => 'Smoke before the ferry leaves' === $lead->script('return document.querySelector("#cycle-name").value'),
        );
        $this->date($lead, 1, '2020-01-01');
        $lead->see('It would end before it starts.');
        $this->date($lead, 1, date('Y-m-d', time() + 4 * 86_400));
        $lead->seeNot('It would end before')->click('button', 'Make the cycle')->see('Ask for a review');
        self::assertSame('/SKR/cycles/SKR-R5/plan', $lead->path());
        self::assertSame($chosen, $this->value("select count(*) from entries e join cycles c on c.id = e.cycle_id where c.key = 'SKR-R5'"));

        // Handed out by keys, seen before it is done, and undone.
        $lead
            ->press('h')
            ->see('Hand out what is nobody’s')
            ->click('.panel button', "Hand out {$chosen} entries")
            ->see("Handed out {$chosen} entries to 3 people");
        $lead->until(
            'for it',
            fn(): bool => 0 ===
                $this->value(
                    "select count(*) from entries e join cycles c on c.id = e.cycle_id where c.key = 'SKR-R5' and assignee_id is null",
                ),
        );
        $lead->click('.notice button, [role=status] button, .bar button', 'Undo')->see('Undone: handed out');
        $lead->until(
            'for it to be back',
            fn(): bool => $chosen ===
                $this->value(
                    "select count(*) from entries e join cycles c on c.id = e.cycle_id where c.key = 'SKR-R5' and assignee_id is null",
                ),
        );

        // A condition on the first entry puts it out of order; one click mends it, Alt and an arrow moves it again.
        $lead->press('j')->see('Waits for');
        $first = $this->order()[0];
        $lead->type('.tray [aria-label="The entry it waits for"]', $this->third())->see('#3', '.p-autocomplete-overlay');
        $lead->click('.p-autocomplete-overlay [role=option]', '#3')->click('.tray button', 'Set the condition')->see('Set “only if');
        $lead->see('entry stands before what it depends on')->click('.fault .link', 'Put them behind')->see('Put what waits behind');
        $lead->until('for the order', fn(): bool => $first === $this->order()[2]);
        $lead->seeNot('stands before what');
        // A move goes by what one sees.
        $key = $this->value("select c.key from cases c join entries e on e.case_id = c.id where e.id = '{$first}'");
        $third = "return document.querySelectorAll('.body [role=row]')[2]?.innerText ?? ''";
        $lead->until('for the order in the list', static fn(): bool => 1 === preg_match("/{$key}\\b/", (string) $lead->script($third)));
        $lead->held([Key::ALT], Key::ARROW_DOWN);
        $lead->until('for the move', fn(): bool => $first === $this->order()[3]);
        $lead->open('/SKR/cycles/SKR-R5/paths')->see('6 entries joined by conditions');

        // Released, and closed with a word: the watchers are told, also by mail.
        $lead->open('/SKR/cycles/SKR-R5/plan')->click('button', 'Release')->see('Released');
        $lead->click('.tools .link', 'Dates, build, people')->waitFor('#cycle-name');
        $this->value(
            "insert into cycle_people (cycle_id, user_id, part, position) select c.id, u.id, 'watcher', 0 from " .
                "cycles c, users u where c.key = 'SKR-R5' and u.email = 'lina@skerrywick.test' returning 1",
        );
        $lead->click('.title-line button', 'Close')->see('its watchers are told')->press('The ferry leaves', Key::ENTER)->see('Closed');
        $lead->open('/SKR/cycles/SKR-R5/log')->see('Closed the cycle')->see('The ferry leaves');
        $lead->until(
            'for the mail',
            fn(): bool => 1 ===
                $this->value('select count(*) from caught_mails where text like \'Smoke before the ferry leaves was closed%\''),
        );
        $lead
            ->open('/mail')
            ->see('a cycle ended')
            ->see('Smoke before the ferry leaves was closed by Maren Voss')
            ->see('lina@skerrywick.test');
        $lina = $this->tester()->signIn('lina');
        $lina->click('.bell button', 'Notices')->see('was closed by Maren Voss: The ferry leaves');
    }

    public function test_two_leads_meet_and_what_one_typed_stays(): void
    {
        $one = $this->tester()->signIn('maren');
        $this->value(
            "update memberships set role = 'lead' where user_id = (select id from users where email = 'anouk@skerrywick.test') returning 1",
        );
        $two = $this->tester()->signIn('anouk');
        foreach ([$one, $two] as $who) {
            $who->open('/SKR/cycles/SKR-R4/plan')->click('.tools .link', 'Dates, build, people')->waitFor('#cycle-name');
        }
        $two->type('#cycle-name', 'Last look of all')->click('.facts .link', 'Save')->see('Saved.');
        $one->type('textarea', 'What I typed')
            ->click('.facts .link', 'Save')
            ->see('The plan was changed since you opened it by Anouk Sorrel');
        self::assertSame('What I typed', $one->script('return document.querySelector(".facts textarea").value'));
        $one->click('.facts .link', 'Save mine all the same')->see('Saved.');
        self::assertSame('What I typed', $this->value("select description from cycles where key = 'SKR-R4'"));
    }

    public function test_short_of_time_shows_what_is_left_out_and_applies_it(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead->open('/SKR/cycles/SKR-R4/plan')->see('entries')->press('s')->see('Walk, in this order')->see('of the risk');
        $lead->type('.panel .time input', 'soon')->press(Key::ENTER)->see('Write the time like 4h');
        $lead->type('.panel .time input', '20m')->press(Key::ENTER)->see('left out');
        $lead->until(
            'for a short list',
            fn(): bool => (int) $lead->script('return document.querySelectorAll(".two > div:first-child li").length') < 20,
        );
        $in = (int) $lead->script('return document.querySelectorAll(".two > div:first-child li").length');
        $lead->click('button', 'Order and assign by this')->see("Planned for 20m: {$in} in");
        $lead->until(
            'for it',
            fn(): bool => $in <=
                $this->value(
                    'select count(*) from (select * from entries e where cycle_id = (select id from cycles where key = ' .
                        "'SKR-R4') order by position limit {$in}) x where assignee_id is not null",
                ),
        );
    }

    public function test_a_changed_case_is_seen_and_taken_and_a_fail_stops_what_needs_it(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead
            ->open('/SKR/cycles/SKR-R2/plan?outdated=yes')
            ->see('changed')
            ->click('.line', '')
            ->click('.tray .link', 'See what changed')
            ->see('What changed in the case')
            ->click('button', 'Take the new version')
            ->see('taken.');
        $piet = $this->tester()->signIn('piet');
        $piet->open('/SKR/cycles/SKR-R2')->click('.list a', 'Vehicle of 5.00 m')->see('2 entries wait on it');
        $lead->open('/SKR/queue')->see('May I use the 16:40 sailing')->click('section .link', 'Looked at')->seeNot('May I use the 16:40');
    }

    public function test_axes_a_milestone_again_a_sign_off_and_a_comparison(): void
    {
        $lead = $this->tester()->signIn('maren');
        // What the axes give follows what is typed; nothing is written before it is saved.
        $lead->open('/SKR/setup/planning')->see('All combinations: 10')->see('14 pairs')->click('.axis .link', 'Add a value');
        $lead->type('[aria-label="Value 4 of Device"]', 'Kiosk')->see('All combinations: 16');
        self::assertSame(3, $this->value("select count(*) from axis_values v join axes a on a.id = v.axis_id where a.name = 'Device'"));
        $lead
            ->click('button', 'Save the axes')
            ->see('Axes saved.')
            ->click('.link', 'Make those for all pairs')
            ->see('Configurations made.')
            ->see('0 pairs');
        $lead->click('tr .link', 'Take out')->see('stays: it is used by');

        // A milestone with a date too early for nothing, and all of another one again, four weeks later.
        $lead->open('/SKR/cycles')->click('button', 'New milestone')->type('[aria-label="Milestone"] input', 'summer timetable');
        $this->date($lead, 0, '2027-03-01');
        $lead->click('button', 'Save the milestone')->see('There is a milestone called “summer timetable”.');
        $lead
            ->type('[aria-label="Milestone"] input', 'Winter timetable')
            ->click('button', 'Save the milestone')
            ->seeNot('Save the milestone')
            ->see('Winter timetable');
        $lead
            ->click('[aria-label="Summer timetable again"]')
            ->see('Will be')
            ->type('[aria-label="This milestone again"] input', 'Autumn timetable');
        $lead
            ->see('Autumn timetable, last look', '[aria-label="This milestone again"]')
            ->click('button', 'Make it')
            ->see('Autumn timetable is there, with 3 cycles as drafts.');
        self::assertSame(
            3,
            $this->value(
                "select count(*) from cycles c join milestones m on m.id = c.milestone_id where m.name = 'Autumn " .
                    "timetable' and c.state = 'draft'",
            ),
        );

        // What is left unwalked is accepted with a word, and named.
        $lead->open('/SKR/cycles/SKR-R2/log')->click('button', 'Sign off')->see('say in a few words why that is all right');
        $lead
            ->type('.sign textarea', 'The tablets are lent out')
            ->click('button', 'Sign off')
            ->see('knowingly left unwalked')
            ->see('The tablets are lent out');
        $lead->open('/SKR/cycles/SKR-R2/compare?with=SKR-R1')->see('no longer walked')->click('.link', 'no longer walked');
        $lead->until('for the address', fn(): bool => str_contains((string) $lead->script('return location.search'), 'is=gone'));
    }

    private function date(Tester $who, int $at, string $date): void
    {
        $who->waitFor('.p-datepicker-input');
        $who->script("document.querySelectorAll('.p-datepicker-input')[arguments[0]].id = 'the-date'", $at);
        $who->type('#the-date', $date)->press(Key::TAB);
    }

    /** The key of the case that the third entry of the new cycle is of. */
    private function third(): string
    {
        return (string) $this->value(
            "select c.key from entries e join cases c on c.id = e.case_id join cycles r on r.id = e.cycle_id where r.key = 'SKR-R5' " .
                'order by e.position limit 1 offset 2',
        );
    }

    /**
     * @return list<string>
     */
    private function order(): array
    {
        return explode(
            ' ',
            (string) $this->value(
                "select string_agg(e.id::text, ' ' order by e.position) from entries e join cycles c on c.id = " .
                    "e.cycle_id where c.key = 'SKR-R5'",
            ),
        );
    }
}
