<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\WalkTestCase;

/**
 * What is recorded while something is wrong: no server, no room, no sign-in, several tabs, a picture that is not taken.
 */
final class OutboxTest extends WalkTestCase
{
    public function test_entries_are_begun_and_finished_while_the_server_is_away(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('on this device and can be walked')->see('Start SKR-C13');
        $me->until('for the application to be kept on the device', fn (): bool => true === $me->script('return navigator.serviceWorker.controller !== null'));
        $this->serverDown();
        $me->reload()->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->see('waiting since', 'header');
        $me->press('1', '1', '1', '1', '1')->see('Finish this attempt')->press(Key::ENTER);
        // On to the next one that is on the device.
        $me->see('Step 1 of')->press('1')->see('Step 2 of');
        $me->open('/SKR/today')->see('waiting since', 'header')->seeNot('Start SKR-C13');
        self::assertSame(0, $this->value("select count(*) from attempts where number = 2 and state = 'open'"));
        $this->serverUp();
        $me->until('for everything to be sent', fn (): bool => str_contains($me->text('header'), 'Saved'));
        self::assertSame('pass', $this->value("select a.verdict from attempts a join entries e on e.id = a.entry_id join cases c on c.id = e.case_id join cycles y on y.id = e.cycle_id where c.key = 'SKR-C13' and y.key = 'SKR-R2' and a.number = 2"));
        self::assertSame(5, $this->value("select count(*) from events v join attempts a on a.id = v.attempt_id join entries e on e.id = a.entry_id join cases c on c.id = e.case_id where c.key = 'SKR-C13' and a.number = 2 and v.kind = 'verdict_given'"));
        self::assertSame(0, $this->value('select count(*) from attempts where beside is not null'));
    }
}
