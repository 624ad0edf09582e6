<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\DeveloperQueue;
use PHPUnit\Framework\TestCase;

/**
 * What a defect is to a developer.
 */
final class DeveloperQueueTest extends TestCase
{
    public function test_whatever_its_state_a_defect_has_at_most_one_place_and_what_is_done_none(): void
    {
        foreach (DefectState::cases() as $state) {
            [$mine, $others, $nobodys] = [
                DeveloperQueue::of($state, true, true),
                DeveloperQueue::of($state, false, true),
                DeveloperQueue::of($state, false, false),
            ];
            if ($state->isClosed()) {
                self::assertSame([null, null, null], [$mine, $others, $nobodys], $state->value);

                continue;
            }
            self::assertNotNull($mine, "{$state->value}: what is mine and open is to be seen");
            self::assertSame(DefectState::Reopened === $state ? DeveloperQueue::Reopened : null, $others, $state->value);
        }
        self::assertSame(DeveloperQueue::AskedBack, DeveloperQueue::of(DefectState::NeedsInformation, true, true));
        self::assertSame(DeveloperQueue::Fixed, DeveloperQueue::of(DefectState::Fixed, true, true));
        self::assertSame(DeveloperQueue::WithMe, DeveloperQueue::of(DefectState::InWork, true, true));
        self::assertSame(DeveloperQueue::Nobody, DeveloperQueue::of(DefectState::New, false, false));
        self::assertNull(DeveloperQueue::of(DefectState::Fixed, false, false));
    }

    public function test_what_came_back_comes_first_then_the_gravest(): void
    {
        $places = [
            DeveloperQueue::Reopened->place('trivial'),
            DeveloperQueue::WithMe->place('critical'),
            DeveloperQueue::WithMe->place('minor'),
            DeveloperQueue::Fixed->place('critical'),
        ];
        $sorted = $places;
        sort($sorted);
        self::assertSame($sorted, $places);
    }
}
