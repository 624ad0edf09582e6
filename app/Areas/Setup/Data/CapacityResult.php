<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use LucidStep\Core\Planning\CapacityLine;
use OpenApi\Attributes as OA;

/**
 * What became of a line of people's time.
 */
#[OA\Schema(description: "What became of a line of people's time.")]
final readonly class CapacityResult
{
    public function __construct(
        #[OA\Property(description: 'Of the text that was sent, counted from one')] public int $line,
        #[OA\Property(description: 'As it was typed')] public string $text,
        #[OA\Property(description: 'Whose time it is; null where it was refused')] public ?string $person_id,
        #[OA\Property(description: 'Why it was refused')] public ?string $problem,
    ) {}

    public static function refused(CapacityLine $line, string $why): self
    {
        return new self($line->number, $line->text, null, $why);
    }
}
