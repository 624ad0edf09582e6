<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * How a defect stands in a tracker, in its words; empty: it does not tell.
 */
final readonly class OutsideFacts
{
    /**
     * @param  string  $changed when it changed there (ISO 8601)
     */
    public function __construct(public string $state, public string $assignee = '', public string $changed = '') {}

    /**
     * Whether another is known that changed later: this one was overtaken on its way.
     */
    public function isOlderThan(self $known): bool
    {
        [$mine, $theirs] = [self::time($this->changed), self::time($known->changed)];

        return null !== $mine && null !== $theirs && $mine < $theirs;
    }

    private static function time(string $text): ?\DateTimeImmutable
    {
        try {
            return '' === $text ? null : new \DateTimeImmutable($text);
        } catch (\Exception) {
            return null;
        }
    }
}
