<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Results;

use LucidStep\Core\Results\CellResult;
use LucidStep\Core\Results\Flips;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * When a cell is unsteady, and when it always fails (rules of the job, 12).
 */
final class FlipsTest extends TestCase
{
    /**
     * @return array<string, array{string, int, bool, bool}> results as verdict, build and version; flips, unsteady, always fails
     */
    public static function cells(): array
    {
        return [
            'nothing' => ['', 0, false, false],
            'one build' => ['P11 B11 F11 P11', 2, true, false],
            'three builds' => ['P11 B21 F21 P31', 2, false, false],
            'a regression and its fix' => ['P11 F21 F21 P31 P41', 2, false, false],
            'the case changed meanwhile' => ['P11 F12 P13', 2, false, false],
            'one flip on one build' => ['P11 F11 P21', 2, false, false],
            'two flips on two builds' => ['P11 F11 F21 P21', 2, true, false],
            'fails, one blocked' => ['F11 B11 F21 F31', 0, false, true],
            'only two' => ['F11 F21', 0, false, false],
            'a pass before them' => ['P11 F21 F31 F41', 1, false, true],
            'a pass among them' => ['F11 P21 F31', 2, false, false],
            'unsteady once, long ago' => ['P11 F11 P11 ' . str_repeat('P21 ', 10), 2, false, false],
            'not applicable' => ['P11 N11 F11 N11 P11', 2, true, false],
        ];
    }

    #[DataProvider('cells')]
    public function test_a_cell_says_how_it_changes(string $cell, int $flips, bool $unsteady, bool $fails): void
    {
        $of = new Flips(self::results($cell));
        self::assertSame([$flips, $unsteady, $fails], [$of->count(), $of->isUnsteady(), $of->alwaysFails()]);
    }

    public function test_blocked_ones_never_count_and_backwards_it_flips_as_often(): void
    {
        mt_srand(12);
        for ($n = 0; $n < 500; $n++) {
            $all = [];
            for ($i = mt_rand(0, 25); $i > 0; $i--) {
                $all[] = 'PFBN'[mt_rand(0, 3)] . mt_rand(1, 3) . mt_rand(1, 2);
            }
            $some = array_filter($all, static fn(string $r): bool => 'P' === $r[0] || 'F' === $r[0]);
            $whole = new Flips(self::results(implode(' ', $all)));
            $without = new Flips(self::results(implode(' ', $some)));
            self::assertEquals($whole, $without);
            self::assertSame($whole->count(), (new Flips(self::results(implode(' ', array_reverse($some)))))->count());
            self::assertTrue(!$whole->isUnsteady() || $whole->count() >= Flips::MANY, 'unsteady is only what flips');
        }
    }

    /**
     * @return list<CellResult>
     */
    private static function results(string $cell): array
    {
        $verdicts = ['P' => Verdict::Pass, 'F' => Verdict::Fail, 'B' => Verdict::Blocked, 'N' => Verdict::NotApplicable];

        return array_map(
            static fn(string $r): CellResult => new CellResult($verdicts[$r[0]], $r[1], (int) $r[2]),
            array_values(array_filter(explode(' ', $cell))),
        );
    }
}
