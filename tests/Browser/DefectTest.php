<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

/**
 * A defect between a developer and a tester, until what failed of it is to be walked again.
 */
final class DefectTest extends BrowserTestCase
{
    public function test_a_developer_asks_back_the_tester_answers_and_the_fix_comes_back_to_be_walked(): void
    {
        $dev = $this->tester()->signIn('lina')->open('/SKR/defects/SKR-D35')->see('Choose Back.', '[aria-label="The failing step"]');
        $this->check($dev, 'a defect');
        $dev->type('#talk', 'Which tablet, @Anouk Sorrel?');
        usleep(700_000);
        $dev->reload();
        $dev->until(
            'what was typed',
            fn(): bool => 'Which tablet, @Anouk Sorrel?' === $dev->script("return document.querySelector('#talk')?.value"),
        );
        $this->serverDown();
        $dev->script("document.querySelector('#talk').focus()");
        $dev->chord(Key::CONTROL, Key::ENTER)->see('cannot be reached', '[aria-label="Talk"]');
        $this->serverUp();
        $dev->chord(Key::CONTROL, Key::ENTER)->see('Which tablet, @Anouk Sorrel?', '[aria-label="Talk"] li');
        $dev->script('document.activeElement.blur()');
        $dev->press('a')->waitFor('#move-note');
        $dev->press('Was it upright?')->chord(Key::CONTROL, Key::ENTER)->see('Lina Ashgrove asks: Was it upright?');
        $this->check($dev, 'a defect that is asked about');

        $me = $this->tester()->signIn('anouk')->open('/SKR/today')->see('Asked of you about defects');
        $me->click('[aria-label="Asked of you about defects"] a')->see('Was it upright?', '.asked');
        $me->press(Key::ENTER)->waitFor('#move-note');
        $me->press('Upright')->chord(Key::CONTROL, Key::ENTER)->see('SKR-D35: new.');
        self::assertSame('new', $this->value("select state from defects where key = 'SKR-D35'"));

        $lead = $this->tester()->signIn('maren')->open('/SKR/defects/SKR-D35')->click('aside button', 'Fixed in a build');
        $lead
            ->select('[aria-label="Build with the fix"]', '4.2.0-7')
            ->click('form.move button', 'Fixed in a build')
            ->see('fixed in 4.2.0-7');
        $this->value(
            "update attempts set build_id = (select id from builds where name = '4.2.0-5') where id in (select attempt_id from " .
                "defect_links l join defects d on d.id = l.defect_id where d.key = 'SKR-D35') returning 1",
        );
        $lead->reload()->see('To be walked again')->click('button', 'Ask for 1 retest')->see('1 retest asked for.');
        $this->check($lead, 'a defect that is fixed');
        self::assertSame(
            'retest',
            $this->value(
                "select e.display_state from entries e join cases k on k.id = e.case_id where k.key = 'SKR-C3' and " .
                    "e.retest_reason like 'SKR-D35%'",
            ),
        );
    }

    public function test_a_long_title_is_read_on_a_phone_and_a_fix_is_named_by_keys_alone(): void
    {
        $phone = $this->tester(390, 844)->signIn('lina')->open('/SKR/defects/SKR-D35')->see('Choose Back.');
        [$width, $room] = (array) $phone->script(
            "return ['h1', '.title-line'].map((of) => document.querySelector(of).getBoundingClientRect().width)",
        );
        self::assertGreaterThan(0.9 * $room, $width);
        $dev = $this->tester()->signIn('lina')->open('/SKR/defects/SKR-D3')->see('Fixed in a build');
        $dev->press(Key::ENTER)->waitFor('[aria-label="Build with the fix"]');
        $dev->chord(Key::CONTROL, Key::ENTER)->see('Choose the build that has the fix.');
        $dev->press('4')->chord(Key::CONTROL, Key::ENTER)->see('SKR-D3: fixed.');
    }

    public function test_one_is_filed_from_the_list_moved_on_the_board_by_keys_and_many_are_changed_at_once(): void
    {
        $me = $this->tester()->signIn('tobias')->open('/SKR/defects')->see('SKR-D35');
        $me->press('n')->see('Met on no walk.')->waitFor('#defect-title');
        $me->press('The gate stays shut at night');
        $me->type('#defect-actual', 'It stays shut')->type('#defect-steps', "1. Go to the quay\n3. Hold the code");
        $this->check($me, 'a new defect');
        $me->reload()->waitFor('#defect-title');
        $me->until(
            'what was typed',
            static fn(): bool => 'It stays shut' === $me->script("return document.querySelector('#defect-actual').value"),
        );
        $me->click('#defect-title')->chord(Key::CONTROL, Key::ENTER)->see('filed.')->see('How to get there');
        $key = (string) $this->value("select key from defects where title = 'The gate stays shut at night'");
        // Steps keep the numbers that they have.
        self::assertSame(3, (int) $me->script("return document.querySelectorAll('ol li')[1].value"));

        $me->open('/SKR/defects?as=board')->see($key, '[aria-label="New"]');
        $this->check($me, 'the board of defects');
        $me->script("document.getElementById('card-{$key}').focus()");
        $me->chord(Key::ALT, Key::ARROW_RIGHT)->see('cannot become reopened from there', '[role=alert]');
        $me->select("[aria-label=\"Move {$key}\"]", 'In work')->see($key, '[aria-label="In work"]');
        self::assertSame('in_work', $this->value("select state from defects where key = '{$key}'"));

        $me->click('.actions button', 'As a list')->see('As a board');
        $me->click("[role=row] input[aria-label*=\"{$key}\"]")->click('.bulk button', 'Change');
        $me->select('[aria-label="Severity"]', 'Trivial')->click('.bulk [type=submit]', 'See what changes');
        $me->see('severity: major → trivial', '.bulk');
        $this->check($me, 'many defects');
        $me->click('.bulk [type=submit]', 'Change 1 defect')->see('Changed 1 defect.')->click('.bar .link', 'Undo');
        $me->see('Undone: changed 1 defect');
        self::assertSame('major', $this->value("select severity from defects where key = '{$key}'"));
    }

    public function test_a_picture_is_pasted_into_the_talk_survives_a_reload_and_is_taken_out_by_an_admin(): void
    {
        $me = $this->tester()->signIn('tobias')->open('/SKR/defects/SKR-D3')->see('Picture or file');
        $me->script(
            "const c = document.createElement('canvas'); c.width = 300; c.height = 200; c.getContext('2d').fillRect(20, 20, 80, 40);" .
                'c.toBlob((b) => { const d = new DataTransfer(); d.items.add(new File([b], "total.png", { type: "image/png" }));' .
                'document.querySelector("#talk").dispatchEvent(new ClipboardEvent("paste", { bubbles: true, cancelable: true, ' .
                'clipboardData: d })); });',
        );
        $me->see('Draw or hide', '[aria-label="Talk"]');
        $me->reload()->see('Draw or hide', '[aria-label="Talk"]');
        $this->check($me, 'a picture that is to be said');
        $me->type('#talk', 'See the total')->chord(Key::CONTROL, Key::ENTER)->see('See the total', '[aria-label="Talk"] li');
        $me->until(
            'the picture at the words',
            fn(): bool => 1 ===
                $this->value(
                    "select count(*) from defect_files f join defect_comments c on c.id = f.comment_id where c.text = 'See the total'",
                ),
        );
        $me->seeNot('Draw or hide', '[aria-label="Talk"]')->waitFor('[aria-label="Talk"] .strip img');

        $admin = $this->tester()->signIn('corin')->open('/SKR/defects/SKR-D3')->see('See the total');
        $admin->click('[aria-label="Talk"] .strip button', 'Take the file out');
        $admin->type('[aria-label="Why the file is taken out"]', 'A face')->press(Key::ENTER)->see('took a file out');
        $this->check($admin, 'a file that was taken out');
        self::assertNull($this->value("select sha256 from defect_files where removed_reason = 'A face'"));
    }
}
