<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\Tester;
use LucidStep\Tests\Support\WalkTestCase;

/**
 * What is captured in a session comes the ways it comes on a walk, and can be looked over before it leaves the device.
 */
final class SessionEvidenceTest extends WalkTestCase
{
    public function test_captures_recordings_films_links_and_the_handset_stand_in_the_timeline(): void
    {
        $me = $this->running();
        $this->sharing($me);
        $me->type('#line', 'Seen on the page')->chord(Key::ALT, 'c')->see('Seen on the page', '[aria-label=Timeline]');
        self::assertSame('', $me->script('return document.querySelector("#line").value'));
        $me->chord(Key::ALT, 'C')->see('Drag over the part to keep')->waitFor('.area img');
        $me->drag(0.2, 0.2, 0.5, 0.6, '.area img');
        $me->seeNot('Drag over the part to keep');
        $me->chord(Key::ALT, 'v')->see('of 2:00', '.composer')->chord(Key::ALT, 'v')->waitFor('[aria-label=Timeline] video');
        $me->click('.tools button', 'Filmstrip')
            ->click('.film button', 'Start the filmstrip')
            ->see('1 on this device only')
            ->click('.film button', 'Stop it');
        $this->check($me, 'what is captured in a session');
        $me->click('.film li button')->click('.film button', 'Keep 1')->see('0 on this device only');
        $me->click('.tools button', 'Link')->type('#link-address', 'javascript:alert(1)')->press(Key::ENTER);
        $me->see('Write the whole address');
        $me->type('#link-address', 'https://status.skerrywick.test/quay')->press(Key::ENTER);
        $me->see('status.skerrywick.test', '[aria-label=Timeline]')->waitFor('[aria-label=Timeline] a[href^="https://status"]');
        $me->click('.tools button', 'Log text')->type('#log-text', 'GET /quote 500')->click('.tools button', 'Keep it on the timeline');
        $me->see('log-', '[aria-label=Timeline]');
        $me->click('.tools button', 'Handset')->waitFor('.handset iframe');
        $me->until(
            'for the practice page',
            static fn(): bool => str_contains((string) $me->inHandset('return document.body.innerText'), 'Choose a sailing'),
        );
        $me->click('#line')->chord(Key::ALT, 'h')->see('Captured onto the timeline.')->click('.handset button', 'Put it away');
        $me->tell('Browser.grantPermissions', ['permissions' => ['videoCapture']]);
        $me->chord(Key::ALT, 'k')->see('Take a picture')->waitFor('.camera video');
        $me->until(
            'the camera',
            static fn(): bool => true === $me->script('return document.querySelector(".camera video").videoWidth > 0'),
        );
        $me->click('.camera button', 'Take a picture')->see('Taken onto the timeline.')->press(Key::ESCAPE);
        $names =
            "select string_agg(split_part(name, '-', 1) || ':' || split_part(media_type, '/', 1), ' ' order by done_at, counter) " .
            "from session_lines l join files f using (sha256) where l.kind = 'capture' and l.created_at > now() - interval '1 hour'";
        $kept = 'capture:image capture:image recording:video film:image log:text phone:image camera:image';
        $me->until('all of them', fn(): bool => $kept === str_replace('desktop', 'phone', (string) $this->value($names)));
        self::assertSame(1, $this->value("select count(*) from session_lines where words = '<https://status.skerrywick.test/quay>'"));
    }

    public function test_what_is_looked_over_leaves_the_device_with_what_was_hidden_black(): void
    {
        $me = $this->running();
        $this->sharing($me);
        $me->click('.looks', 'Look over before sending')->click('#line');
        $me->chord(Key::ALT, 'c')->see('Not sent yet: look it over', '[aria-label=Timeline]');
        $me->type('#line', 'Meanwhile')->press(Key::ENTER)->see('Meanwhile', '[aria-label=Timeline]');
        $me->until('the words alone', fn(): bool => 1 === $this->value("select count(*) from session_lines where words = 'Meanwhile'"));
        self::assertNull($this->captured(), 'it waits');
        // It waits over a reload too.
        $me->reload()->see('Not sent yet: look it over', '[aria-label=Timeline]');
        $me->click('.draw', 'Draw or hide')->waitFor('.mark canvas');
        $this->check($me, 'drawing on what was captured in a session');
        $me->press(Key::ENTER)->see('Nothing is hidden');
        $me->drag(0.1, 0.1, 0.9, 0.9);
        $me->press(Key::ENTER)->seeNot('Save it')->seeNot('Not sent yet');
        $me->until('the picture', fn(): bool => null !== $this->captured());
        $picture = imagecreatefromstring((string) file_get_contents($this->stored((string) $this->captured())));
        self::assertNotFalse($picture);
        self::assertSame(0, imagecolorat($picture, (int) (imagesx($picture) / 2), (int) (imagesy($picture) / 2)) & 0xffffff, 'hidden');

        // What has left is drawn on as a capture of its own; the first stays as it was.
        $before = $this->captured();
        $me->click('.draw', 'Draw or hide')->waitFor('.mark canvas');
        $me->press('b');
        $me->drag(0.2, 0.2, 0.6, 0.6);
        $me->press(Key::ENTER)->see('Drawn on the capture of', '[aria-label=Timeline]');
        $me->until('the drawing', fn(): bool => $before !== $this->captured());
        self::assertSame(1, $this->value("select count(*) from session_lines where sha256 = '{$before}'"));
    }

    public function test_the_small_window_is_the_same_session(): void
    {
        $me = $this->running();
        $me->type('#line', 'Begun on the page')->chord(Key::ALT, 'm');
        $me->until('for the small window', static fn(): bool => 2 === $me->windows());
        $me->toWindow(1)->see('left')->waitFor('#line');
        self::assertSame('Begun on the page', $me->script('return document.querySelector("#line").value'));
        $this->check($me, 'a session in the small window');
        $me->click('#line')->press(', written in the small one')->chord(Key::ALT, 'q')->press(Key::ENTER);
        $me->see('written in the small one', '[aria-label="Written last"]')->click('button', 'Pause')->see('Go on');
        $me->script('window.close()');
        $me->toWindow(0)->see('Go on')->waitFor('.lane #line');
        $me->until(
            'the question',
            fn(): bool => 'question' ===
                $this->value("select kind from session_lines where words = 'Begun on the page, written in the small one'"),
        );
    }

    private function running(): Tester
    {
        $me = $this->tester()->signIn('tobias')->open('/SKR/sessions/SKR-S4')->see('Go on');
        $me->script('document.activeElement.blur()');
        $me->press('p')->see('Pause')->waitFor('#line');
        $me->click('#line');

        return $me;
    }

    private function captured(): ?string
    {
        $found = $this->value(
            <<<'SQL'
            select sha256 from session_lines
            where kind = 'capture' and created_at > now() - interval '1 hour' order by number desc limit 1
            SQL
            ,
        );

        return \is_string($found) ? $found : null;
    }
}
