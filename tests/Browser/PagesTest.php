<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use Facebook\WebDriver\WebDriverKeys as Key;
use LucidStep\Tests\Support\BrowserTestCase;
use LucidStep\Tests\Support\Tester;
use PHPUnit\Framework\Attributes\DataProvider;

final class PagesTest extends BrowserTestCase
{
    /**
     * @return iterable<string, array{int, int, bool}>
     */
    public static function screens(): iterable
    {
        yield 'desk' => [1280, 800, false];
        yield 'desk, dark' => [1280, 800, true];
        yield 'phone' => [390, 844, false];
    }

    #[DataProvider('screens')]
    public function test_every_page_is_accessible_and_nothing_hangs_over(int $width, int $height, bool $dark): void
    {
        $me = $this->tester($width, $height, $dark);
        $me->open('/sign-in')->see('This is a demo');
        $this->check($me, 'sign in');
        $me->signIn('tobias')->see('Retests asked of you');
        $this->check($me, 'today');
        foreach (['/SKR/cycles' => 'Release 4.2', '/SKR/cycles/SKR-R2' => 'SKR-C13', '/SKR/casebook' => 'SKR-C1', '/SKR/casebook/SKR-C17' => 'Add a second bike', '/SKR/casebook?q=bike&peek=SKR-C34' => 'Last results', '/SKR/casebook/SKR-C69' => 'card', '/SKR/casebook/SKR-C2/history' => 'What happened', '/SKR/casebook/routines' => 'Begin a booking', '/SKR/casebook/tables' => 'Vehicle lengths', '/SKR/casebook/desk?mine=no' => 'Likely doubles', '/SKR/casebook/bin' => 'The bin is empty', '/SKR/casebook/import' => 'Bring cases in', '/SKR/setup' => 'Fields of your own', '/SKR/setup/walking' => 'Who records', '/SKR/defects' => 'SKR-D1', '/SKR/defects/SKR-D2' => 'History', '/SKR/cycles?q=' => 'Release', '/SKR/nothing/here' => 'Not found'] as $path => $words) {
            $me->open($path)->see($words);
            $this->check($me, $path);
        }
        // What a lead plans with is made of the same parts in the dark.
        if (!$dark) {
            $this->planning($width, $height);
        }
        $me->open('/SKR/casebook/routines')->click('a', 'Begin a booking')->see('Used in 37 places');
        $this->check($me, 'routine');
        $me->open('/SKR/casebook/tables')->click('a', 'Islanders')->see('Secret values');
        $this->check($me, 'data table');
        $me->open('/SKR/casebook?q=bike')->click('[role=row] input', '')->click('.bulk .link', 'Edit')->see('As it is');
        $this->check($me, 'editing many');
        $me->open('/SKR/cycles/SKR-R2')->click('tbody a', 'A passenger of 15')->see('Instead:');
        $this->check($me, 'entry');
        $me->click('.record button', 'Every event')->see('Verdict given');
        $this->check($me, 'the record');
        $me->open('/SKR/cycles/SKR-R2')->see('SKR-C13')->press('x')->click('.judge button', 'Choose all')->click('.judge .give', 'Blocked');
        $this->check($me, 'judging from the list');
        $me->open('/SKR/today')->click('.page button', 'Start SKR-C13')->see('Step 1 of 5');
        $this->check($me, 'walk');
        $me->press('.')->waitFor('table.lines');
        $this->check($me, 'the sheet');
        $me->press('.')->click('.tools button', 'Log text')->see('Log text, kept as a file')->click('.band .link', 'It is something else');
        $this->check($me, 'evidence and surroundings');
        $me->click('.band button', 'Leave it')->press('a')->see('A better wording');
        $this->check($me, 'asking');
        $me->click('.ask button', 'Leave it');
        $me->click('.give', 'Fail')->press('Wrong.')->waitFor('.two');
        $this->check($me, 'failing a step');
        $me->click('button', 'Record and draft a defect')->see('Defect from step 1')->waitFor('#defect-title');
        $this->check($me, 'drafting a defect');
        $me->click('.panel button', 'Not now');
        $me->script('document.activeElement?.blur()');
        $me->press('f')->see('Finish this attempt');
        $this->check($me, 'wrap-up');
    }

    private function planning(int $width, int $height): void
    {
        $lead = $this->tester($width, $height)->signIn('maren');
        foreach (['/SKR/cycles' => 'Summer timetable', '/SKR/cycles/new' => 'What is walked', '/SKR/cycles/SKR-R2/plan?shows=not_run' => 'Load', '/SKR/cycles/SKR-R2/paths' => 'joined by conditions', '/SKR/cycles/SKR-R2/log' => 'Sign-off', '/SKR/cycles/SKR-R2/compare?with=SKR-R1' => 'Compared', '/SKR/queue' => 'Waits for a lead', '/SKR/setup/planning' => 'Pairs that cannot meet', '/mail' => 'Caught mails'] as $path => $words) {
            $lead->open($path)->see($words);
            $this->check($lead, $path);
        }
        $lead->open('/SKR/cycles/SKR-R4/plan')->click('.line', '')->see('Set the condition');
        $this->check($lead, 'an entry of a plan');
        foreach (['Add entries' => 'The whole casebook', 'Hand out' => 'By shares', 'Short of time' => 'Leave out', 'Dates, build, people' => 'Watchers', 'Again' => 'Will be'] as $word => $then) {
            $lead->click('.tools .link', $word)->see($then);
            $this->check($lead, "plan: {$word}");
        }
        $lead->leave();
    }

    public function test_go_to_finds_by_key_and_words_and_help_tells_the_keys(): void
    {
        $me = $this->tester()->signIn('maren');
        $me->see('Today')->chord(Key::CONTROL, 'k')->waitFor('[role=combobox]');
        $me->press('SKR-C17')->see("Islander's discount with a bike", '#go-to-list');
        $this->check($me, 'go to');
        $me->press(Key::ENTER)->see('Expected');
        self::assertSame('/SKR/casebook/SKR-C17', $me->path());
        $me->press('g', 'd')->see('Sailings to Farra');
        self::assertSame('/SKR/defects', $me->path());
        $me->press('?')->see('Single keys act on this device');
        $this->check($me, 'keys');
        $me->click('[role=dialog] input[type=checkbox]')->press(Key::ESCAPE)->seeNot('Single keys act');
        $me->press('g', 'c');
        usleep(300_000);
        self::assertSame('/SKR/defects', $me->path(), 'single keys are off');
    }

    public function test_filters_stand_in_the_address_and_states_move(): void
    {
        $lead = $this->tester()->signIn('maren');
        $lead->open('/SKR/cycles/SKR-R2?shows=fail')->see('of 42 entries')->seeNot('SKR-C14');
        $lead->type('.filters input', 'sailings')->see('SKR-C2');
        $lead->until('for the address', fn (): bool => str_contains((string) $lead->script('return location.search'), 'q=sailings'));
        $lead->reload()->see('SKR-C2')->seeNot('SKR-C26');
        $lead->open('/SKR/defects/SKR-D1')->click('[aria-label="Move it to"]')->click('[role=option]', 'In work')->click('button', 'Move to in work')->see('Accepted → In work');
        $lead->open('/SKR/cycles/SKR-R2')->click('tbody a', 'Vehicle of 5.00 m')->click('button', 'Ask for a retest')->click('button', 'Ask for the retest')->see('Say what should be looked at again.');
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
        $bytes = $me->loadedBytes();
        self::assertGreaterThan(100_000, $bytes);
        self::assertLessThan(300_000, $bytes);
        fwrite(STDERR, sprintf("First load of the walk: %d kB\n", intdiv($bytes, 1000)));
    }

    public function test_a_wrong_password_says_so_and_signing_out_ends_it(): void
    {
        $me = $this->tester();
        $me->open('/sign-in')->type('#email', 'tobias@skerrywick.test')->type('#password', 'wrong')->press(Key::ENTER)->see('do not belong together');
        $me->signIn('tobias')->click('.person button')->click('.menu button', 'Sign out')->see('Sign in to walk your cycles.');
        $me->open('/SKR/today')->see('Sign in to walk your cycles.');
    }

    public function test_the_practice_page_computes_and_has_its_faults(): void
    {
        $me = $this->tester();
        $me->open('/practice/')->see('Choose a sailing')->click('button', 'Choose 11:00')->see('12.40');
        $me->type('[name=age0]', '15')->see('Total 6.20')->type('[name=age0]', '16')->see('Total 6.20')->type('[name=age0]', '17')->see('Total 12.40');
        $me->type('[name=card0]', 'HL-2204-2')->see('Total 7.44')->type('[name=bikes]', '1')->see('Total 9.24');
        $me->type('[name=name0]', 'Isla Fenn')->type('[name=email]', 'isla@skerrywick.test')->click('button', 'Go on to payment')->see('To pay 9.24')->click('button', 'Pay now')->see('You are booked');
        self::assertMatchesRegularExpression('/^H1406001-\d$/', $me->text('.code'));
    }

    private function check(Tester $me, string $where): void
    {
        usleep(350_000);
        self::assertSame([], $me->faultsOfAccess(), $where);
        self::assertLessThanOrEqual(0, $me->script('return document.documentElement.scrollWidth - document.documentElement.clientWidth'), "{$where} hangs over");
    }
}
