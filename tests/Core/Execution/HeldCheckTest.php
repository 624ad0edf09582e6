<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Execution;

use DateTimeImmutable;
use LucidStep\Core\Execution\CycleView;
use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\HeldCheck;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Verdict\EntryState;
use PHPUnit\Framework\TestCase;

final class HeldCheckTest extends TestCase
{
    private const SHOWN = ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest'];

    /**
     * Random cycles: an entry is held exactly where the view of the whole cycle gives a reason.
     */
    public function test_property_it_says_what_the_view_of_the_whole_says(): void
    {
        mt_srand(5);
        $now = new DateTimeImmutable('2026-11-28T12:00:00Z');
        $held = 0;
        for ($n = 0; $n < 400; ++$n) {
            $facts = $conditions = [];
            for ($i = 0; $i < mt_rand(2, 8); ++$i) {
                $stopped = $i > 0 && 0 === mt_rand(0, 5);
                $shown = $stopped ? 'blocked' : self::SHOWN[mt_rand(0, 6)];
                $window = static fn(): ?DateTimeImmutable => 0 === mt_rand(0, 4) ? $now->modify(mt_rand(-2, 2) . ' hours') : null;
                $facts[] = new EntryFacts(
                    "e{$i}",
                    "E{$i}",
                    EntryState::stored($shown, 'retest' === $shown ? 'fail' : null, $stopped),
                    notBefore: $window(),
                    notAfter: $window(),
                    stoppedBy: $stopped ? ['e0'] : [],
                );
                if ($i > 0 && 0 === mt_rand(0, 2)) {
                    $conditions[] = new Condition("e{$i}", 'e' . mt_rand(0, $i - 1), ConditionKind::cases()[mt_rand(0, 1)]);
                }
            }
            $hold = 0 !== mt_rand(0, 3);
            $view = new CycleView($facts, Conditions::of($conditions), $now, $hold);
            $check = new HeldCheck($now, $hold);
            foreach ($facts as $i => $entry) {
                $is =
                    $check->byWindow($entry->state, $entry->notBefore, $entry->notAfter) ||
                    ([] !== $entry->stoppedBy && $check->byStop($entry->state));
                foreach ($conditions as $c) {
                    if ($c->entry === $entry->id && !\in_array($c->needs, $entry->stoppedBy, true)) {
                        $is = $is || $check->byCondition($entry->state, $c->kind, $facts[(int) substr($c->needs, 1)]->state);
                    }
                }
                self::assertSame('held' === $view->readiness($entry->id)->is, $is, "cycle {$n}, entry {$i}");
                $held += $is ? 1 : 0;
            }
        }
        self::assertGreaterThan(300, $held);
    }
}
