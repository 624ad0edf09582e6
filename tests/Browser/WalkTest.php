<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;

/**
 * The walk in full: sheet, rounds, capture, drawing and hiding, the small window, days without the server, lists.
 */
final class WalkTest extends BrowserTestCase
{
    public function test_the_sheet_judges_several_steps_at_once_and_a_try_is_counted(): void
    {
        $me = $this->begin();
        $me->press('t', 'T', 't')->see('fails 2 of 3')->press('.')->waitFor('table.lines');
        $me->press('x', 'j', 'j', 'X')->see('3 steps marked')->press('1');
        $me->until('for three passes', fn (): bool => 3 === $this->value("select count(*) from step_results s join rounds r on r.id = s.round_id join attempts a on a.id = r.attempt_id where a.state = 'open' and a.number = 2 and s.verdict = 'pass'"));
        $me->press('2', Key::ENTER)->see('Say what happened instead.')->press('The fare is 6.20.', Key::ENTER)->see('The fare is 6.20.', 'table');
        $me->press('.')->see('Step 5 of 5')->press('k')->see('Happened instead')->see('The fare is 6.20.', '.two');
        self::assertSame('2 of 3', $this->value("select tries_failed || ' of ' || tries from step_results s join rounds r on r.id = s.round_id join attempts a on a.id = r.attempt_id where a.state = 'open' and a.number = 2 and s.position = 1"));
        $me->press('a')->see('A better wording')->press('Is 16 half fare or not?')->chord(Key::CONTROL, Key::ENTER)->see('Asked.');
        $me->until('for the question', fn (): bool => 1 === $this->value("select count(*) from case_messages where body like '%Is 16 half fare or not?'"));
    }

    public function test_rounds_have_their_own_values_and_are_left_out_and_repeated(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->open('/SKR/cycles/SKR-R3')->click('tbody a', 'The fare of a vehicle follows its length')->click('button', 'Go on')->see('Round 3 of 5');
        $me->see('5.00', '.rounds')->see('Step 1 of')->press('j', 'j')->see('Vehicle of');
        $me->press('v')->see('copied', '.chips');
        self::assertSame('5.00', $me->script('return navigator.clipboard.readText()'));
        $me->press('1', '2')->press('It costs 56.00.', Key::ENTER);
        $me->click('.rounds button', 'Walk it once more')->see('Round 6 of 6')->see('Once more what round 3 walked');
        $me->press('{', '{')->see('Round 4 of 6')->click('.rounds button', 'Leave this round out')->press('No such vehicle', Key::ENTER)->see('Saved', 'header');
        $me->until('for both', fn (): bool => 'No such vehicle' === $this->value("select r.skipped from rounds r join attempts a on a.id = r.attempt_id where a.state = 'open' and r.position = 4") && 3 === $this->value("select r.repeats from rounds r join attempts a on a.id = r.attempt_id where a.state = 'open' and r.position = 6"));
    }

    public function test_a_capture_is_drawn_on_and_what_is_hidden_is_black_where_it_is_stored(): void
    {
        $me = $this->begin();
        $this->sharing($me);
        $me->press('c')->see('capture-', '.tray figcaption')->see('Saved', '.tray figcaption');
        $before = (string) $this->value("select sha256 from evidence where source = 'capture' order by created_at desc limit 1");
        $me->click('.tray .acts button', 'Draw or hide')->waitFor('.mark canvas');
        $me->press('b');
        $this->drag($me, 0.1, 0.1, 0.4, 0.3);
        $me->press('p');
        $this->drag($me, 0.5, 0.5, 0.5, 0.5);
        $me->press('x')->see('painted black');
        $this->drag($me, 0.6, 0.2, 0.9, 0.6);
        $me->press('z')->press('x');
        $this->drag($me, 0.6, 0.2, 0.9, 0.6);
        $me->press(Key::ENTER)->seeNot('Save it');
        $me->until('for the hidden picture', fn (): bool => 'evidence_marked' === $this->value("select e.kind from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2 order by e.sequence desc limit 1"));
        self::assertSame(2, $this->value("select jsonb_array_length(markup->'shapes') from evidence where source = 'capture' and markup is not null"));
        $after = (string) $this->value("select sha256 from evidence where source = 'capture' and markup is not null");
        self::assertNotSame($before, $after);
        $picture = imagecreatefromstring((string) file_get_contents($this->stored($after)));
        self::assertNotFalse($picture);
        [$w, $h] = [imagesx($picture), imagesy($picture)];
        foreach ([[0.65, 0.3], [0.75, 0.4], [0.85, 0.55]] as [$x, $y]) {
            self::assertSame(0, imagecolorat($picture, (int) ($w * $x), (int) ($h * $y)) & 0xFFFFFF, 'hidden');
        }
        self::assertNotSame(0, imagecolorat($picture, (int) ($w * 0.5), (int) ($h * 0.9)) & 0xFFFFFF, 'the rest is as it was');
        self::assertFileDoesNotExist($this->stored($before), 'what was hidden is nowhere any more');
        // What was drawn can still be changed.
        $me->click('.tray .acts button', 'Draw or hide')->waitFor('.mark canvas');
        $me->press('a');
        $this->drag($me, 0.2, 0.8, 0.4, 0.6);
        $me->press(Key::ENTER);
        $me->until('for the arrow', fn (): bool => 3 === $this->value("select jsonb_array_length(markup->'shapes') from evidence where source = 'capture' and markup is not null"));
    }

    public function test_a_part_a_recording_a_filmstrip_a_link_and_what_cannot_be_taken(): void
    {
        $me = $this->begin();
        $this->sharing($me);
        $me->press('C')->see('Drag over the part to keep')->waitFor('.area img');
        $this->drag($me, 0.2, 0.2, 0.5, 0.6, '.area img');
        $me->see('capture-', '.tray figcaption');
        $me->press('r')->see('of 2:00', '.tray')->press('r')->see('recording-', '.tray');
        $me->until('for the recording', fn (): bool => 'video/webm' === $this->value("select f.media_type from evidence e join files f on f.sha256 = e.sha256 where e.source = 'recording'"));
        $me->click('.tools button', 'Filmstrip')->click('.film button', 'Start the filmstrip')->see('1 on this device only')->click('.film button', 'Stop it');
        $me->reload()->see('Step 1 of 5')->click('.tools button', 'Filmstrip')->see('1 on this device only')->click('.film li button')->click('.film button', 'Keep 1')->see('0 on this device only');
        $me->until('for the frame', fn (): bool => 1 === $this->value("select count(*) from evidence e join attempts a on a.id = e.attempt_id where e.source = 'filmstrip' and a.number = 2"));
        $me->click('.tools button', 'Link')->type('#link-address', 'javascript:alert(1)')->press(Key::ENTER)->see('Write the whole address');
        $me->type('#link-address', 'https://status.skerrywick.test/quay')->press(Key::ENTER)->see('status.skerrywick.test', '.tray figure');
        // Refused by the browser, and nothing usable in the clipboard.
        $me->script("navigator.mediaDevices.getDisplayMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError')); document.activeElement.blur()");
        $me->press('c')->see('The browser did not allow it');
        $me->script("window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: new DataTransfer(), bubbles: true }))");
        $me->see('There is nothing in the clipboard that can be evidence');
        $me->script("const t = new DataTransfer(); const head = new Uint8Array([137,80,78,71,13,10,26,10,0,0,0,13,73,72,68,82,0,0,78,32,0,0,3,232,8,2,0,0,0]); t.items.add(new File([head], 'wide.png', { type: 'image/png' })); document.querySelector('.walk').dispatchEvent(new DragEvent('drop', { dataTransfer: t, bubbles: true }))");
        $me->see('20000 × 1000 pixels')->see('Saved', 'header');
    }

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

    public function test_the_small_window_is_the_same_walk(): void
    {
        $me = $this->begin();
        $me->click('.ways button', 'Companion');
        $me->until('for the small window', fn (): bool => 2 === $me->windows());
        $me->toWindow(1)->see('Step 1 of 5')->press('1')->see('Step 2 of 5')->press('2')->press('Seen in the small window')->press(Key::ENTER)->see('Step 3 of 5');
        $me->toWindow(0)->see('Step 3 of 5')->see('Seen in the small window', '.lane');
        $me->until('for both verdicts', fn (): bool => 2 === $this->value("select count(*) from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number = 2 and e.kind = 'verdict_given'"));
    }

    public function test_known_defects_first_a_time_away_asked_and_taking_over_with_a_word(): void
    {
        $me = $this->begin();
        $me->press('j', 'j', 'j')->see('Step 4 of 5')->press('2')->see('Known at this step')->see('SKR-D2', '.known');
        $me->press('Still 6.20.')->click('.known button', 'It is this one')->see('SKR-D2', '.tray')->see('Step 5 of 5');
        $me->until('for the link', fn (): bool => 1 === $this->value("select count(*) from defect_links l join attempts a on a.id = l.attempt_id where a.state = 'open' and a.number = 2 and l.step = 4"));
        // Half an hour without a sign: it is asked, not guessed.
        $me->script("const real = Date.now; const from = real(); Date.now = () => real() + 1_800_000; setTimeout(() => window.dispatchEvent(new Event('focus')), 50)");
        $me->see('You were away for 30m')->click('.band button', 'None')->seeNot('You were away');
        $me->until('for the answer', fn (): bool => '0' === (string) $this->value("select payload->>'counted_ms' from events where kind = 'away_decided'"));
        $me->press('n')->press('Half a tho');
        $you = $this->tester()->signIn('anouk');
        $you->open((string) $me->path())->see('Tobias Reyle is walking this attempt')->click('.band button', 'Take it over')->press('Go home, I finish it', Key::ENTER);
        $you->waitFor('.give');
        $me->see('Anouk Sorrel is walking this attempt')->see('Go home, I finish it');
        self::assertSame('Half a tho', $me->script("return document.querySelector('.note').value"));
    }

    public function test_verdicts_from_the_list_and_an_outage_on_many(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->open('/SKR/cycles/SKR-R2?shows=not_run&who='.$this->value("select id from users where email = 'tobias@skerrywick.test'"))->see('SKR-C19')->press('x')->click('.judge button', 'Choose all that are shown')->click('.judge .give', 'Blocked');
        $me->press('a', Key::ENTER)->see('Say in a few words why')->type('#list-note', 'The booking server is down')->press(Key::ENTER)->see('judged blocked from the list');
        self::assertGreaterThan(2, $this->value("select count(*) from attempts where from_list and verdict = 'blocked'"));
        $me->open('/SKR/today')->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of')->press('3')->click('.also button', 'The same outage')->see('of your other entries', '.also');
    }

    public function test_an_admin_takes_a_file_out_and_the_record_says_so(): void
    {
        $me = $this->tester()->signIn('corin', '/SKR/today');
        $entry = $this->value("select a.entry_id from evidence e join attempts a on a.id = e.attempt_id where e.markup is not null and a.state = 'finished' limit 1");
        $attempt = $this->value("select a.id from evidence e join attempts a on a.id = e.attempt_id where e.markup is not null and a.state = 'finished' limit 1");
        $me->open("/SKR/entries/{$entry}?attempt={$attempt}")->see('Sealed')->see('Bundle to check outside')->click('.record button', 'Every event')->see('Evidence marked')->click('.record p button', 'age-16.png')->press('A passenger is named', Key::ENTER)->see('Taken out: a file, by Corin Vale')->see('its content was taken out');
        self::assertSame('whole', $me->script("const r = new XMLHttpRequest(); r.open('GET', '/api/v1/attempts/{$attempt}/verification', false); r.send(); return JSON.parse(r.responseText).state"));
        $me->open('/SKR/setup/walking')->see('Opening an unassigned entry takes it')->click('#skip_wrap_up_on_pass')->see('Saved. It counts from now on');
        self::assertTrue($this->value("select (policies->>'skip_wrap_up_on_pass')::bool from projects where code = 'SKR'"));
    }

    private function begin(): Tester
    {
        return $this->tester()->signIn('tobias')->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5');
    }

    /**
     * The browser shares this very tab without asking.
     */
    private function sharing(Tester $me): void
    {
        $me->script('const m = navigator.mediaDevices; const real = m.getDisplayMedia.bind(m); m.getDisplayMedia = () => real({ video: true, preferCurrentTab: true });');
    }

    /**
     * Drags over a picture, in shares of its size.
     */
    private function drag(Tester $me, float $x, float $y, float $toX, float $toY, string $on = '.mark canvas'): void
    {
        /** @var array{x: float, y: float, width: float, height: float} $area */
        $area = (array) $me->script('return document.querySelector(arguments[0]).getBoundingClientRect().toJSON()', $on);
        $at = static fn (string $type, float $px, float $py): array => ['type' => $type, 'x' => $area['x'] + $area['width'] * $px, 'y' => $area['y'] + $area['height'] * $py, 'button' => 'left', 'buttons' => 1, 'clickCount' => 1];
        $me->tell('Input.dispatchMouseEvent', $at('mousePressed', $x, $y));
        $me->tell('Input.dispatchMouseEvent', $at('mouseMoved', ($x + $toX) / 2, ($y + $toY) / 2));
        $me->tell('Input.dispatchMouseEvent', $at('mouseMoved', $toX, $toY));
        $me->tell('Input.dispatchMouseEvent', $at('mouseReleased', $toX, $toY));
        usleep(120_000);
    }

    private function stored(string $sha256): string
    {
        return getenv('LARAVEL_STORAGE_PATH').'/app/private/evidence/'.substr($sha256, 0, 2)."/{$sha256}";
    }
}
