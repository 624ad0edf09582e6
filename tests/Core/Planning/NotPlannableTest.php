<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\NotPlannable;
use PHPUnit\Framework\TestCase;

final class NotPlannableTest extends TestCase
{
    public function test_the_first_that_stands_against_a_case_is_said(): void
    {
        $of = static fn(mixed ...$as): ?string => NotPlannable::asItIs(...$as)[0] ?? null;
        self::assertSame('It is retired.', $of('retired', false, true, 0, true, false));
        self::assertSame('It is retired.', $of('draft', true, false, 3, false, false));
        self::assertSame('It is a template.', $of('draft', false, true, 0, true, false));
        self::assertSame('It has no steps yet.', $of('draft', false, false, 0, true, false));
        self::assertSame('It is not approved, and only approved cases may enter cycles.', $of('draft', false, false, 1, true, false));
        self::assertNull($of('draft', false, false, 1, true, true));
        self::assertNull($of('draft', false, false, 1, false, false));
    }

    public function test_so_it_is_with_its_text_and_its_rows(): void
    {
        $of = static fn(mixed ...$as): ?string => NotPlannable::asWalked(...$as)[0] ?? null;
        self::assertSame('Its data table has no rows.', $of(['x'], 1, 0, 0));
        self::assertSame('None of its data rows is chosen.', $of([], 1, 0, 4));
        self::assertSame('Step 1: no', $of(['Step 1: no', 'Step 2: no'], 1, 2, 4));
        self::assertNotNull($of([], 500, 5000, 5000));
        self::assertNull($of([], 3, null, 0));
        self::assertNull($of([], 3, 2, 4));
    }
}
