<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\Core\Access\InvitationLine;
use OpenApi\Attributes as OA;

/**
 * What became of a line of people to invite.
 */
#[OA\Schema(description: 'What became of a line of people to invite.')]
final readonly class InvitedLine
{
    public function __construct(
        #[OA\Property(description: 'Of the text that was sent, counted from one')] public int $line,
        #[OA\Property(description: 'As it was typed')] public string $text,
        #[OA\Property] public string $email,
        #[OA\Property(enum: ['invited', 'again', 'refused'])] public string $became,
        #[OA\Property(description: 'Why it was refused')] public ?string $problem,
    ) {}

    public static function refused(InvitationLine $line, string $why): self
    {
        return new self($line->number, $line->text, $line->email, 'refused', $why);
    }
}
