<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\Tester;
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
        $this->check($me, 'drawing');
        $me->press('b');
        $me->drag(0.1, 0.1, 0.4, 0.3);
        $me->press('p');
        $me->drag(0.5, 0.5, 0.5, 0.5);
        $me->press('x')->see('painted black');
        $me->drag(0.6, 0.2, 0.9, 0.6);
        $me->press('z')->press('x');
        $me->drag(0.6, 0.2, 0.9, 0.6);
        $me->press(Key::ENTER)->seeNot('Save it');
        $me->until(
            'for the hidden picture',
            fn(): bool => 'evidence_marked' ===
                $this->value(
                    "select e.kind from events e join attempts a on a.id = e.attempt_id where a.state = 'open' and a.number " .
                        '= 2 order by e.sequence desc limit 1',
                ),
        );
        self::assertSame(
            2,
            $this->value("select jsonb_array_length(markup->'shapes') from evidence where source = 'capture' and markup is not null"),
        );
        $after = (string) $this->value("select sha256 from evidence where source = 'capture' and markup is not null");
        self::assertNotSame($before, $after);
        $picture = imagecreatefromstring((string) file_get_contents($this->stored($after)));
        self::assertNotFalse($picture);
        [$w, $h] = [imagesx($picture), imagesy($picture)];
        foreach ([[0.65, 0.3], [0.75, 0.4], [0.85, 0.55]] as [$x, $y]) {
            self::assertSame(0, imagecolorat($picture, (int) ($w * $x), (int) ($h * $y)) & 0xffffff, 'hidden');
        }
        self::assertNotSame(0, imagecolorat($picture, (int) ($w * 0.5), (int) ($h * 0.9)) & 0xffffff, 'the rest is as it was');
        self::assertFileDoesNotExist($this->stored($before), 'what was hidden is nowhere any more');
        // What was drawn can still be changed.
        $me->click('.tray .acts button', 'Draw or hide')->waitFor('.mark canvas');
        $me->press('a');
        $me->drag(0.2, 0.8, 0.4, 0.6);
        $me->press(Key::ENTER);
        $me->until(
            'for the arrow',
            fn(): bool => 3 ===
                $this->value("select jsonb_array_length(markup->'shapes') from evidence where source = 'capture' and markup is not null"),
        );
    }

    public function test_a_picture_of_a_secret_step_goes_once_something_was_hidden_or_nothing_is_to_be(): void
    {
        $entry = (string) $this->value(
            <<<'SQL'
            insert into entries (id, project_id, cycle_id, case_id, case_version_id, position, assignee_id, row_ids, rounds, created_at,
                updated_at)
            select gen_random_uuid(), e.project_id, e.cycle_id, c.id, c.version_id, 900, e.assignee_id,
                (select jsonb_agg(r.id order by r.position) from data_rows r where r.table_id = c.table_id), 2, now(), now()
            from entries e join cycles y on y.id = e.cycle_id join users u on u.id = e.assignee_id cross join cases c
            where y.key = 'SKR-R2' and u.name = 'Tobias Reyle' and c.key = 'SKR-C69' limit 1 returning id
            SQL
            ,
        );
        $me = $this->tester()->signIn('tobias');
        $me->open("/SKR/entries/{$entry}")
            ->click('button', 'Walk it')
            ->see('Step 1 of');
        $this->sharing($me);
        $me->press('c')->see('Look the picture over before it leaves this device');
        $me->click('.held button', 'Hide parts of it')->waitFor('.mark canvas');
        $me->see('Hide', '.mark .tool[aria-pressed=true]');
        $me->press(Key::ENTER)->see('Nothing is hidden, and this step shows secret values');
        self::assertSame(0, $this->sentOf($entry));
        $me->drag(0.1, 0.1, 0.9, 0.9);
        $me->press(Key::ENTER)->seeNot('Save it');
        $me->until('for the hidden picture', fn(): bool => 1 === $this->sentOf($entry));
        $me->press('c')->see('Look the picture over before it leaves this device');
        $me->click('.held button', 'Hide parts of it')->waitFor('.mark canvas');
        $me->press(Key::ENTER)->click('.mark button', 'there is nothing to hide')->seeNot('Save it');
        $me->until('for the other', fn(): bool => 2 === $this->sentOf($entry));
    }

    /**
     * How many pictures of an entry have left the device.
     *
     * @phpstan-impure
     */
    private function sentOf(string $entry): int
    {
        $sql = 'select count(*) from evidence v join attempts a on a.id = v.attempt_id where a.entry_id = ?';

        return (int) $this->value($sql, [$entry]);
    }

    public function test_a_part_a_recording_a_filmstrip_a_link_and_what_cannot_be_taken(): void
    {
        $me = $this->begin();
        $this->sharing($me);
        $me->press('C')->see('Drag over the part to keep')->waitFor('.area img');
        $this->check($me, 'choosing a part');
        $me->drag(0.2, 0.2, 0.5, 0.6, '.area img');
        $me->see('capture-', '.tray figcaption');
        $me->press('r')->see('of 2:00', '.tray')->press('r')->see('recording-', '.tray');
        $me->until(
            'for the recording',
            fn(): bool => 'video/webm' ===
                $this->value("select f.media_type from evidence e join files f on f.sha256 = e.sha256 where e.source = 'recording'"),
        );
        $me->click('.tools button', 'Filmstrip')
            ->click('.film button', 'Start the filmstrip')
            ->see('1 on this device only')
            ->click('.film button', 'Stop it');
        $this->check($me, 'the filmstrip');
        $me->reload()
            ->see('Step 1 of 5')
            ->click('.tools button', 'Filmstrip')
            ->see('1 on this device only')
            ->click('.film li button')
            ->click('.film button', 'Keep 1')
            ->see('0 on this device only');
        $me->until(
            'for the frame',
            fn(): bool => 1 ===
                $this->value(
                    "select count(*) from evidence e join attempts a on a.id = e.attempt_id where e.source = 'filmstrip' and a.number = 2",
                ),
        );
        $me->click('.tools button', 'Link')
            ->type('#link-address', 'javascript:alert(1)')
            ->press(Key::ENTER)
            ->see('Write the whole address');
        $me->type('#link-address', 'https://status.skerrywick.test/quay')->press(Key::ENTER)->see('status.skerrywick.test', '.tray figure');
        // Refused by the browser, and nothing usable in the clipboard.
        $me->script(
            "navigator.mediaDevices.getDisplayMedia = () => Promise.reject(new DOMException('no', " .
                "'NotAllowedError')); document.activeElement.blur()",
        );
        $me->press('c')->see('The browser did not allow it');
        $me->script("window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: new DataTransfer(), bubbles: true }))");
        $me->see('There is nothing in the clipboard that can be evidence');
        $me->script(
            'const t = new DataTransfer(); const head = new ' .
                'Uint8Array([137,80,78,71,13,10,26,10,0,0,0,13,73,72,68,82,0,0,78,32,0,0,3,232,8,2,0,0,0]); ' .
                "t.items.add(new File([head], 'wide.png', { type: 'image/png' })); " .
                "document.querySelector('.walk').dispatchEvent(new DragEvent('drop', { dataTransfer: t, bubbles: true }))",
        );
        $me->see('20000 × 1000 pixels')->see('Saved', 'header');
    }

    public function test_an_admin_takes_a_file_out_and_the_record_says_so(): void
    {
        $me = $this->tester()->signIn('corin', '/SKR/today');
        $entry = $this->value(
            'select a.entry_id from evidence e join attempts a on a.id = e.attempt_id where e.markup is not null and ' .
                "a.state = 'finished' limit 1",
        );
        $attempt = $this->value(
            'select a.id from evidence e join attempts a on a.id = e.attempt_id where e.markup is not null and ' .
                "a.state = 'finished' limit 1",
        );
        $me->open("/SKR/entries/{$entry}?attempt={$attempt}")
            ->see('Sealed')
            ->see('Bundle to check outside')
            ->click('.record button', 'Every event')
            ->see('Evidence marked')
            ->click('.record p button', 'age-16.png')
            ->press('A passenger is named', Key::ENTER)
            ->see('Taken out: a file, by Corin Vale')
            ->see('its content was taken out');
        self::assertSame(
            'whole',
            $me->script(
                "const r = new XMLHttpRequest(); r.open('GET', '/api/v1/attempts/{$attempt}/verification', false); " .
                    'r.send(); return JSON.parse(r.responseText).state',
            ),
        );
        $me->open('/SKR/setup/walking')
            ->see('Opening an unassigned entry takes it')
            ->click('#skip_wrap_up_on_pass')
            ->see('Saved. It counts from now on');
        self::assertTrue($this->value("select (policies->>'skip_wrap_up_on_pass')::bool from projects where code = 'SKR'"));
    }

    public function test_a_picture_is_compared_with_the_one_it_should_look_like(): void
    {
        // Anouk has the case whose steps show how it should look.
        $me = $this->tester()->signIn('anouk');
        $entry = $this->value(
            'select e.id from entries e join cases c on c.id = e.case_id join cycles y on y.id = e.cycle_id where ' .
                "c.key = 'SKR-C1' and y.key = 'SKR-R2'",
        );
        $me->open("/SKR/entries/{$entry}")
            ->click('button', 'Walk it again')
            ->see('Step 1 of')
            ->press('j', 'j')
            ->see('Step 3 of')
            ->waitFor('.references img');
        $reference = (string) $this->value(
            "select s.files->0->>'sha256' from steps s join cases c on c.version_id = s.case_version_id where c.key " .
                "= 'SKR-C1' and s.position = 2",
        );
        $picture = imagecreatefromstring((string) file_get_contents($this->stored($reference)));
        self::assertNotFalse($picture);
        [$w, $h] = [imagesx($picture), imagesy($picture)];
        // One part of ten by ten pixels differs, and another of a hundred by twenty.
        imagefilledrectangle($picture, 10, 10, 19, 19, 0xff00ff);
        imagefilledrectangle($picture, 200, 300, 299, 319, 0x00ff00);
        $file = sys_get_temp_dir() . '/lucid-step-seen-' . getmypid() . '.png';
        imagepng($picture, $file);
        $me->choose('input[type=file]', $file)
            ->see('Saved', '.tray figcaption')
            ->click('.tray .acts button', 'Compare')
            ->see('2,100 of ' . number_format($w * $h) . ' pixels', '.compare');
        $me->see(number_format(210_000 / ($w * $h), 2) . ' % differ', '.compare');
        $this->check($me, 'comparing');
        $me->click('.compare .tool', 'Side by side')
            ->see('How it should look', '.compare .beside')
            ->click('.compare .tool', 'Slider')
            ->waitFor('.compare .range');
        $this->check($me, 'comparing with the slider');
        // The green part is told to be ignored: for this reference, once and for all.
        $me->click('.compare .tool', 'Difference')->click('.compare button', 'Leave a part out')->waitFor('.compare .stack img');
        $me->drag(190 / $w, 290 / $h, 320 / $w, 340 / $h, '.compare .stack img');
        $me->see('100 of ' . number_format($w * $h - 130 * 50), '.compare');
        $me->click('.compare button', 'Write it into the record')->see('written into the record')->seeNot('Close Esc', '.compare');
        $me->until(
            'for the comparison',
            fn(): bool => 100 === $this->value("select (compared->>'differing')::int from evidence where name = ?", [basename($file)]),
        );
        $me->see('% differ', '.tray .acts');
        unlink($file);
    }

    public function test_the_handset_is_slow_or_away_and_is_captured_from_inside(): void
    {
        $me = $this->begin();
        $this->sharing($me);
        $me->click('.tools button', 'Handset')->waitFor('.handset iframe');
        $inside = fn(): string => (string) $me->inHandset('return document.body.innerText');
        $me->until('for the practice page', fn(): bool => str_contains($inside(), 'Choose a sailing'));
        $size = static fn(): string => (string) $me->inHandset('return `${innerWidth} x ${innerHeight}`');
        $me->until('for a tablet, upright, as the configuration says', fn(): bool => '768 x 1024' === $size());
        $this->check($me, 'the handset');
        $me->script(
            "document.querySelector('[aria-label=Size]').value = 0; " .
                "document.querySelector('[aria-label=Size]').dispatchEvent(new Event('change'))",
        );
        $me->press('o');
        $me->until('for a small phone, turned', fn(): bool => '640 x 360' === $size());
        // The key is heard while one works inside the frame, and not while one types there.
        $press = fn(string $on): mixed => $me->inHandset(
            "document.querySelector(arguments[0]).dispatchEvent(new KeyboardEvent('keydown', { key: 'h', bubbles: true }))",
            $on,
        );
        $press('#clock');
        $me->seeNot('Captured onto the step.');
        $press('main button');
        $me->see('Captured onto the step.')->see('small-phone-turned-', '.tray figcaption');
        $me->until(
            'for the picture',
            fn(): bool => 'handset' === $this->value('select source from evidence order by created_at desc limit 1'),
        );
        $network = fn(string $to): mixed => $me->script(
            "const n = document.querySelector('[aria-label=Network]'); n.value = arguments[0]; n.dispatchEvent(new Event('change'))",
            $to,
        );
        $network('none');
        $me->until('for no network inside', fn(): bool => str_contains($inside(), 'No network'));
        $me->press('1')->see('Step 2 of 5')->see('Saved', 'header');
        $network('slow');
        $me->until('for the page, slowly', fn(): bool => str_contains($inside(), 'Choose a sailing'));
        $took = (float) $me->inHandset("return performance.getEntriesByType('navigation')[0].duration");
        self::assertGreaterThan(1400, $took, 'a slow network takes its time');
        $me->seeNot('does not say that it takes part');
        $me->click('.handset button', 'Put it away')->seeNot('Full network');
    }

    public function test_the_handset_shows_what_the_project_lists_and_nothing_leads_out_of_it(): void
    {
        $me = $this->begin();
        $me->click('.tools button', 'Handset')->waitFor('.handset iframe');
        $inside = fn(): string => (string) $me->inHandset("return document.body?.innerText ?? ''");
        $me->until('for the practice page', fn(): bool => str_contains($inside(), 'Choose a sailing'));
        $address = fn(string $to): Tester => $me->type('.handset input', $to)->press(Key::ENTER);
        $address('ftp://nowhere')->see('Write an address');
        $address('https://elsewhere.example/')->see('This project does not list elsewhere.example');
        // A path leads on from where one is.
        $address('/#/rules')->seeNot('does not list');
        $me->until('for the rules', fn(): bool => '#/rules' === $me->inHandset('return location.hash'));
        // Whatever runs in the page cannot read or leave what is around it.
        foreach (['return top.document.title', "top.location = 'https://elsewhere.example/'"] as $way) {
            self::assertSame('SecurityError', $me->inHandset("try { {$way}; return 'done' } catch (e) { return e.name }"), $way);
        }
        $me->inHandset('location.href = arguments[0]', getenv('LUCID_TEST_URL') . '/');
        $me->until('for nothing at all', fn(): bool => '' === $inside() || !str_contains($inside(), 'Lucid Step'));
        self::assertStringNotContainsString('Sign in', $inside());
        $me->see('Step 1 of 5');
        self::assertStringStartsWith('/SKR/', $me->path());
    }

    public function test_a_camera_takes_a_picture_or_says_why_not(): void
    {
        $me = $this->begin();
        // Not allowed: said, with a way to try again.
        $me->press('i')->see('The browser did not allow it', '[aria-label=Camera]');
        $this->check($me, 'the camera');
        $me->tell('Browser.grantPermissions', ['permissions' => ['videoCapture', 'clipboardReadWrite', 'clipboardSanitizedWrite']]);
        $me->click('[aria-label=Camera] button', 'Try again')->waitFor('[aria-label=Camera] video');
        $me->click('[aria-label=Camera] button', 'Take a picture')
            ->see('Taken onto the step.')
            ->press(Key::ESCAPE)
            ->see('camera-', '.tray figcaption')
            ->see('Saved', '.tray figcaption');
        self::assertSame('camera', $this->value('select source from evidence order by created_at desc limit 1'));
        $me->script(
            "navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('none', 'NotFoundError')); " .
                'document.activeElement.blur()',
        );
        $me->press('i')
            ->see('There is no camera to capture here. Choose a file, or paste a picture.')
            ->press(Key::ESCAPE)
            ->seeNot('There is no camera');
        $me->press('1')->see('Step 2 of 5')->see('Saved', 'header');
    }

    public function test_what_is_too_large_is_said_on_the_spot_and_a_step_that_is_gone_from_its_case_is_walked_on(): void
    {
        $me = $this->begin();
        $dir = sys_get_temp_dir() . '/lucid-step-large-' . getmypid();
        mkdir($dir);
        $film = fopen("{$dir}/long.webm", 'w') ?: throw new \RuntimeException('No file.');
        fwrite($film, "\x1A\x45\xDF\xA3");
        ftruncate($film, 300 * 1024 * 1024);
        $me->choose('input[type=file]', "{$dir}/long.webm")->see(
            'long.webm has 300.0 MB; at most 100 MB are taken. Record a shorter part.',
            '.band',
        );
        // A bomb: a head that promises a hundred megapixels in a few bytes.
        file_put_contents(
            "{$dir}/bomb.png",
            "\x89PNG\r\n\x1a\n" . pack('N', 13) . 'IHDR' . pack('NN', 10_000, 10_000) . "\x08\x02\0\0\0" . str_repeat("\0", 200),
        );
        $me->choose('input[type=file]', "{$dir}/bomb.png")
            ->see('10000 × 10000 pixels', '.band')
            ->see('Saved', 'header');
        // Its author takes steps out meanwhile: what was begun is walked to its end as it was begun.
        $author = $this->tester()->signIn('anouk');
        $author->open('/SKR/casebook/SKR-C13')->see('Change the age to 17.');
        $author->script(
            <<<'JS'
            const ask = (method, body) => { const r = new XMLHttpRequest();
            r.open(method, '/api/v1/cases/SKR-C13', false);
            r.setRequestHeader('Accept', 'application/json');
            r.setRequestHeader('Content-Type', 'application/json');
            r.setRequestHeader('X-XSRF-TOKEN', decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]));
            r.send(body && JSON.stringify(body));
            return JSON.parse(r.responseText);
            };
            const now = ask('GET');
            ask('PUT', { title: now.case.title, steps: now.steps.slice(0, 3), revision: now.revision });
            JS
            ,
        );
        self::assertLessThan(5, $this->value("select steps_count from cases where key = 'SKR-C13'"));
        $me->press('1', '1', '1', '1', '1')->see('Finish this attempt')->press(Key::ENTER)->see('Saved', 'header');
        $me->until(
            'for the end',
            fn(): bool => 'pass' ===
                $this->value(
                    'select verdict from attempts a join entries e on e.id = a.entry_id join cases c on c.id = e.case_id ' .
                        "where c.key = 'SKR-C13' and a.number = 2",
                ),
        );
        exec('rm -rf ' . escapeshellarg($dir));
    }
}
