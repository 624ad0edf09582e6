<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Where a defect stands, and where it may go from there.
 */
enum DefectState: string
{
    case New = 'new';
    case NeedsInformation = 'needs_information';
    case Accepted = 'accepted';
    case InWork = 'in_work';
    case Fixed = 'fixed';
    case Verified = 'verified';
    case Reopened = 'reopened';
    case Closed = 'closed';
    case Rejected = 'rejected';
    case Duplicate = 'duplicate';

    /**
     * The states it may go to.
     *
     * @return list<self>
     */
    public function next(): array
    {
        return match ($this) {
            self::New, self::Reopened => [
                self::Accepted,
                self::NeedsInformation,
                self::InWork,
                self::Fixed,
                self::Rejected,
                self::Duplicate,
            ],
            self::NeedsInformation => [self::New, self::Accepted, self::Rejected, self::Duplicate],
            self::Accepted => [self::InWork, self::Fixed, self::NeedsInformation, self::Rejected, self::Duplicate],
            self::InWork => [self::Fixed, self::Accepted, self::NeedsInformation],
            self::Fixed => [self::Verified, self::Reopened],
            self::Verified => [self::Closed, self::Reopened],
            self::Closed, self::Rejected, self::Duplicate => [self::Reopened],
        };
    }

    /**
     * Whether nobody has to act on it any more.
     */
    public function isClosed(): bool
    {
        return match ($this) {
            self::Verified, self::Closed, self::Rejected, self::Duplicate => true,
            default => false,
        };
    }
}
