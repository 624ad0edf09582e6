<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\FixState;
use LucidStep\Core\Defects\RetestProposal;
use PHPUnit\Framework\TestCase;

final class RetestProposalTest extends TestCase
{
    public function test_it_is_proposed_at_the_latest_build_that_a_fix_of_it_names(): void
    {
        $proposal = RetestProposal::of(2, 3, [self::fixed('D1', 1), self::fixed('D2', 3)]);
        self::assertSame(
            [3, 'b3', ['D1', 'D2'], [], false],
            [$proposal?->build, $proposal?->buildName, $proposal?->fixed, $proposal?->waitsOn, $proposal?->isBehind],
        );
        self::assertNull(RetestProposal::of(3, 3, [self::fixed('D1', 1), self::fixed('D2', 3)]), 'it failed with the fix already');
        self::assertNull(RetestProposal::of(1, 1, []));
        self::assertNotNull(RetestProposal::of(null, null, [self::fixed('D1', 1)]), 'nobody knows on what it was walked');
    }

    public function test_what_is_still_open_is_waited_for_and_an_earlier_cycle_is_said_to_be_so(): void
    {
        $open = new FixState('D9', DefectState::InWork, null);
        $proposal = RetestProposal::of(1, 2, [self::fixed('D1', 3), $open, new FixState('D7', DefectState::Rejected, null)]);
        self::assertSame([['D9'], true], [$proposal?->waitsOn, $proposal?->isBehind]);
    }

    public function test_property_with_every_state_it_is_proposed_only_if_something_is_fixed_later_than_it_was_walked(): void
    {
        mt_srand(2);
        for ($turn = 0; $turn < 1000; $turn++) {
            $defects = [];
            for ($n = mt_rand(0, 4); $n > 0; $n--) {
                $state = DefectState::cases()[mt_rand(0, count(DefectState::cases()) - 1)];
                $defects[] = new FixState("D{$n}", $state, DefectState::Fixed === $state ? mt_rand(1, 4) : null);
            }
            $on = mt_rand(1, 4);
            $proposal = RetestProposal::of($on, 4, $defects);
            $builds = array_filter(array_map(static fn(FixState $d): ?int => $d->build, $defects));
            self::assertSame([] !== $builds && max($builds) > $on, null !== $proposal);
            foreach ($defects as $d) {
                $waits = !$d->state->isClosed() && DefectState::Fixed !== $d->state;
                self::assertSame($waits && null !== $proposal, in_array($d->key, $proposal->waitsOn ?? [], true));
            }
        }
    }

    private static function fixed(string $key, int $build): FixState
    {
        return new FixState($key, DefectState::Fixed, $build, "b{$build}");
    }
}
