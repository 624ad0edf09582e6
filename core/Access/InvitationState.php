<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * Whether an invitation can still be accepted.
 */
enum InvitationState: string
{
    case Open = 'open';
    case Expired = 'expired';
    case Accepted = 'accepted';
    case Withdrawn = 'withdrawn';

    public static function of(
        ?\DateTimeInterface $acceptedAt,
        ?\DateTimeInterface $withdrawnAt,
        \DateTimeInterface $expiresAt,
        \DateTimeInterface $now,
    ): self {
        return match (true) {
            null !== $withdrawnAt => self::Withdrawn,
            null !== $acceptedAt => self::Accepted,
            $expiresAt <= $now => self::Expired,
            default => self::Open,
        };
    }

    /**
     * Whether it can be sent again, or withdrawn: nobody has decided about it.
     */
    public function isUndecided(): bool
    {
        return self::Open === $this || self::Expired === $this;
    }
}
