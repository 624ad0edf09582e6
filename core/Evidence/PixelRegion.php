<?php

declare(strict_types=1);

namespace LucidStep\Core\Evidence;

/**
 * A rectangle of a picture that a comparison leaves out, in pixels of the reference picture.
 */
final readonly class PixelRegion
{
    /**
     * @throws \InvalidArgumentException when it has no area or begins outside the picture
     */
    public function __construct(public int $x, public int $y, public int $width, public int $height)
    {
        if ($x < 0 || $y < 0 || $width < 1 || $height < 1) {
            throw new \InvalidArgumentException("A region needs an area inside the picture; got {$width} × {$height} at {$x}, {$y}.");
        }
    }

    /**
     * @return array{x: int, y: int, width: int, height: int}
     */
    public function toArray(): array
    {
        return ['x' => $this->x, 'y' => $this->y, 'width' => $this->width, 'height' => $this->height];
    }
}
