<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;

final class PagesTest extends BrowserTestCase
{
    public function test_go_to_finds_by_key_and_words_and_help_tells_the_keys(): void
    {
        $me = $this->tester()->signIn('maren');
        $me->see('Today')->chord(Key::CONTROL, 'k')->waitFor('[role=combobox]');
        $me->press('SKR-C17')->see("Islander's discount with a bike", '#go-to-list');
        $this->check($me, 'go to');
        $me->press(Key::ENTER)->see('Expected');
        self::assertSame('/SKR/casebook/SKR-C17', $me->path());
        $me->press('g', 'd')->see('Names with an apostrophe');
        self::assertSame('/SKR/defects', $me->path());
        $me->press('?')->see('Single keys act');
        $this->check($me, 'keys');
        $me->click('[role=dialog] input[type=checkbox]')->press(Key::ESCAPE)->seeNot('Single keys act');
        $me->press('g', 'c');
        usleep(300_000);
        self::assertSame('/SKR/defects', $me->path(), 'single keys are off');
    }

    public function test_how_one_works_goes_along_to_the_next_device_and_is_nobody_elses(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/today')->see('Today');
        $me->press('?')->click('[role=dialog] .key', 'Go to Casebook')->press('q')->see('q and b have changed places');
        $me->press(Key::ESCAPE)->press('g', 'q')->see('SKR-C11');
        $me->open('/account')->see('How you work');
        $me->script("document.querySelector('input[value=dark]').click()");
        $me->until('the dark ground', static fn(): bool => 'dark' === $me->script('return document.documentElement.dataset.scheme'));
        $this->check($me, 'account');
        $again = $this->tester()->signIn('maren')->open('/SKR/cycles')->see('New cycle');
        self::assertSame('dark', $again->script('return document.documentElement.dataset.scheme'));
        self::assertSame('rgb(20, 27, 38)', $again->script('return getComputedStyle(document.body).backgroundColor'));
        $again->press('g', 'q')->see('SKR-C11');
        $this->check($again, 'casebook on dark ground');
        $other = $this->tester()->signIn('tobias')->open('/SKR/cycles')->see('Cycles');
        self::assertSame('system', $other->script('return document.documentElement.dataset.scheme'));
        $other->press('g', 'b')->see('SKR-C11');
    }

    public function test_a_setting_is_found_changed_and_taken_back(): void
    {
        $me = $this->tester()->signIn('maren')->open('/SKR/setup')->see('Types');
        $this->check($me, 'setup');
        $me->type('[aria-label="Find a setting"]', 'closes itself')->see('A cycle closes itself · Cycles');
        $me->press(Key::DOWN, Key::ENTER)->see('Cycles are reviewed before they are released');
        $me->click('#cycle_closes_itself')->see('It counts from now on');
        $me->open('/SKR/setup/log')->see('Policy “A cycle closes itself”: on');
        $me->click('[aria-label^="Undo: Policy"]')->see('It is as it was before.')->see('Policy “A cycle closes itself”: off');
        $this->check($me, 'log of the setup');
        self::assertFalse((bool) $this->value("select (policies ->> 'cycle_closes_itself')::boolean from projects where code = 'SKR'"));
    }

    public function test_filters_stand_in_the_address_and_states_move(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead->open('/SKR/cycles/SKR-R2?shows=fail')->see('of 42 entries')->seeNot('SKR-C14');
        $lead->type('[aria-label="Find entries by words or a key"]', 'sailings')->see('SKR-C2');
        $lead->until('for the address', fn(): bool => str_contains((string) $lead->script('return location.search'), 'q=sailings'));
        $lead->reload()->see('SKR-C2')->seeNot('SKR-C26');
        $lead->open('/SKR/defects/SKR-D1')->click('.title-line button', 'Take it in work')->waitFor('#move-note');
        $lead->chord(Key::CONTROL, Key::ENTER)->see('Accepted → in work');
        $lead
            ->open('/SKR/cycles/SKR-R2')
            ->click('.list a', 'Vehicle of 5.00 m')
            ->click('button', 'Ask for a retest')
            ->click('button', 'Ask for the retest')
            ->see('Say what should be looked at again.');
        $lead->type('#retest-reason', 'Look at 5.01 m too')->click('button', 'Ask for the retest')->see('Retest (was fail)');
    }

    public function test_the_first_load_of_the_walk_is_small(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see('Start SKR-C13')->press(Key::ENTER)->see('Step 1 of 5');
        // What the service worker hands out is already unpacked: measured without it and without the cache.
        $me->tell('Network.enable');
        $me->tell('Network.setBypassServiceWorker', ['bypass' => true]);
        $me->tell('Network.setCacheDisabled', ['cacheDisabled' => true]);
        $me->reload()->see('Step 1 of 5');
        // A step is shown as it was typed until what reads Markdown is there.
        $me->see('Book', '.lit strong');
        [$bytes, $later] = $me->loadedBytes('/markdown-');
        self::assertGreaterThan(100_000, $bytes);
        self::assertLessThan(200_000, $bytes);
        self::assertGreaterThan(10_000, $later);
        fwrite(STDERR, sprintf("First load of the walk: %s bytes, and %s later\n", number_format($bytes), number_format($later)));
    }

    public function test_a_wrong_password_says_so_and_signing_out_ends_it(): void
    {
        $me = $this->tester();
        $me->open('/sign-in')
            ->type('#email', 'tobias@skerrywick.test')
            ->type('#password', 'wrong')
            ->press(Key::ENTER)
            ->see('do not belong together');
        $me->signIn('tobias')->click('.person button')->click('.menu button', 'Sign out')->see('Sign in to walk your cycles.');
        $me->open('/SKR/today')->see('Sign in to walk your cycles.');
    }

    public function test_signing_out_while_the_server_is_away_leaves_nothing_and_is_told_later(): void
    {
        $me = $this->tester()->signIn('tobias');
        $me->see(', on this device');
        self::assertContains('pack:SKR', $me->kept());
        $me->until(
            'for the application to be kept on the device',
            static fn(): bool => true === $me->script("return caches.match('/').then((kept) => kept !== undefined)"),
        );
        $this->serverDown();
        $me->click('.person button')->click('.menu button', 'Sign out')->see('Sign in to walk your cycles.');
        self::assertSame([], $me->kept());
        $me->open('/SKR/today')->see('Sign in to walk your cycles.');
        $this->serverUp();
        $me->open('/SKR/today')->see('Sign in to walk your cycles.')->see('This is a demo');
        self::assertSame(
            401,
            $me->script("return fetch('/api/v1/session', { headers: { Accept: 'application/json' } }).then((a) => a.status)"),
        );
        $me->signIn('maren')->see('Maren Voss');
    }

    public function test_the_practice_page_computes_and_has_its_faults(): void
    {
        $me = $this->tester();
        $me->open((string) getenv('PRACTICE_URL'))->see('Choose a sailing')->click('button', 'Choose 11:00')->see('12.40');
        $me->type('[name=age0]', '15')
            ->see('Total 6.20')
            ->type('[name=age0]', '16')
            ->see('Total 6.20')
            ->type('[name=age0]', '17')
            ->see('Total 12.40');
        $me->type('[name=card0]', 'HL-2204-2')->see('Total 7.44')->type('[name=bikes]', '1')->see('Total 9.24');
        $me->type('[name=name0]', 'Isla Fenn')
            ->type('[name=email]', 'isla@skerrywick.test')
            ->click('button', 'Go on to payment')
            ->see('To pay 9.24')
            ->click('button', 'Pay now')
            ->see('You are booked');
        self::assertMatchesRegularExpression('/^H1406001-\d$/', $me->text('.code'));
    }
}
