<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

final class AwayTest extends BrowserTestCase
{
    public function test_everything_recorded_while_the_server_is_away_arrives_once_after_a_reload(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('1')->see('Step 2 of 5')->see('Saved', 'header');
        $me->until(
            'for the application to be kept on the device',
            fn(): bool => $me->script('return navigator.serviceWorker.controller !== null') === true,
        );
        usleep(700_000);
        $before = $this->value(
            "select count(*) from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2",
        );

        $this->serverDown();
        $me->press('1')->see('Step 3 of 5')->see('waiting since', 'header');
        $me->pastePicture()->see('Waiting', '.tray figcaption');
        $me->press('2', 'The total is wrong.', Key::ENTER)->see('Step 4 of 5')->see('3 waiting since', 'header');

        $me->reload()->see('Step 4 of 5')->see('3 waiting since', 'header')->see('The total is wrong.');
        $me->press('k')->see('Waiting', '.tray figcaption')->press('j', '1')->see('4 waiting since', 'header');
        self::assertSame(
            $before,
            $this->value("select count(*) from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2"),
        );

        $this->serverUp();
        $me->until('for everything to be sent', fn(): bool => str_contains($me->text('header'), 'Saved'));
        $kinds = $this->value(
            "select string_agg(kind || coalesce(' ' || (payload->>'step'), ''), ', ' order by e.sequence) from " .
                "events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2",
        );
        self::assertSame('started, verdict_given 1, verdict_given 2, evidence_added 3, verdict_given 3, verdict_given 4', $kinds);
        $me->reload()->see('Step 5 of 5')->see('Saved', 'header');
        self::assertSame(
            1,
            $this->value("select count(*) from evidence e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2"),
        );
        self::assertSame(
            'whole',
            $me->script(
                'const [id] = location.pathname.split("/").slice(-1); const r = new XMLHttpRequest(); r.open("GET", ' .
                    '`/api/v1/attempts/${id}/verification`, false); r.setRequestHeader("Accept", "application/json"); ' .
                    'r.send(); return JSON.parse(r.responseText).state === "open" ? "whole" : r.responseText',
            ),
        );
    }

    public function test_a_bad_file_is_refused_with_a_reason_and_the_step_keeps_its_text(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('2')->press('Kept words');
        $dir = sys_get_temp_dir() . '/lucid-step-files-' . getmypid();
        @mkdir($dir);
        file_put_contents("{$dir}/empty.png", '');
        $me->choose('input[type=file]', "{$dir}/empty.png")->see('empty.png is empty.', '.band');
        $files = [
            'disguised.png' => ['hello', 'is no such picture'],
            'report.pdf' => ['<html></html>', 'is named .pdf but is no such file'],
            'program.log' => ["\x7FELF\0\1", 'does not hold plain text'],
        ];
        foreach ($files as $name => [$content, $why]) {
            file_put_contents("{$dir}/{$name}", $content);
            $me->choose('input[type=file]', "{$dir}/{$name}")->see($why, '.tray');
            $me->see('1 refused', 'header')->click('.tray button', 'Remove')->see('Saved', 'header');
        }
        self::assertSame('Kept words', $me->script("return document.querySelector('#happened').value"));
        file_put_contents("{$dir}/page.log", "12:00 fine\n");
        $me->choose('input[type=file]', "{$dir}/page.log")
            ->see('page.log', '.tray')
            ->see('Saved', '.tray figcaption');
        exec('rm -rf ' . escapeshellarg($dir));
    }

    public function test_two_testers_on_one_entry(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->press('1')->see('Step 2 of 5')->see('Saved', 'header');
        $you = $this->tester()->signIn('anouk');
        $you->open('/SKR/cycles/SKR-R2')->see('Tobias Reyle on SKR-C13')->click('.list a', 'A passenger of 15');
        $you->click('button', 'Take over from Tobias Reyle')->see('Step 2 of 5');
        $me->see('Anouk Sorrel is walking this attempt.');
        $me->press('1');
        // The verdicts stand there once the page knows whose the attempt is now.
        $you->waitFor('.give');
        $you->press('1')->see('Step 3 of 5')->see('Saved', 'header');
        $me->see('Step 2 of 5');
        self::assertSame(
            2,
            $this->value(
                "select count(*) from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and " .
                    "a.number = 2 and e.kind = 'verdict_given'",
            ),
        );
    }

    public function test_a_person_without_rights_reads_and_changes_nothing(): void
    {
        $reader = $this->tester()->signIn('edda');
        $reader->see('2 cycles run');
        $reader->open('/SKR/cycles/SKR-R2')->see('SKR-C13')->seeNot('Walk my next entry');
        $reader->click('.list a', 'A passenger of 15')->see('Attempt 1')->seeNot('Walk it again')->seeNot('Ask for a retest');
        $reader->open('/SKR/defects/SKR-D1')->see('7:30 stands last')->seeNot('Reject it');
        $reader->open('/HBR/today')->see('There is no such project');
    }
}
