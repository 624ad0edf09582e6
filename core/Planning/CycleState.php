<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Where a cycle stands between draft and closed.
 */
enum CycleState: string
{
    case Draft = 'draft';
    case InReview = 'in_review';
    case Released = 'released';
    case Closed = 'closed';
    case Abandoned = 'abandoned';

    /**
     * Where it may go from here.
     *
     * @param  bool  $reviewed whether cycles must be reviewed before they are released
     *
     * @return list<self>
     */
    public function next(bool $reviewed): array
    {
        return match ($this) {
            self::Draft => $reviewed ? [self::InReview, self::Abandoned] : [self::InReview, self::Released, self::Abandoned],
            self::InReview => [self::Released, self::Draft, self::Abandoned],
            self::Released => [self::Draft, self::Closed, self::Abandoned],
            self::Closed, self::Abandoned => [self::Released],
        };
    }

    /**
     * Whether going there needs a word of why: what undoes somebody's decision, or gives up.
     */
    public function needsReason(self $to): bool
    {
        return self::Abandoned === $to ||
            \in_array(
                [$this, $to],
                [
                    [self::Closed, self::Released],
                    [self::Abandoned, self::Released],
                    [self::InReview, self::Draft],
                    [self::Released, self::Draft],
                ],
                true,
            );
    }

    /**
     * Whether entries, order and conditions may still change.
     */
    public function isOpen(): bool
    {
        return self::Closed !== $this && self::Abandoned !== $this;
    }

    /**
     * Those in which it is still being planned: only leads see it.
     *
     * @return list<self>
     */
    public static function planned(): array
    {
        return [self::Draft, self::InReview];
    }

    public function isPlanned(): bool
    {
        return \in_array($this, self::planned(), true);
    }

    /**
     * In words, such as "in review".
     */
    public function label(): string
    {
        return str_replace('_', ' ', $this->value);
    }
}
