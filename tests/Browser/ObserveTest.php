<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;

/**
 * What is done on the practice page comes into the session by itself: all of it, once, in order, and nothing that is private.
 */
final class ObserveTest extends BrowserTestCase
{
    /** Fields of which nothing may leave the page, and what is typed into each. */
    private const PRIVATE = [
        '<input type="password" aria-label="Secret word">',
        '<input autocomplete="one-time-code" aria-label="Six figures">',
        '<input autocomplete="section-a cc-number" aria-label="Long number">',
        '<input aria-label="Credit card">',
        '<input name="passwort" aria-label="Wort">',
        '<label>Security code <input></label>',
        '<div data-private><input aria-label="Diagnosis"></div>',
        '<div data-private><textarea aria-label="Letter"></textarea></div>',
        '<div data-private><p contenteditable aria-label="Memo">x</p></div>',
        // A button makes the letters of a password visible: they stay one.
        '<input type="password" aria-label="Shown later" onfocus="this.type=\'text\'">',
    ];

    public function test_what_is_done_is_written_down_and_what_is_private_never_leaves_the_page(): void
    {
        $me = $this->observed();
        $size = \strlen((string) file_get_contents(getenv('LUCID_TEST_URL') . '/observe.js'));
        self::assertLessThan(12_000, $size);
        $me->click('button', 'Choose 11:00')->see('Who and what');
        $me->type('input[name=name0]', 'Ada')->type('input[name=bikes]', '2');
        $me->click('button', 'Add a passenger')->waitFor('input[name=name1]');
        $me->type('input[name=name1]', 'Bo')->type('input[name=length]', '5')->type('input[name=email]', 'a@a.test');
        $me->click('button', 'Go on to payment')->see('To pay');
        $me->click('a', 'Fares and rules')->see('One way');
        $me->script('history.back()');
        $me->see('To pay')->script("dispatchEvent(new ErrorEvent('error', {message: 'The quay is closed'})); fetch('/nothing-here')");
        usleep(500_000);
        $me->reload()->see('Choose a sailing')->script("document.querySelector('[name=route]').focus()");
        $me->press("\u{E015}");
        $this->arrives(
            <<<'TEXT'
            visit typed /
            press "Choose 11:00"
            visit press /#/passengers
            type "Name 1" Ada
            type "Bikes" 2
            press "Add a passenger"
            type "Name 2" Bo
            type "input[name=\"length\"]" 5
            type "E-mail" a@a.test
            submit "Go on to payment"
            visit submit /#/pay
            press "Fares and rules"
            visit press /#/rules
            visit back /#/pay
            trouble The quay is closed
            trouble /nothing-here answered 404
            visit reload /#/pay
            visit redirect /#/sailing
            choose "Route" Skerrywick – Farra
            TEXT
            ,
        );

        // In a shadow root and in a frame of the same origin it is seen too.
        $me->script(
            "const s = document.createElement('div'); s.id = 's'; document.querySelector('#page').prepend(s);" .
                "s.attachShadow({mode: 'open'}).innerHTML = '<form><label>Deck <input></label><button>Keep it</button></form>';" .
                "s.shadowRoot.querySelector('form').onsubmit = (e) => e.preventDefault();" .
                "const f = document.createElement('iframe'); f.srcdoc = '<button>Within</button>'; f.id = 'f'; s.before(f);",
        );
        usleep(500_000);
        $me->script("document.querySelector('#s').shadowRoot.querySelector('input').focus()");
        $me->press('A');
        $me->script("document.querySelector('#s').shadowRoot.querySelector('button').focus()");
        $me->press("\u{E00D}");
        $me->script("const d = document.querySelector('#f').contentDocument; d.querySelector('button').focus()");
        $me->press("\u{E00D}");
        $this->arrives("type \"Deck\" A\nsubmit \"Keep it\"\npress \"Within\"", 19);

        // A page of fields that are never read: what is typed there is nowhere, on the way or kept.
        $me->script('document.querySelector("#page").innerHTML = arguments[0].join("<br>")', self::PRIVATE);
        foreach (array_keys(self::PRIVATE) as $i) {
            $me->script("document.querySelectorAll('#page input, #page textarea, #page [contenteditable]')[{$i}].focus()");
            $me->press("GEHEIM{$i}");
        }
        $me->script('document.activeElement.blur()');
        $me->until(
            'all of them to be told',
            fn(): bool => $this->value("select count(*) from session_lines where kind = 'type' and value is null") ===
                \count(self::PRIVATE),
        );
        self::assertSame(
            0,
            $this->value(
                'select count(*) from (select l::text as t from session_lines l union all select e::text from session_events e) x ' .
                    "where t like '%GEHEIM%'",
            ),
        );
        self::assertStringNotContainsString(
            'GEHEIM',
            (string) $me->script('return JSON.stringify(localStorage) + JSON.stringify(sessionStorage)'),
        );
    }

    public function test_acts_wait_while_the_server_is_away_tabs_are_told_apart_and_a_code_ends_with_its_session(): void
    {
        $me = $this->observed();
        $this->serverDown();
        $me->click('button', 'Choose 11:00')->see('Who and what');
        $me->type('input[name=name0]', 'Ada');
        usleep(1_500_000);
        self::assertStringContainsString('Choose 11:00', (string) $me->script('return JSON.stringify(localStorage)'));
        $this->serverUp();
        // The page is opened anew before anything was sent.
        $me->reload()->see('Choose a sailing');
        $this->arrives("visit typed /\npress \"Choose 11:00\"\nvisit press /#/passengers\ntype \"Name 1\" Ada\nvisit reload /#/passengers");

        // A link in a tab of its own: it knows from which it was opened.
        $me->script(
            "const a = document.createElement('a'); a.href = '/#/rules'; a.target = '_blank'; a.textContent = 'Apart'; " .
                "document.querySelector('#page').prepend(a)",
        );
        $me->click('a', 'Apart');
        $me->until(
            'the page in its own tab',
            fn(): bool => $this->value(
                "select count(*) from session_lines v where reached = 'pressed_tab' and page = '/#/rules' and opener = " .
                    "(select tab from session_lines where kind = 'press' and control = 'Apart')",
            ) === 1,
        );
        // Paused at the badge, nothing is told.
        $me->script("localStorage.setItem('lucid-step:off', '1')");
        $me->click('a', 'Fares and rules')->see('One way');
        $me->script("localStorage.removeItem('lucid-step:off')");
        self::assertSame(
            0,
            $this->value("select count(*) from session_lines where created_at > now() - interval '1 hour' and control = 'Fares and rules'"),
        );

        $me->toWindow(0)->see('Listening to the page', 'aside')->see('acts', 'aside');
        $this->check($me, 'a session that listens');
        $me->click('button', 'Stop')->see('Debrief');
        $me->toWindow(1);
        $me->click('a', 'Boarding')->see('Boarding at the quay');
        $me->until(
            'it to forget the code',
            static fn(): bool => 'null' === $me->script("return String(localStorage.getItem('lucid-step:code'))"),
        );
        self::assertSame(
            0,
            $this->value("select count(*) from session_lines where created_at > now() - interval '1 hour' and control = 'Boarding'"),
        );
    }

    /**
     * Of a dozen acts those that matter: what a developer is given leads, on a fresh page, to the same fault.
     */
    public function test_the_steps_of_a_defect_lead_to_the_same_fault_again(): void
    {
        $me = $this->observed();
        $me->click('button', 'Choose 15:30')->see('Who and what')->click('a', 'Book')->see('Choose a sailing');
        $me->click('button', 'Choose 11:00')->see('Who and what');
        $me->type('input[name=age0]', '15')->type('input[name=name0]', 'Ada')->type('input[name=age0]', '16');
        $me->script('document.activeElement.blur()');
        $me->click('a', 'Fares and rules')->see('16 to 64 full fare');
        $me->script('history.back()');
        $me->see('Ada (child)')->toWindow(0)->see('acts', '[aria-label=Timeline]');
        $me->click('#line')->chord("\u{E00A}", 'x')->press("16 pays the child's fare", "\u{E007}")->see('16 pays', '.issue');
        $me->waitFor('.issue a');
        $me->until(
            'the line to arrive',
            fn(): bool => 1 === $this->value("select count(*) from session_lines where words like '16 pays%'"),
        );
        $me->chord("\u{E00A}", 'd')->see('What led to')->see('entered anew right after');
        $this->check($me, 'what led to a fault');
        // What was left out is brought back, and left out again, by a key.
        $struck = static fn(): int => (int) $me->script("return document.querySelectorAll('[aria-label=\"What led there\"] s').length");
        $before = $struck();
        $me->script("document.querySelector('[aria-label=\"What led there\"] s').click()");
        $me->press('x')->until('it to be back', static fn(): bool => $before - 1 === $struck());
        $me->press('x')->until('it to be out again', static fn(): bool => $before === $struck());
        $me->reload()->see('What led to');

        // Walked again by hand: one step after the other, and what one saw.
        $steps = array_column(
            (array) $me->script("return [...document.querySelectorAll('aside ol li')].map((l) => ({words: l.textContent}))"),
            'words',
        );
        $me->press('w')->see('It showed');
        $me->press(...array_fill(0, \count($steps), '1'));
        $me->press('1')->see('seen 1 of 1 times');
        $me->type('#repro-expected', 'The full fare from 16 on');
        $me->click('button', 'Both')->see('What came of it')->see('SKR-D')->see('SKR-C');
        $this->check($me, 'a fault that was filed');
        $filed = (string) $this->value('select steps from defects order by number desc limit 1');
        self::assertSame(
            array_map(static fn(string $w, int $i): string => $i + 1 . ". {$w}", $steps, array_keys($steps)),
            explode("\n", $filed),
        );

        $fresh = $this->tester()->open((string) getenv('PRACTICE_URL'));
        $this->walk($fresh, $filed);
        $fresh->see('Ada (child)');
    }

    /**
     * Does what numbered sentences say.
     */
    private function walk(Tester $me, string $steps): void
    {
        foreach (explode("\n", $steps) as $step) {
            if (1 === preg_match('/^\d+\. Open "(.*)"$/', $step, $m)) {
                $me->script('location.href = arguments[0]', $m[1]);
            } elseif (1 === preg_match('/^\d+\. Go back to ".*"$/', $step)) {
                $left = (string) $me->script('return location.href');
                $me->script('history.back()');
                $me->until('to be back', static fn(): bool => $left !== $me->script('return location.href'));
            } elseif (1 === preg_match('/^\d+\. (?:Press|Send) "(.*)"$/', $step, $m)) {
                $me->click('a, button', $m[1]);
            } elseif (1 === preg_match('/^\d+\. Type "(.*)" into "(.*)"$/', $step, $m)) {
                $me->type($this->field($me, $m[2]), $m[1]);
            } else {
                self::fail("Nobody could follow: {$step}");
            }
        }
    }

    private function field(Tester $me, string $called): string
    {
        $name = '';
        $me->until("a field called {$called}", static function () use ($me, $called, &$name): bool {
            $name = (string) $me->script(
                "return [...document.querySelectorAll('label')].find((l) => l.innerText.trim() === arguments[0])" .
                    "?.querySelector('input').name ?? ''",
                $called,
            );

            return '' !== $name;
        });

        return "input[name={$name}]";
    }

    private function observed(): Tester
    {
        $me = $this->tester()->signIn('tobias')->open('/SKR/sessions/SKR-S4')->see('Go on');
        $me->script('document.activeElement.blur()');
        $me->press('p')->see('Pause')->click('button', 'Observe the application')->see('Open Practice page');
        $me->click('a', 'Open Practice page')->toWindow(1)->see('Choose a sailing');
        self::assertSame('', (string) $me->script('return location.hash'));

        return $me;
    }

    /**
     * Waits until so much was written down, and compares.
     *
     * @param  int  $after lines that are known already
     */
    private function arrives(string $acts, int $after = 0): void
    {
        $told = fn(): array => array_slice(
            explode(
                "\n",
                (string) $this->value(
                    "select string_agg(trim(concat_ws(' ', kind, reached, '\"' || replace(nullif(control, ''), '\"', '\\\"') || '\"', " .
                        "value, case kind when 'visit' then page when 'trouble' then words end)), e'\\n' order by done_at, counter) " .
                        'from session_lines ' .
                        "where created_at > now() - interval '1 hour' and kind in " .
                        "('visit', 'press', 'type', 'choose', 'tick', 'submit', 'trouble')",
                ),
            ),
            $after,
        );
        $expected = explode("\n", $acts);
        for ($i = 0; $i < 100 && \count($told()) < \count($expected); ++$i) {
            usleep(100_000);
        }
        self::assertSame($expected, $told());
    }
}
