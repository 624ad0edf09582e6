<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

/**
 * Exploring with a charter: from one key to the debrief that a lead signs off, also while the server is away.
 */
final class SessionTest extends BrowserTestCase
{
    public function test_one_explores_writes_without_looking_away_and_a_lead_reads_it(): void
    {
        $me = $this->tester()->signIn('tobias')->open('/SKR/sessions')->see('Refunds near the 48-hour edge');
        $this->check($me, 'sessions');
        $me->press('n')->see('New session')->see('Explore');
        $me->script('document.activeElement.blur()');
        $me->type('#charter-title', 'Names with odd letters')->type('#charter-find', 'what is cut');
        $this->check($me, 'a new session');
        $me->chord(Key::CONTROL, Key::ENTER)->see('left')->see('to find what is cut');
        $me->waitFor('#line');
        $me->click('#line')->press('A note first', Key::ENTER)->see('A note first', '[aria-label=Timeline]');
        $me->chord(Key::ALT, 'q')->press('Is it cut in the code too?', Key::ENTER)->see('Is it cut', '[aria-label=Timeline]');
        $me->chord(Key::ALT, 's');
        $me->until(
            'what the time goes to',
            fn(): bool => 'running investigating' ===
                $this->value("select state || ' ' || (switches->-1->>1) from test_sessions order by started_at desc limit 1"),
        );
        $this->check($me, 'a session that runs');

        // The server goes away: what is written waits, is seen at once, and arrives once.
        $this->serverDown();
        $me->click('#line')->chord(Key::ALT, 'x');
        $me->press("O'Dara is cut on the list", Key::ENTER)->see("O'Dara is cut", '[aria-label=Timeline]')->see('waiting', '.issue');
        $me->reload()->see("O'Dara is cut", '[aria-label=Timeline]');
        $me->script('document.activeElement.blur()');
        $me->press('p')->see('Go on');
        $this->serverUp();
        $me->until(
            'the line and the pause to arrive',
            fn(): bool => $this->value(
                "select (select count(*) from session_lines where words like 'O%') || state from test_sessions " .
                    'order by started_at desc limit 1',
            ) === '1paused',
        );
        $me->click('button', 'Stop')->see('Debrief');
        $me->type('#covered', 'The list and the code')->click('button', 'Save the debrief')->seeNot('Saving');
        $me->until(
            'the debrief',
            fn(): bool => $this->value("select count(*) from test_sessions where covered = 'The list and the code'") === 1,
        );

        $lead = $this->tester()->signIn('maren')->open('/SKR/sessions')->see('Names with odd letters');
        $lead->open('/SKR/sessions/SKR-S7')->see('The list and the code')->see("O'Dara is cut", '[aria-label=Debrief]');
        $lead->type('#sign-note', 'Read')->click('button', 'Read, sign it off')->see('read it and signed it off');
        $this->check($lead, 'a session that is over');
        self::assertSame('debriefed', $this->value('select state from test_sessions order by started_at desc limit 1'));
        self::assertNotNull($this->value('select seal_signature from test_sessions order by started_at desc limit 1'));

        $phone = $this->tester(390, 844)->signIn('tobias')->open('/SKR/sessions/SKR-S4')->see('Go on');
        $this->check($phone, 'a session on a phone');
    }
}
