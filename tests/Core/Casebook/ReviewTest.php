<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Casebook;

use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\Comparison;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Casebook\ReviewAct;
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
                $after = Review::after(CaseState::from($state), ReviewAct::from($act), true);
                self::assertSame($becomes, $after?->value, "{$act} on {$state}");
            }
        }
        $again = Review::after(CaseState::Approved, ReviewAct::Approve, false);
        self::assertSame(CaseState::Approved, $again, 'changed since it was approved');
        self::assertSame(array_column(CaseState::cases(), 'value'), array_keys($table));
    }

    public function test_only_where_cycles_take_approved_cases_alone_an_edit_sends_back_to_review(): void
    {
        foreach (CaseState::cases() as $state) {
            self::assertSame($state, Review::afterEdit($state, false));
            self::assertSame(CaseState::Approved === $state ? CaseState::InReview : $state, Review::afterEdit($state, true));
        }
    }

    public function test_a_state_is_read_back_from_its_words(): void
    {
        foreach (CaseState::cases() as $state) {
            foreach ([$state->value, $state->words(), strtoupper($state->words()), str_replace('_', '-', $state->value)] as $words) {
                self::assertSame($state, CaseState::fromWords($words));
            }
        }
        self::assertNull(CaseState::fromWords('reviewed'));
        self::assertNull(CaseState::fromWords(''));
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
