<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Casebook;

use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Casebook\Step;
use PHPUnit\Framework\TestCase;

final class ReviewTest extends TestCase
{
    public function test_what_each_act_makes_of_each_state(): void
    {
        $table = [
            'draft' => ['ask' => 'in_review', 'approve' => 'approved', 'return' => null],
            'in_review' => ['ask' => null, 'approve' => 'approved', 'return' => 'draft'],
            'approved' => ['ask' => 'in_review', 'approve' => null, 'return' => null],
            'retired' => ['ask' => null, 'approve' => null, 'return' => null],
        ];
        foreach ($table as $state => $acts) {
            foreach ($acts as $act => $becomes) {
                self::assertSame($becomes, Review::after($state, $act, true), "{$act} on {$state}");
            }
        }
        self::assertSame('approved', Review::after('approved', 'approve', false), 'changed since it was approved');
        self::assertSame(Review::STATES, array_keys($table));
    }

    public function test_only_where_cycles_take_approved_cases_alone_an_edit_sends_back_to_review(): void
    {
        foreach (Review::STATES as $state) {
            self::assertSame($state, Review::afterEdit($state, false));
            self::assertSame('approved' === $state ? 'in_review' : $state, Review::afterEdit($state, true));
        }
    }

    public function test_steps_that_come_without_pictures_keep_those_they_had(): void
    {
        $picture = static fn(string $sha): array => [['sha256' => $sha, 'name' => "{$sha}.png"]];
        $before = [
            new Step('Open the page', '', '', $picture('a')),
            new Step('Pay by card', '', 'Paid', $picture('b')),
            new Step('Read the code', '', '', $picture('c')),
        ];
        $now = Comparison::withPicturesOf($before, [
            new Step('Read the code'),
            new Step('Open the page'),
            new Step('Pay by card today', '', 'Paid'),
            new Step('Something new'),
        ]);
        self::assertSame(['c', 'a', 'b', null], array_map(static fn(Step $s): ?string => $s->files[0]['sha256'] ?? null, $now));
        $own = [new Step('Open the page', '', '', $picture('z')), new Step('Pay by card')];
        self::assertSame($own, Comparison::withPicturesOf($before, $own));
        self::assertSame([], Comparison::withPicturesOf($before, []));
    }
}
