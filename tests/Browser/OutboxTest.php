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
        $me->until(
            'for the application to be kept on the device',
            fn(): bool => true === $me->script('return navigator.serviceWorker.controller !== null'),
        );
        $this->serverDown();
        $me->reload()->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5')->see('waiting since', 'header');
        $me->press('1', '1', '1', '1', '1')->see('Finish this attempt')->press(Key::ENTER);
        // On to the next one that is on the device.
        $me->see('Step 1 of')->press('1')->see('Step 2 of');
        $me->open('/SKR/today')->see('waiting since', 'header')->seeNot('Start SKR-C13');
        self::assertSame(0, $this->value("select count(*) from attempts where number = 2 and state = 'open'"));
        $this->serverUp();
        $me->until('for everything to be sent', fn(): bool => str_contains($me->text('header'), 'Saved'));
        self::assertSame(
            'pass',
            $this->value(
                'select a.verdict from attempts a join entries e on e.id = a.entry_id join cases c on c.id = e.case_id ' .
                    "join cycles y on y.id = e.cycle_id where c.key = 'SKR-C13' and y.key = 'SKR-R2' and a.number = 2",
            ),
        );
        self::assertSame(
            5,
            $this->value(
                'select count(*) from events v join attempts a on a.id = v.attempt_id join entries e on e.id = ' .
                    "a.entry_id join cases c on c.id = e.case_id where c.key = 'SKR-C13' and a.number = 2 and v.kind = " .
                    "'verdict_given'",
            ),
        );
        self::assertSame(0, $this->value('select count(*) from attempts where parallel_reason is not null'));
    }

    public function test_a_full_device_sends_at_once_or_says_so_and_the_words_stay(): void
    {
        $me = $this->begin();
        $me->press('1')->see('Step 2 of 5')->see('Saved', 'header')->room(false);
        // The server is there: what the device has no room for goes there at once, and pages are read as ever.
        $me->pastePicture()->see('Saved', '.tray figcaption')->see('Saved', 'header');
        $me->click('nav a', 'Today')->see('Go on with SKR-C13')->press('s')->see('Step 2 of 5')->see('Saved', '.tray figcaption');
        $this->serverDown();
        $me->press('2', 'The total is wrong.', Key::ENTER)->see('Not kept', 'header');
        $me->click('.save > button')->see('its storage is full, and the server does not answer', '.save')->press(Key::ESCAPE);
        $me->pastePicture()->see('its storage is full', '.band')->see('Step 2 of 5');
        self::assertSame('The total is wrong.', $me->script("return document.querySelector('#happened').value"));
        // Room was made: the same words and the same picture are taken.
        $me->room(true)
            ->pastePicture()
            ->see('Waiting', '.tray')
            ->click('button', 'Record the fail')
            ->see('Step 3 of 5')
            ->see('2 waiting since', 'header');
        $this->serverUp();
        $me->until('for all', fn(): bool => str_contains($me->text('header'), 'Saved'));
        self::assertSame('verdict_given 1, evidence_added 2, evidence_added 2, verdict_given 2', $this->story());
    }

    public function test_two_tabs_send_what_both_recorded_once_and_in_order(): void
    {
        $me = $this->begin();
        $walk = $me->path();
        $me->see('Saved', 'header')->openTab($walk)->see('Step 1 of 5');
        $this->serverDown();
        $me->press('1')->see('Step 2 of 5')->see('1 waiting since', 'header');
        $me->toWindow(0)->see('1 waiting since', 'header')->press('j', '1')->see('Step 3 of 5')->see('2 waiting since', 'header');
        $me->toWindow(1)->see('2 waiting since', 'header')->press('j', '2', 'It fails here.', Key::ENTER)->see('Step 4 of 5');
        $me->toWindow(0)->see('It fails here.')->press('j', '1')->see('4 waiting since', 'header');
        $this->serverUp();
        $me->until('for all', fn(): bool => str_contains($me->text('header'), 'Saved'));
        $me->toWindow(1)->see('Saved', 'header');
        self::assertSame('verdict_given 1, verdict_given 2, verdict_given 3, verdict_given 4', $this->story());
        self::assertSame(
            '1, 2, 3, 4',
            $this->value(
                self::MINE .
                    ("select string_agg((rank)::text, ', ' order by sequence) from (select sequence, rank() over (order by " .
                        "e.counter) from events e join mine on mine.id = e.attempt_id where kind = 'verdict_given') x"),
            ),
            'in the order in which they were recorded',
        );
    }

    public function test_a_picture_that_the_server_cannot_read_holds_nothing_up(): void
    {
        $me = $this->begin();
        $me->see('Saved', 'header');
        $this->serverDown();
        $broken = sys_get_temp_dir() . '/lucid-step-broken-' . getmypid() . '.png';
        // Its head is a picture's; only whoever opens it finds that the rest is not.
        file_put_contents(
            $broken,
            "\x89PNG\r\n\x1a\n" . pack('N', 13) . 'IHDR' . pack('NN', 640, 360) . "\x08\x02\0\0\0" . random_bytes(600),
        );
        $me->choose('input[type=file]', $broken)
            ->see('Waiting', '.tray figcaption')
            ->press('1')
            ->see('Step 2 of 5')
            ->see('2 waiting since', 'header');
        $this->serverUp();
        $me->see('1 refused', 'header');
        $me->until('for the verdict', fn(): bool => 'verdict_given 1' === $this->story());
        $me->click('.save > button')->see('A file of')->see('Keep all of it as files');
        $me->click('.save .link', 'Send it again')
            ->see('1 refused', 'header')
            ->click('.save .link', 'Drop it here')
            ->see('Saved', 'header');
        $me->press(Key::ESCAPE)->press('k')->see('Step 1 of 5')->seeNot('lucid-step-broken');
        unlink($broken);
    }

    public function test_signed_out_meanwhile_it_waits_for_the_sign_in(): void
    {
        $me = $this->begin();
        $walk = $me->path();
        $me->press('1')->see('Step 2 of 5')->see('Saved', 'header');
        // An answer that was on its way may bring them back, on a busy machine a while later.
        for ($i = 0; $i < 8; $i++) {
            $me->tell('Network.clearBrowserCookies');
            usleep(300_000);
        }
        $me->press('2', 'Signed out, and failing.', Key::ENTER)->see('Step 3 of 5')->see('1 waiting: signed out', 'header');
        $me->press('1')
            ->see('2 waiting: signed out', 'header')
            ->click('.save > button')
            ->click('.save a', 'Sign in')
            ->see('Sign in to walk your cycles.');
        $me->type('#email', 'tobias@skerrywick.test')
            ->type('#password', 'lantern-on-the-path')
            ->press(Key::ENTER)
            ->see('Step 4 of 5')
            ->see('Saved', 'header');
        self::assertSame($walk, $me->path());
        self::assertSame('verdict_given 1, verdict_given 2, verdict_given 3', $this->story());
    }

    public function test_a_second_device_of_the_same_person_goes_on_where_the_first_one_is(): void
    {
        $me = $this->begin();
        $walk = (string) $me->path();
        $me->press('1')->see('Step 2 of 5')->see('Saved', 'header');
        $phone = $this->tester(390, 844)->signIn('tobias');
        $phone->see('Go on with SKR-C13')->open($walk)->see('Step 2 of 5')->press('1')->see('Step 3 of 5')->see('Saved', 'header');
        // On a phone the lit step comes first and whole; what is behind stands in one line.
        $phone->see('2 steps behind')->seeNot('The first verdict confirms it.');
        $top = fn(string $of): float => (float) $phone->script(
            'return document.querySelector(arguments[0]).getBoundingClientRect().top',
            $of,
        );
        self::assertLessThan(400, $top('.lit'));
        self::assertLessThan($top('.lit .bar'), $top('.lit .parts'));
        $phone->click('button', '2 steps behind')->seeNot('2 steps behind');
        // The first device learns of it and loses nothing of its own.
        $me->press('n')->press('Both saw it');
        $me->until('to hear of the other device', fn(): bool => str_contains($me->text('.lane'), 'Take back'));
        self::assertSame('Both saw it', $me->script("return document.querySelector('.note').value"));
        $me->press(Key::ESCAPE)->see('Saved', 'header');
        self::assertSame('verdict_given 1, verdict_given 2, note_written 2', $this->story());
    }

    /**
     * What the events of the open attempt say, in order.
     */
    private function story(): string
    {
        return (string) $this->value(
            self::MINE .
                ("select string_agg(e.kind || ' ' || (e.payload->>'step'), ', ' order by e.sequence) from events e join " .
                    "mine on mine.id = e.attempt_id where e.kind <> 'started'"),
        );
    }

    private const MINE = "with mine as (select id from attempts where state = 'open' and number = 2) ";
}
