<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Execution;

use DateTimeImmutable;
use LucidStep\Core\Execution\CycleView;
use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\HeldReason;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Verdict\AttemptFacts;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CycleViewTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, list<string>}>
     */
    public static function conditions(): iterable
    {
        foreach (
            [
                'pass' => [],
                'fail' => ['needs_pass'],
                'blocked' => ['needs_pass'],
                'not_run' => ['needs_pass'],
                'in_progress' => ['needs_pass'],
                'retest' => ['needs_pass'],
                'not_applicable' => ['needs_pass_not_applicable'],
            ]
            as $shows => $reasons
        ) {
            yield "only if passed, {$shows}" => ['only_if_passed', $shows, $reasons];
        }
        foreach (
            [
                'pass' => [],
                'fail' => [],
                'blocked' => [],
                'not_applicable' => [],
                'not_run' => ['waits_for'],
                'in_progress' => ['waits_for'],
                'retest' => ['waits_for'],
            ]
            as $shows => $reasons
        ) {
            yield "after, {$shows}" => ['after', $shows, $reasons];
        }
    }

    /**
     * @param  list<string>  $reasons
     */
    #[DataProvider('conditions')]
    public function test_a_condition_holds_until_it_is_met(string $kind, string $shows, array $reasons): void
    {
        $entries = [self::entry('a', $shows), self::entry('b')];
        $conditions = Conditions::of([new Condition('b', 'a', ConditionKind::from($kind))]);
        $held = self::view($entries, $conditions)->readiness('b');
        self::assertSame($reasons === [] ? 'ready' : 'held', $held->is);
        self::assertSame($reasons, self::kinds($held->reasons));
        $warned = self::view($entries, $conditions, hold: false)->readiness('b');
        self::assertSame('ready', $warned->is);
        self::assertSame($reasons, self::kinds($warned->warnings));
    }

    public function test_every_reason_is_named(): void
    {
        $entries = [self::entry('a'), self::entry('b'), self::entry('c', window: ['2027-06-02', null])];
        $conditions = Conditions::of([new Condition('c', 'a', ConditionKind::After), new Condition('c', 'b', ConditionKind::OnlyIfPassed)]);
        $readiness = self::view($entries, $conditions)->readiness('c');
        self::assertSame(['too_early', 'waits_for', 'needs_pass'], self::kinds($readiness->reasons));
        self::assertSame('A', $readiness->reasons[1]->name);
    }

    public function test_windows_include_their_start_exclude_their_end_and_hold_even_where_conditions_warn(): void
    {
        $now = '2027-06-01 12:00';
        self::assertSame('ready', self::view([self::entry('a', window: [$now, null])])->readiness('a')->is);
        self::assertSame('held', self::view([self::entry('a', window: ['2027-06-01 12:00:01', null])])->readiness('a')->is);
        self::assertSame(
            ['too_late'],
            self::kinds(self::view([self::entry('a', window: [null, $now])], hold: false)->readiness('a')->reasons),
        );
        self::assertSame('ready', self::view([self::entry('a', window: [null, '2027-06-01 12:00:01'])])->readiness('a')->is);
    }

    public function test_what_is_decided_is_done_even_when_it_would_be_held(): void
    {
        self::assertSame('done', self::view([self::entry('a', 'fail', window: [null, '2027-05-01'])])->readiness('a')->is);
    }

    public function test_the_next_is_the_first_ready_one_after_the_current_then_from_the_first(): void
    {
        $view = self::view([
            self::entry('a', who: 'me'),
            self::entry('b', 'pass', 'me'),
            self::entry('c', who: 'you'),
            self::entry('d', who: 'me'),
        ]);
        self::assertSame('a', $view->next('me')?->id);
        self::assertSame('d', $view->next('me', 'a')?->id);
        self::assertSame('a', $view->next('me', 'd')?->id);
        self::assertSame('c', $view->next('you', 'd')?->id);
        self::assertNull($view->next('you', 'c'), 'without the current one');
    }

    public function test_unassigned_entries_are_anybodys_where_the_policy_lets_them(): void
    {
        $view = self::view([self::entry('a')]);
        self::assertSame('a', $view->next('me')?->id);
        self::assertNull($view->next('me', null, false));
    }

    public function test_what_another_person_walks_is_not_next(): void
    {
        $view = self::view([self::entry('a', who: 'me', openWith: 'you'), self::entry('b', who: 'me', openWith: 'me')]);
        self::assertSame('b', $view->next('me')?->id);
    }

    public function test_an_entry_that_is_not_there_is_an_error(): void
    {
        $this->expectException(\OutOfBoundsException::class);
        self::view([])->readiness('a');
    }

    /**
     * @param  list<EntryFacts>  $entries
     */
    private static function view(array $entries, ?Conditions $conditions = null, bool $hold = true): CycleView
    {
        return new CycleView($entries, $conditions ?? Conditions::of([]), new DateTimeImmutable('2027-06-01 12:00'), $hold);
    }

    /**
     * @param  array{?string, ?string}  $window
     */
    private static function entry(
        string $id,
        string $shows = 'not_run',
        ?string $who = null,
        ?string $openWith = null,
        array $window = [null, null],
    ): EntryFacts {
        $at = new DateTimeImmutable('2027-05-01');
        $state = match ($shows) {
            'not_run' => EntryState::of([]),
            'in_progress' => EntryState::of([new AttemptFacts(1, AttemptState::Open, true, null, $at)]),
            'retest' => EntryState::of([new AttemptFacts(1, AttemptState::Finished, true, Verdict::Pass, $at)], $at->modify('+1 day')),
            default => EntryState::of([new AttemptFacts(1, AttemptState::Finished, true, Verdict::from($shows), $at)]),
        };
        $edge = static fn(?string $time): ?DateTimeImmutable => $time === null ? null : new DateTimeImmutable($time);

        return new EntryFacts($id, strtoupper($id), $state, $who, $openWith, $edge($window[0]), $edge($window[1]));
    }

    /**
     * @param  list<HeldReason>  $reasons
     * @return list<string>
     */
    private static function kinds(array $reasons): array
    {
        return array_map(static fn(HeldReason $r): string => $r->kind, $reasons);
    }
}
