<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Coverage;

use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\Outcome;
use LucidStep\Core\Coverage\RequirementNode;
use LucidStep\Core\Coverage\RequirementOutcome;
use LucidStep\Core\Coverage\RequirementStates;
use LucidStep\Core\Coverage\RequirementTree;
use PHPUnit\Framework\TestCase;

/**
 * What requirements show on many builds at once is what the tree shows on each.
 */
final class RequirementStatesTest extends TestCase
{
    public function test_of_any_tree_it_says_what_the_tree_says(): void
    {
        mt_srand(17);
        $states = CoverageState::cases();
        for ($n = 0; $n < 400; $n++) {
            $nodes = $cases = $parents = $own = [];
            $many = mt_rand(1, 14);
            for ($i = 0; $i < $many; $i++) {
                // Each stands below one before it, below none, or below one that is not there.
                $parent = [null, 'gone', $i > 0 ? 'q' . mt_rand(0, $i - 1) : null][mt_rand(0, 2)];
                $of = [];
                for ($c = mt_rand(0, 3); $c > 0; $c--) {
                    $place = \count($cases);
                    $state = $states[mt_rand(0, 7)];
                    $cases[$place] = new Outcome($state, $state->isWalked());
                    $of[] = $place;
                }
                $nodes[] = new RequirementNode("q{$i}", $parent, $of);
                $parents["q{$i}"] = $parent;
                $worst = CoverageState::worst(array_map(static fn(int $p): CoverageState => $cases[$p]->state, $of));
                if (null !== $worst) {
                    $own["q{$i}"] = $worst;
                }
            }
            $tree = array_map(
                static fn(RequirementOutcome $o): string => $o->state->value,
                (new RequirementTree($nodes, $cases))->outcomes(),
            );
            $said = array_map(static fn(CoverageState $s): string => $s->value, RequirementStates::of($parents, $own));
            self::assertSame(array_keys($parents), array_keys($said));
            ksort($tree);
            ksort($said);
            self::assertSame($tree, $said, "tree {$n}");
        }
    }

    public function test_nothing_comes_to_nothing_and_who_has_no_case_is_uncovered(): void
    {
        self::assertSame([], RequirementStates::of([], []));
        self::assertSame(['a' => CoverageState::Uncovered], RequirementStates::of(['a' => null], []));
        $pass = ['b' => CoverageState::Pass];
        $parents = ['a' => null, 'b' => 'a'];
        self::assertSame(['a' => CoverageState::Pass, 'b' => CoverageState::Pass], RequirementStates::of($parents, $pass));
        $with = RequirementStates::of([...$parents, 'c' => 'a'], $pass);
        self::assertSame(CoverageState::Uncovered, $with['a'], 'one below it that nobody thought of');
    }
}
