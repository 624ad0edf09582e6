<?php

declare(strict_types=1);

namespace LucidStep\Core\Evidence;

/**
 * How far two pictures differ, pixel by pixel. A pixel differs when one of its channels (red, green, blue, opacity) is off
 * by more than the tolerance. Where the pictures have other sizes, what only one of them has differs.
 */
final readonly class PixelDifference
{
    /** Steps of 255 that compression and smoothing may be off by without being told. */
    public const TOLERANCE = 8;

    /**
     * @param  int  $compared  how many pixels were looked at
     * @param  int  $differing how many of them differ
     * @param  ?PixelRegion  $around    the smallest rectangle around all that differ; null when none does
     * @param  \GdImage  $picture   the second picture in pale grey, what differs in full red, what was left out in blue
     */
    private function __construct(public int $compared, public int $differing, public ?PixelRegion $around, public \GdImage $picture) {}

    /**
     * The share of differing pixels, 0 to 1; 0 when nothing was compared.
     */
    public function share(): float
    {
        return 0 === $this->compared ? 0.0 : $this->differing / $this->compared;
    }

    /**
     * @param  \GdImage  $reference how it should look, in true colour
     * @param  \GdImage  $seen      how it looked, in true colour
     * @param  list<PixelRegion>  $ignored   what is not looked at
     * @param  int  $tolerance 0 to 255
     *
     * @throws \InvalidArgumentException when a picture is not in true colour, or the tolerance is outside 0 to 255
     */
    public static function between(\GdImage $reference, \GdImage $seen, array $ignored = [], int $tolerance = self::TOLERANCE): self
    {
        if (!imageistruecolor($reference) || !imageistruecolor($seen)) {
            throw new \InvalidArgumentException('Pictures are compared in true colour.');
        }
        if ($tolerance < 0 || $tolerance > 255) {
            throw new \InvalidArgumentException("The tolerance is between 0 and 255, not {$tolerance}.");
        }
        [$w1, $h1, $w2, $h2] = [imagesx($reference), imagesy($reference), imagesx($seen), imagesy($seen)];
        $width = max($w1, $w2);
        $height = max($h1, $h2);
        $picture = self::pale($seen, $width, $height);
        $out = self::rows($ignored, $height);
        $compared = $differing = 0;
        $left = $width;
        $top = $height;
        $right = $bottom = -1;
        for ($y = 0; $y < $height; $y++) {
            $skip = $out[$y] ?? [];
            for ($x = 0; $x < $width; $x++) {
                foreach ($skip as [$from, $to]) {
                    if ($x >= $from && $x < $to) {
                        imagefilledrectangle($picture, $x, $y, min($to, $width) - 1, $y, 0xc9d6f2);
                        $x = $to - 1;

                        continue 2;
                    }
                }
                $inFirst = $x < $w1 && $y < $h1;
                $inSecond = $x < $w2 && $y < $h2;
                if (!$inFirst && !$inSecond) {
                    continue;
                }
                $compared++;
                if ($inFirst && $inSecond) {
                    $a = (int) imagecolorat($reference, $x, $y);
                    $b = (int) imagecolorat($seen, $x, $y);
                    if ($a === $b || !self::differs($a, $b, $tolerance)) {
                        continue;
                    }
                }
                imagesetpixel($picture, $x, $y, 0xc2334d);
                $differing++;
                $left = min($left, $x);
                $right = max($right, $x);
                $top = min($top, $y);
                $bottom = $y;
            }
        }

        return new self(
            $compared,
            $differing,
            $right < 0 ? null : new PixelRegion($left, $top, $right - $left + 1, $bottom - $top + 1),
            $picture,
        );
    }

    /**
     * The picture so pale that what is marked on it stands out, on paper where it does not reach.
     *
     * @param  int<1, max>  $width
     * @param  int<1, max>  $height
     */
    private static function pale(\GdImage $seen, int $width, int $height): \GdImage
    {
        $picture = imagecreatetruecolor($width, $height) ?: throw new \RuntimeException('There is no room for a picture of what differs.');
        imagefilledrectangle($picture, 0, 0, $width, $height, 0xffffff);
        imagecopy($picture, $seen, 0, 0, 0, 0, imagesx($seen), imagesy($seen));
        imagefilter($picture, \IMG_FILTER_GRAYSCALE);
        imagefilledrectangle($picture, 0, 0, $width, $height, (int) imagecolorallocatealpha($picture, 255, 255, 255, 26));

        return $picture;
    }

    private static function differs(int $a, int $b, int $tolerance): bool
    {
        return abs((($a >> 16) & 255) - (($b >> 16) & 255)) > $tolerance ||
            abs((($a >> 8) & 255) - (($b >> 8) & 255)) > $tolerance ||
            abs(($a & 255) - ($b & 255)) > $tolerance ||
            // GD keeps opacity in 0 to 127.
            2 * abs((($a >> 24) & 127) - (($b >> 24) & 127)) > $tolerance;
    }

    /**
     * @param  list<PixelRegion>  $ignored
     *
     * @return array<int, list<array{int, int}>> from and to (exclusive) of what is left out, by row
     */
    private static function rows(array $ignored, int $height): array
    {
        $rows = [];
        foreach ($ignored as $region) {
            for ($y = $region->y; $y < min($height, $region->y + $region->height); $y++) {
                $rows[$y][] = [$region->x, $region->x + $region->width];
            }
        }

        return $rows;
    }
}
