<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\Core\People\Preferences;
use OpenApi\Attributes as OA;

/**
 * How a person is told of something.
 */
#[OA\Schema(description: 'How a person is told of something.', required: ['kind', 'here', 'mail'])]
final readonly class NoticeSetting
{
    public function __construct(
        #[OA\Property(enum: NoticeKind::class)] public string $kind,
        #[OA\Property(description: 'In the application; of a standstill always')] public bool $here,
        #[OA\Property(description: 'By mail')] public bool $mail,
    ) {}

    public static function from(NoticeKind $kind, Preferences $preferences): self
    {
        $choice = $kind->choiceOf($preferences);

        return new self($kind->value, $choice->here, $choice->mail);
    }
}
