<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use LucidStep\App\Models\Invitation;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * An invitation that nobody has accepted yet.
 */
#[OA\Schema(description: 'An invitation that nobody has accepted yet.')]
final readonly class OpenInvitation
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $email,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['admin', 'lead', 'tester', 'developer', 'reader'])] public string $role,
        #[OA\Property] public Person $inviter,
        #[
            OA\Property(description: 'waiting: the mail goes in a moment', enum: ['waiting', 'sent', 'failed', 'expired']),
        ]
        public string $state,
        #[OA\Property(description: 'Why the mail did not go')] public ?string $failure,
        #[OA\Property] public ?string $sent_at,
        #[OA\Property] public string $expires_at,
    ) {}

    public static function from(Invitation $i): self
    {
        return new self(
            $i->id,
            $i->email,
            $i->name,
            $i->role->value,
            Person::from($i->inviter),
            match (true) {
                $i->expires_at->isPast() => 'expired',
                null !== $i->failure => 'failed',
                default => null === $i->sent_at ? 'waiting' : 'sent',
            },
            $i->failure,
            $i->sent_at?->toIso8601ZuluString(),
            $i->expires_at->toIso8601ZuluString(),
        );
    }
}
