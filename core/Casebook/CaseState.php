<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * Where a case stands between draft and approved.
 */
enum CaseState: string
{
    case Draft = 'draft';
    case InReview = 'in_review';
    case Approved = 'approved';
    case Retired = 'retired';

    /**
     * As people read and write it.
     */
    public function words(): string
    {
        return str_replace('_', ' ', $this->value);
    }

    /**
     * As {@see words()} has it, in any case and with any of space, hyphen and underscore.
     */
    public static function fromWords(string $words): ?self
    {
        return self::tryFrom(str_replace([' ', '-'], '_', mb_strtolower($words)));
    }
}
