<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\WalkTestCase;

/**
 * Evidence as a tester brings it: captured, drawn on, compared, from a handset or a camera, and what cannot be taken.
 */
final class EvidenceTest extends WalkTestCase
{
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
}
