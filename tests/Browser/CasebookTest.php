<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

final class CasebookTest extends BrowserTestCase
{
    public function test_a_case_is_written_by_keyboard_and_a_reload_gives_the_draft_back(): void
    {
        $me = $this->tester()->signIn('anouk');
        $me->press('g', 'b')->see('New case')->see('SKR-C1')->press('n')->waitFor('#case-title');
        $me->type('#case-title', 'Dogs travel free')->press(Key::ENTER);
        $me->until(
            'for the first cell',
            fn(): bool => 'Action of step 1' === $me->script('return document.activeElement?.getAttribute("aria-label")'),
        );
        $me->press('Open the page', Key::TAB, 'page 1', Key::TAB, 'It opens', Key::ENTER, 'Add a dog', Key::ENTER, 'Pay');
        // The page is loaded again in the middle of it.
        usleep(500_000);
        $me->reload()->see('and did not save is back')->see('Add a dog');
        self::assertSame('Dogs travel free', $me->script('return document.querySelector("#case-title").value'));
        $me->chord(Key::CONTROL, 's')->see('is in the casebook');
        $me->until('for the new address', fn(): bool => '/SKR/casebook/SKR-C72' === $me->path());
        self::assertSame('Open the page|page 1|It opens;Add a dog||;Pay||', $this->steps('SKR-C72'));

        // Rows of a spreadsheet, with a line end in a cell, become steps; they move, double, split and go.
        $me->click('.tail .show')->pasteText("Read the total\t\t\"0.00\nfor the dog\"\nGo on\tno name\tA message\n");
        $me->see('2 steps pasted');
        $me->held([Key::ALT], Key::ARROW_UP);
        $me->held([Key::CONTROL, Key::SHIFT], 'd');
        $me->chord(Key::CONTROL, 's')->see('Saved');
        $me->until(
            'for what was saved',
            fn(): bool => 'Open the page|page 1|It opens;Add a dog||;Pay||;Go on|no name|A message;Go on|no name|A message;Read ' .
                "the total||0.00\nfor the dog" ===
                $this->steps('SKR-C72'),
        );
        $me->held([Key::CONTROL, Key::SHIFT], Key::BACKSPACE);
        $me->see('Step 5 deleted.')->click('.bar .link', 'Undo')->see('The steps are back.');

        // Leaving with something unsaved asks first, and keeps it.
        $me->type('#case-title', 'Dogs and cats travel free')
            ->see('Not saved yet')
            ->click('header nav a', 'Today')
            ->see('This case is not saved')
            ->click('button', 'Go without saving');
        $me->see('Today')->open('/SKR/casebook/SKR-C72')->see('and did not save is back')->click('button', 'Drop it');
        $me->until(
            'for the saved title',
            fn(): bool => 'Dogs travel free' === $me->script('return document.querySelector("#case-title").value'),
        );
    }

    public function test_without_the_server_what_is_typed_stays_and_is_saved_later(): void
    {
        $me = $this->tester()->signIn('anouk');
        $me->open('/SKR/casebook/SKR-C5')->waitFor('#case-title');
        $this->serverDown();
        $me->type('#case-title', 'A passenger needs a name')->chord(Key::CONTROL, 's')->see('The server cannot be reached');
        $me->reload();
        $this->serverUp();
        $me->open('/SKR/casebook/SKR-C5')->see('and did not save is back')->chord(Key::CONTROL, 's')->see('Saved');
        $me->until(
            'for the title',
            fn(): bool => 'A passenger needs a name' === $this->value("select title from cases where key = 'SKR-C5'"),
        );
    }

    public function test_two_saves_meet_in_a_three_way_view(): void
    {
        $me = $this->tester()->signIn('anouk');
        $other = $this->tester()->signIn('maren');
        $me->open('/SKR/casebook/SKR-C7')->waitFor('#case-title');
        $me->type('#case-title', 'My title')->see('Not saved yet');
        $other->open('/SKR/casebook/SKR-C7')->waitFor('#case-title');
        $other->type('#case-title', 'Their title')->chord(Key::CONTROL, 's')->see('Saved');
        $other->click('.tail .show')->press('Their step')->chord(Key::CONTROL, 's');
        $other->until('for their step', fn(): bool => str_contains($this->steps('SKR-C7'), 'Their step'));
        $me->chord(Key::CONTROL, 's')
            ->see('Maren Voss saved this case')
            ->see('1 place was changed by both')
            ->see('Their step')
            ->see('Their title');
        $me->click('button', 'Go on with this')->seeNot('saved this case')->chord(Key::CONTROL, 's')->see('Saved');
        $me->until(
            'for both',
            fn(): bool => 'My title' === $this->value("select title from cases where key = 'SKR-C7'") &&
                str_contains($this->steps('SKR-C7'), 'Their step'),
        );
        self::assertSame(
            '4',
            (string) $this->value("select max(v.number) from case_versions v join cases c on c.id = v.case_id where c.key = 'SKR-C7'"),
        );
    }

    public function test_many_are_found_chosen_changed_and_taken_back(): void
    {
        $me = $this->tester()->signIn('maren');
        $me->open('/SKR/casebook')->see('71 cases')->press('/', 'vehicle length')->see('cases')->seeNot('SKR-C1 ');
        $me->until(
            'for the address',
            fn(): bool => str_contains((string) $me->script('return location.search'), 'q=vehicle+length') ||
                str_contains((string) $me->script('return location.search'), 'q=vehicle%20length'),
        );
        $me->open('/SKR/casebook?label=boundary&priority=medium')->see('Label: boundary')->see('5 cases');
        $me->press('j', 'x', 'j', 'x')
            ->see('2 cases chosen')
            ->click('.bulk .link', 'Choose all 5')
            ->see('5 cases chosen')
            ->click('.bulk .link', 'Edit');
        $me->select('[aria-label="Priority"]', 'Low')
            ->click('button', 'See what changes')
            ->see('5 of 5 change')
            ->see('Priority: Medium → Low')
            ->click('button', 'Change 5 cases')
            ->see('Changed 5 cases');
        self::assertSame('5', (string) $this->value("select count(*) from cases where priority = 'low' and labels @> '[\"boundary\"]'"));
        $me->click('.bar .link', 'Undo')->see('Undone');
        self::assertSame('0', (string) $this->value("select count(*) from cases where priority = 'low' and labels @> '[\"boundary\"]'"));

        // Into another folder by drag, with the folder made on the way; and back out of the bin.
        $me->open('/SKR/casebook?q=dogs')->see('No case fits');
        $me->open('/SKR/casebook')
            ->see('SKR-C2')
            ->click('button', 'New folder')
            ->type('#folder-name', 'Animals')
            ->press(Key::ENTER)
            ->see('Animals');
        $me->script(
            'const data = new DataTransfer(); const row = ' .
                "[...document.querySelectorAll('.line[draggable=true]')].find((r) => r.innerText.includes('SKR-C2')); " .
                "row.dispatchEvent(new DragEvent('dragstart', { dataTransfer: data, bubbles: true })); const folder = " .
                "[...document.querySelectorAll('nav .line')].find((f) => f.innerText.includes('Animals')); " .
                "folder.dispatchEvent(new DragEvent('dragover', { dataTransfer: data, bubbles: true, cancelable: true " .
                "})); folder.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));",
        );
        $me->see('Moved 1 case to Animals');
        self::assertSame('Animals', $this->value("select f.name from cases c join folders f on f.id = c.folder_id where c.key = 'SKR-C2'"));
        $me->open('/SKR/casebook/SKR-C61')->click('.actions .link', 'Bin')->see('SKR-C61 is in the bin');
        $me->open('/SKR/casebook/bin')->see('SKR-C61')->click('.list .link', 'Restore')->see('Restored 1 case');
        self::assertNull($this->value("select binned_at from cases where key = 'SKR-C61'"));
    }

    public function test_a_file_comes_in_and_is_taken_out_again_as_one_act(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'cases') . '.csv';
        file_put_contents(
            $file,
            "Name;Module;Importance;Steps;Result\nBikes on deck;Vehicles and bikes;High;\"1. Open\n2. Add two\";\"1. " .
                "Opens\n2. Two\"\nDogs;Fares;Whenever;1. Add a dog;1. Free\nCats;Fares;Low;Look;Seen\n",
        );
        $me = $this->tester()->signIn('anouk');
        $me->open('/SKR/casebook/import')
            ->see('Bring cases in')
            ->choose('input[type=file]', $file)
            ->see('Make 2 cases')
            ->see('1 left out')
            ->see('"Whenever" is not there.');
        self::assertSame('71', (string) $this->value('select count(*) from cases'));
        // The column is left out by hand: then nothing is refused.
        $me->script(
            "const select = [...document.querySelectorAll('select')].find((s) => " .
                "s.getAttribute('aria-label').includes('Importance')); select.value = ''; select.dispatchEvent(new " .
                "Event('change', { bubbles: true }));",
        );
        $me->see('Make 3 cases')->click('button', 'Make 3 cases')->see('It is all in the casebook.');
        self::assertSame(
            'Open||Opens;Add two||Two',
            $this->steps((string) $this->value("select key from cases where title = 'Bikes on deck'")),
        );
        $me->click('button', 'Undo all of it')->see('Taken out again.');
        self::assertSame('71', (string) $this->value('select count(*) from cases where binned_at is null'));
        unlink($file);
    }

    public function test_steps_become_a_routine_and_values_come_from_a_table(): void
    {
        $me = $this->tester()->signIn('anouk');
        $me->open('/SKR/casebook/SKR-C54')->waitFor('#case-title');
        $me->click('.handle', '1')
            ->click('.handle', '2')
            ->click('.bar .link', 'Make a routine of 2 steps')
            ->type('#routine-name', 'Book and board')
            ->click('button', 'Make it')
            ->see('is a routine now')
            ->see('Book and board', '.routine');
        $me->open('/SKR/casebook/routines')->see('Book and board');

        // A place that the table does not have is told at once, at the step where it stands.
        $me->open('/SKR/casebook/SKR-C68')
            ->see('fare', '.bar')
            ->click('.tail .show')
            ->press('Read {{fair}}')
            ->see('{{fair}} is not known')
            ->click('.p-invalid-words .link', 'Put it in')
            ->seeNot('is not known');
        $me->click('button.link', 'As the tester sees it')
            ->see('Row 1 of 7')
            ->see('Read 32.00')
            ->click('button.link', 'Next row')
            ->see('Read 41.00');

        // A table is pasted from a spreadsheet and kept.
        $me->open('/SKR/casebook/tables/new')
            ->see('Add a column')
            ->type('[aria-label="Name of the data table"]', 'Dogs')
            ->click('#cell-0-0')
            ->pasteText("breed\tweight\nHound\t30\nTerrier\t8\n")
            ->see('2 rows pasted')
            ->click('.title-line button', 'Save')
            ->see('"Dogs" is saved');
        self::assertSame(
            '2',
            (string) $this->value("select count(*) from data_rows r join data_tables t on t.id = r.table_id where t.name = 'Dogs'"),
        );
    }

    public function test_a_review_and_a_suggestion_go_there_and_back(): void
    {
        $author = $this->tester()->signIn('anouk');
        $author
            ->open('/SKR/casebook/SKR-C9')
            ->click('.review .link', 'Ask for approval')
            ->type('.review input', 'Small, but needed')
            ->press(Key::ENTER)
            ->see('Anouk Sorrel asked for approval');
        $lead = $this->tester()->signIn('maren');
        $lead
            ->open('/SKR/casebook/SKR-C9')
            ->see('Small, but needed')
            ->click('.review .link', 'Return')
            ->type('.review input', 'Say which address')
            ->press(Key::ENTER)
            ->see('Maren Voss returned it');
        $author->see('Say which address', '.review');
        $lead
            ->open('/SKR/casebook/desk')
            ->see('I looked for the age in the wrong place.')
            ->click('.card .link', 'Take it')
            ->see('The suggestion is in SKR-C1 now');
        self::assertStringContainsString('Enter the passenger with name and age', $this->steps('SKR-C1'));
        $lead
            ->open('/SKR/casebook/SKR-C1/history')
            ->see('Version 2')
            ->see('Suggestion for step 2 taken')
            ->click('aside .link', 'Bring back')
            ->see('Version 1 is back');
        self::assertStringNotContainsString('with name and age', $this->steps('SKR-C1'));
    }

    public function test_a_live_suite_is_accepted_and_lists_are_edited(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead
            ->open('/SKR/casebook')
            ->click('.named', 'Smoke')
            ->see('1 gained, 1 lost')
            ->click('.suite .link', '1 gained')
            ->see('SKR-C45')
            ->click('.suite .link', 'Accept')
            ->see('is now what its rule holds');
        self::assertSame(
            'SKR-C45',
            $this->value(
                'select c.key from suite_cases sc join suites s on s.id = sc.suite_id join cases c on c.id = sc.case_id ' .
                    "where s.name = 'Smoke' and c.key = 'SKR-C45'",
            ),
        );
        $lead->open('/SKR/setup')->see('Types')->click('section[aria-label=Types] .link', 'Add one');
        $lead->type('[aria-label="Name of types 8"]', 'Weather')->click('section[aria-label=Types] .link', 'Save')->see('Types saved.');
        $lead
            ->click('section[aria-label=Types] .link', 'Take out')
            ->click('section[aria-label=Types] .link', 'Save')
            ->see('"Functional" is used by');
    }

    /**
     * The steps of a case as they are stored now.
     *
     * @phpstan-impure
     */
    private function steps(string $key): string
    {
        return (string) $this->value(
            "select string_agg(case when s.routine_id is null then concat_ws('|', s.action, s.data, s.expected) else " .
                "'[routine]' end, ';' order by s.position) from steps s join cases c on c.version_id = s.case_version_id " .
                'where c.key = ?',
            [$key],
        );
    }
}
