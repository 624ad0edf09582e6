<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;

/**
 * Requirements by keys: written, moved, linked to cases, confirmed, brought in and taken back; and what is proven of them.
 */
final class CoverageTest extends BrowserTestCase
{
    public function test_a_lead_writes_moves_and_links_what_must_hold_and_sees_what_is_proven(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/coverage')->see('requirements proven');
        $this->check($me, 'coverage');
        $me->press('j')->see('A journey can be booked', '.line.lit')->press('n')->waitFor('.new input');
        $me->type('.new input', 'A receipt is sent')->press(Key::ENTER)->see('A receipt is sent', '[role=treegrid]');
        $me->type('.new input', 'It names who travels')->press(Key::ENTER)->see('It names who travels', '[role=treegrid]');
        $me->press(Key::ESCAPE);
        // The second goes below the first, by Alt and an arrow key.
        $me->click('[role=treegrid] a', 'It names who travels');
        $me->see('No case shows whether it holds')->click('.above a', 'Coverage')->see('It names who travels', '[role=treegrid]');
        $this->arrow($me, 'It names who travels', 'ArrowRight');
        $me->until(
            'for it to stand below',
            fn(): bool => 'A receipt is sent' ===
                $this->value(
                    "select p.title from requirements r join requirements p on p.id = r.parent_id where r.title = 'It names who travels'",
                ),
        );
        $me->click('[role=treegrid] a', 'It names who travels')->see('A receipt is sent', '.above');
        $me->type('#link-words', 'SKR-C13')
            ->see('A passenger of 15', '.link-cases li')
            ->press(Key::ENTER)
            ->see('A passenger of 15', '.tag');
        $me->press(Key::ENTER)->see('A passenger of 15', '.cases')->see('1 of 1 walked');
        $this->check($me, 'a requirement');
        // Its words change: the case is to be looked at until somebody says that it fits.
        $me->script('document.activeElement.blur()');
        $me->press('e')->waitFor('.form input');
        $me->type('.form input', 'It names who travels and when');
        // What is typed is kept at each pause.
        usleep(400_000);
        $me->reload()->waitFor('.form input');
        self::assertSame('It names who travels and when', $me->script('return document.querySelector(".form input").value'));
        $me->click('.form button', 'Save')->see('1 case to be looked at');
        $me->script('document.activeElement.blur()');
        $me->press('y')->seeNot('to be looked at');
        $me->click('.above a', 'Coverage')->see('It names who travels and when', '[role=treegrid]');
        // Through a lens, and only what is wanting.
        $build = $this->value("select id from builds where name = '4.1.0-3'");
        $me->open("/SKR/coverage?build={$build}")
            ->see('requirements proven')
            ->press('w')
            ->see('All requirements');
        self::assertStringContainsString('gaps=yes', (string) $me->script('return location.search'));
        $this->check($me, 'what is wanting');
    }

    public function test_each_build_each_configuration_each_day_and_a_day_that_is_past(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/coverage')->see('requirements proven')->press('v');
        $me->see('4.2.0-7', '[aria-label="Requirements by build"]');
        $this->check($me, 'coverage by build');
        // A mark leads to the requirement on this build.
        $me->script('document.querySelector(\'[role="treegrid"] .column a\').click()');
        $me->waitFor('.cases');
        self::assertStringContainsString('build=', (string) $me->script('return location.search'));
        $me->open('/SKR/coverage?view=configuration')->see('Desktop, wide', '[role=treegrid]')->press('v');
        $me->see('requirements are proven', '.trend')->waitFor('.trend svg[class*=plot]');
        $this->check($me, 'coverage day by day');
        $me->see('Today, by now', '.trend tbody');
        // As of a day, by typing it: nothing can be changed, a day to come is refused, and back to now.
        $day = (new \DateTimeImmutable('-12 days'))->format('Y-m-d');
        $me->open('/SKR/coverage')->see('requirements proven')->type('.lens .p-datepicker input', $day)->press(Key::TAB);
        $me->see('As it stood at the end of')->seeNot('New requirement')->see('requirements proven');
        self::assertStringContainsString("as_of={$day}", (string) $me->script('return location.search'));
        $this->check($me, 'coverage as of a day');
        $me->open('/SKR/coverage?as_of=2099-01-01')->see('This day is still to come.');
        $me->click('button', 'Back to now')->see('New requirement');
    }

    public function test_from_what_must_hold_to_the_picture_and_back_by_keys(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/coverage/SKR-Q6')->see('Sailings to Farra');
        $me->click('.actions a', 'Trace')->see('pieces of evidence')->see('SKR-D4', '.defects');
        $this->check($me, 'a trace');
        $kind = fn(): string => (string) $me->script('return document.activeElement.dataset.kind ?? ""');
        $me->press('j');
        self::assertSame('requirement', $kind());
        $right = ['case', 'entry', 'attempt', 'defect', 'evidence'];
        foreach ($right as $next) {
            $me->press(Key::ARROW_RIGHT);
            self::assertSame($next, $kind());
        }
        // From the defect, the same way shorter; and on to its page.
        $me->press(Key::ARROW_LEFT)->press('t')->see('SKR-D4', '.title-line');
        $me->until('for the trace of it', fn(): bool => str_contains((string) $me->path(), '/trace/defect/'));
        $me->see('SKR-Q6', 'tbody')->seeNot('SKR-C37')->click('.title-line a', 'SKR-D4')->see('Trace', '.actions');
        $sheet = (string) $me->script('return fetch("/api/v1/projects/SKR/trace-export?kind=defect&id=SKR-D4").then((r) => r.text())');
        self::assertGreaterThanOrEqual(3, substr_count($sheet, "\r\n"));
        $phone = $this->tester(390, 844)->signIn('tobias')->open('/SKR/trace/case/SKR-C36')->see('SKR-Q6', 'tbody');
        $this->check($phone, 'a trace on a phone');
    }

    public function test_requirements_are_pasted_seen_beforehand_and_taken_back_as_one(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/coverage/import')->see('A file: CSV');
        $me->script(
            "const t = document.querySelector('textarea'); t.value = arguments[0]; t.dispatchEvent(new Event('input'))",
            "ID\tTitle\tParent\tOwner\nX-1\tLuggage\t\tMaren\nX-2\tOne bag goes free\tX-1\t\nX-3\t\tX-1\t",
        );
        $me->see('2 new, 0 changed, 0 as they are, 1 left out')->see('Say what must hold.');
        $this->check($me, 'requirements seen beforehand');
        $me->click('button', 'Take 2 in')->see('2 requirements made, 0 changed.')->see('pasted', '[aria-label="Brought in before"]');
        $me->open('/SKR/coverage')->see('One bag goes free', '[role=treegrid]');
        $me->open('/SKR/coverage/import')->click('button', 'Take it back')->see('Taken back.');
        $me->open('/SKR/coverage')->see('requirements proven')->seeNot('One bag goes free');
    }

    private function arrow(Tester $me, string $title, string $key): void
    {
        $me->script(
            <<<'JS'
            const links = [...document.querySelectorAll('[role=treegrid] a')];
            const link = links.find((a) => a.textContent.trim() === arguments[0]);
            link.focus();
            link.dispatchEvent(
                new KeyboardEvent('keydown', { key: arguments[1], altKey: true, bubbles: true, cancelable: true }),
            );
            JS
            ,
            $title,
            $key,
        );
    }
}
