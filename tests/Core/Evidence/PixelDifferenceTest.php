<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Evidence;

use LucidStep\Core\Evidence\PixelDifference;
use LucidStep\Core\Evidence\PixelRegion;
use PHPUnit\Framework\TestCase;

final class PixelDifferenceTest extends TestCase
{
    public function test_what_differs_is_counted_and_framed(): void
    {
        $a = self::paper(100, 50);
        $b = self::paper(100, 50);
        self::assertSame(0, PixelDifference::between($a, $b)->differing);
        imagefilledrectangle($b, 10, 20, 19, 24, 0x000000);
        $found = PixelDifference::between($a, $b);
        self::assertSame([5000, 50], [$found->compared, $found->differing]);
        self::assertEqualsWithDelta(0.01, $found->share(), 1e-12);
        self::assertEquals(new PixelRegion(10, 20, 10, 5), $found->around);
        self::assertSame(0xc2334d, imagecolorat($found->picture, 12, 22));
        self::assertNotSame(0xc2334d, imagecolorat($found->picture, 9, 22));
    }

    public function test_small_differences_of_compression_are_not_told(): void
    {
        $a = self::paper(10, 10);
        $b = imagecreatetruecolor(10, 10);
        imagefill($b, 0, 0, 0xfbf9f4 - 0x080808);
        self::assertSame(0, PixelDifference::between($a, $b)->differing);
        self::assertSame(100, PixelDifference::between($a, $b, [], 7)->differing);
    }

    public function test_other_sizes_differ_where_only_one_reaches(): void
    {
        $found = PixelDifference::between(self::paper(10, 10), self::paper(12, 8));
        self::assertSame([10 * 10 + 2 * 8, 2 * 8 + 10 * 2], [$found->compared, $found->differing]);
    }

    public function test_what_is_left_out_is_not_looked_at(): void
    {
        mt_srand(5);
        for ($n = 0; $n < 30; $n++) {
            $a = self::paper(40, 30);
            $b = self::paper(40, 30);
            $seen = [];
            for ($i = 0; $i < 60; $i++) {
                [$x, $y] = [mt_rand(0, 39), mt_rand(0, 29)];
                imagesetpixel($b, $x, $y, 0x000000);
                $seen["{$x} {$y}"] = [$x, $y];
            }
            $regions = array_map(
                static fn(): PixelRegion => new PixelRegion(mt_rand(0, 38), mt_rand(0, 28), mt_rand(1, 20), mt_rand(1, 20)),
                range(1, mt_rand(1, 3)),
            );
            $in = static fn(int $x, int $y): bool => [] !==
                array_filter(
                    $regions,
                    static fn(PixelRegion $r): bool => $x >= $r->x && $x < $r->x + $r->width && $y >= $r->y && $y < $r->y + $r->height,
                );
            $left = 0;
            foreach (range(0, 39) as $x) {
                foreach (range(0, 29) as $y) {
                    $left += $in($x, $y) ? 0 : 1;
                }
            }
            $found = PixelDifference::between($a, $b, $regions);
            self::assertSame($left, $found->compared);
            self::assertSame(count(array_filter($seen, static fn(array $p): bool => !$in($p[0], $p[1]))), $found->differing);
        }
    }

    public function test_only_true_colour_and_sensible_tolerances_and_regions(): void
    {
        foreach (
            [
                static fn() => PixelDifference::between(imagecreate(2, 2) ?: throw new \LogicException(), self::paper(2, 2)),
                static fn() => PixelDifference::between(self::paper(2, 2), self::paper(2, 2), [], 256),
                static fn() => new PixelRegion(0, 0, 0, 3),
            ]
            as $do
        ) {
            try {
                $do();
                self::fail('It was taken.');
            } catch (\InvalidArgumentException $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    private static function paper(int $width, int $height): \GdImage
    {
        $picture = imagecreatetruecolor(max(1, $width), max(1, $height));
        imagefill($picture, 0, 0, 0xfbf9f4);

        return $picture;
    }
}
